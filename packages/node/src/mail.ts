import { Buffer } from 'node:buffer'
import type { Chart, Scene, Spread, State, Theme } from '@dapplo/core'
import { type Composition, type DataTable, dataTables, escapeXml, runsLeft } from '@dapplo/core/internal'
import { type PictureFrame, paintPng, shownInTime } from './picture.ts'
import { textTable } from './text-table.ts'

/** The frame of a chart in a mail: 640 × 400 pixels by day, unless told otherwise. */
export type MailFrame = PictureFrame & {
  /** How many rows of values are listed at most. Default 100; 0 for no table. */
  rows?: number
}

/** What a message with a chart is made of, for those who send it by a mailer of their own. */
export interface MailParts {
  /** The chart's title. */
  subject: string
  /** The message in plain text: what the chart says, and its values as a table. */
  text: string
  /** The message in HTML: the picture, which names its parts by `cid:` addresses, and its values as a table. */
  html: string
  /** The pictures that the HTML shows, to be sent within the message. */
  pictures: readonly MailPicture[]
}

/** A picture within a message. */
export interface MailPicture {
  /** Name of a file. */
  name: string
  /** Media type. */
  type: string
  /** Content id, without its angle brackets, as in RFC 2392. */
  cid: string
  bytes: Uint8Array
}

/** Who writes a message to whom, and when. */
export interface MailHeads {
  /** One address, or several with commas between them. Left out: the message is a draft. */
  from?: string
  to?: string
  /** Default: the chart's title. */
  subject?: string
  /** Default: now. */
  date?: Date
}

const SIZE = { width: 640, height: 400 }
const MOST_ROWS = 100
/** Pixels of the picture to one on the screen: sharp where screens are. */
const DENSITY = 2

/** What a message with the chart is made of: its picture, with its values as a table and as plain text. */
export async function mailParts(
  chart: Chart | Spread,
  frame: MailFrame = {},
  state: State = {},
): Promise<MailParts> {
  const { rows = MOST_ROWS, ...own } = frame
  const density = frame.density ?? DENSITY
  const { scene, composition } = await shownInTime(chart, { ...SIZE, density, ...own }, state)
  const tables = rows > 0 ? dataTables(composition, rows) : []
  const picture = { name: 'chart.png', type: 'image/png', cid: 'chart@dapplo' }
  return {
    subject: scene.title,
    text: plain(scene, tables, composition),
    html: html(scene, tables, composition, picture.cid),
    pictures: [{ ...picture, bytes: await paintPng(scene, density) }],
  }
}

/**
 * The chart as a message (RFC 5322, the content of an .eml file): its picture within it, with its values as a table, and
 * the same in plain text. Without a sender it is a draft, which mail programs open to be sent.
 */
export async function toMail(
  chart: Chart | Spread,
  { from, to, subject, date, ...frame }: MailFrame & MailHeads = {},
  state: State = {},
): Promise<Uint8Array> {
  const { createTransport } = await import('nodemailer')
  const parts = await mailParts(chart, frame, state)
  const sent = await createTransport({ streamTransport: true, buffer: true, newline: 'windows' }).sendMail({
    from,
    to,
    date,
    subject: subject ?? parts.subject,
    text: parts.text,
    html: parts.html,
    attachments: parts.pictures.map(({ name, type, cid, bytes }) => ({
      filename: name,
      contentType: type,
      contentDisposition: 'inline',
      cid,
      content: Buffer.from(bytes),
    })),
    headers: from === undefined ? { 'X-Unsent': '1' } : {},
  })
  return sent.message as Buffer
}

/** The lines of a scene's batch. */
const linesIn = (scene: Scene, id: string): string =>
  scene.batches.flatMap(batch => (batch.kind === 'texts' && batch.id === id ? batch.texts : [])).join('\n')

function plain(scene: Scene, tables: readonly DataTable[], { tongue }: Composition): string {
  const lists = tables.map(({ caption, head, rows, numbers, more }) =>
    [
      caption,
      ...textTable(head, rows, numbers),
      ...(more > 0 ? [tongue.say('and {count} more rows', { count: more })] : []),
    ].join('\n'),
  )
  const parts = [
    scene.title,
    linesIn(scene, 'subtitle'),
    scene.description,
    ...lists,
    linesIn(scene, 'caption'),
  ]
  return `${parts.filter(part => part !== '').join('\n\n')}\n`
}

/** Mail programs know no style sheets and little of CSS: all looks stand at their elements, and tables are tables. */
function html(
  scene: Scene,
  tables: readonly DataTable[],
  { theme, tongue }: Composition,
  cid: string,
): string {
  const lang = escapeXml(tongue.locale)
  const dir = runsLeft(tongue.locale) ? 'rtl' : 'ltr'
  const alt = escapeXml(`${scene.title}. ${scene.description}`)
  const font = `font:${theme.sizes.subtitle}px ${escapeXml(theme.font.replaceAll('"', "'"))}`
  return `<!doctype html>
<html lang="${lang}" dir="${dir}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeXml(scene.title)}</title>
</head>
<body style="margin:0;padding:16px;background-color:${theme.background};color:${theme.text};${font}">
<img src="cid:${cid}" width="${scene.width}" height="${scene.height}" alt="${alt}" style="display:block;max-width:100%;height:auto;border:0">
${tables.map(table => htmlTable(table, theme, tongue, dir)).join('')}</body>
</html>
`
}

function htmlTable(
  { caption, head, rows, numbers, more }: DataTable,
  theme: Theme,
  tongue: Composition['tongue'],
  dir: 'ltr' | 'rtl',
): string {
  const [start, end] = dir === 'ltr' ? (['left', 'right'] as const) : (['right', 'left'] as const)
  const cell = (name: 'td' | 'th', text: string, i: number, scope: 'col' | 'row' | undefined) => {
    const side = numbers[i] ? end : start
    const between = `padding:3px ${dir === 'ltr' ? '14px 3px 0' : '0 3px 14px'}`
    const style = `${between};border-bottom:1px solid ${theme.hairline};font-weight:${scope === 'col' ? 600 : 400}`
    return `<${name}${scope ? ` scope="${scope}"` : ''} align="${side}" style="${style}">${escapeXml(text)}</${name}>`
  }
  const lines = rows.map(
    row =>
      `<tr>${row.map((text, i) => cell(i === 0 ? 'th' : 'td', text, i, i === 0 ? 'row' : undefined)).join('')}</tr>\n`,
  )
  return `<table cellpadding="0" cellspacing="0" border="0" style="margin-top:16px;border-collapse:collapse;font-size:${theme.sizes.subtitle}px;font-variant-numeric:tabular-nums;color:${theme.text}">
<caption align="${start}" style="text-align:${start};color:${theme.muted};padding:4px 0">${escapeXml(caption)}</caption>
<thead><tr>${head.map((name, i) => cell('th', name, i, 'col')).join('')}</tr></thead>
<tbody>
${lines.join('')}</tbody>
</table>
${more > 0 ? `<p style="color:${theme.muted}">${escapeXml(tongue.say('and {count} more rows', { count: more }))}</p>\n` : ''}`
}

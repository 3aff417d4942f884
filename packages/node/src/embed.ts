import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { type Chart, DapploError, type Spread, type Table } from '@dapplo/core'
import type { FarTable } from '@dapplo/core/far'
import { answeredElsewhere, escapeXml } from '@dapplo/core/internal'
import type { Followed } from '@dapplo/core/internal-files'
import { interFaces } from './fonts.ts'
import { partOf } from './parts.ts'
import { type PictureFrame, toSvg } from './picture.ts'

/** How a chart is written for pages. */
export interface EmbedOptions {
  frame?: PictureFrame
  /** Tables by the name that the description calls them by. */
  tables: Record<string, Table>
  /** What tables ask to follow; a page that asks the network for nothing shows their rows only. */
  feeds?: readonly Followed[]
  /** Where a page asks about rows that stay in a database, on the server that it came from; without it, it shows what was answered. */
  endpoint?: string
  /** A further script of the page's own, which may talk to the server it came from. */
  script?: string
  /** The title under which the page's oEmbed address is told; undefined for none. */
  discover?: string
  /** Language of the page, for screen readers. Default the frame's locale, else `en`. */
  lang?: string
}

/**
 * One HTML file that holds the picture, the data and the program: it shows the chart before scripts run, then comes
 * alive, and needs no network. A content security policy in the page allows nothing but these very parts.
 */
export function embedPage(
  chart: Chart | Spread,
  { frame = {}, tables, lang, script: more, discover, endpoint }: EmbedOptions,
): string {
  const size = { width: frame.width ?? 960, height: frame.height ?? 600 }
  // As the page will show it first: a chart that is played begins at its first period.
  const svg = toSvg(chart, { ...frame, ...size }, { at: 0 })
  const script = readFileSync(partOf('@dapplo/node/page'), 'utf8')
  const style = pageStyle(frame.theme === 'night')
  const policy = `default-src 'none'; script-src ${[script, more]
    .filter(text => text !== undefined)
    .map(scriptHash)
    .join(
      ' ',
    )}; style-src ${scriptHash(style)};${more === undefined && endpoint === undefined ? '' : " connect-src 'self';"} font-src data:; img-src data:`
  const data = JSON.stringify({
    file: fileOf(chart, tables, [], endpoint),
    theme: frame.theme ?? 'day',
    locale: frame.locale,
    house: frame.house,
  })
  if (/<\/script/i.test(script))
    throw new DapploError('bad-bundle', 'The page program is not fit to be written into a page')
  const language = lang ?? frame.locale ?? 'en'
  return `<!doctype html>
<html lang="${escapeXml(language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="${policy}">
<title>${escapeXml(chart.description.title ?? 'Chart')}</title>
${discover === undefined ? '' : `<link rel="alternate" type="application/json+oembed" href="oembed" title="${escapeXml(discover)}">\n`}<style>${style}</style>
</head>
<body>
<figure id="chart" data-height="${size.height}">
${svg}
</figure>
<script type="application/json" id="chart-data">${escapeScript(data)}</script>
<script type="module">${script}</script>${more === undefined ? '' : `\n<script>${more}</script>`}
</body>
</html>
`
}

/** A chart file of a chart: its description, with the data that it draws. */
const fileOf = (
  chart: Chart | Spread,
  tables: Record<string, Table>,
  feeds: readonly Followed[] = [],
  endpoint?: string,
) => ({
  tables: sources(chart, tables, feeds, endpoint),
  ...(chart.toJSON() as object),
})

/** The picture for a page without scripts: SVG in a figure, with its title and description for those who cannot see it. */
export function embedSnippet(chart: Chart | Spread, frame: PictureFrame = {}): string {
  return `<figure style="margin:0">\n${toSvg(chart, { width: 960, height: 600, ...frame })}\n</figure>\n`
}

/**
 * The chart for a page that has the element `<dapplo-chart>`: its picture until it comes alive, and its description with
 * its data in a block that is no script. Tables go on following what they follow, by addresses as seen from that page.
 */
export function embedElement(
  chart: Chart | Spread,
  {
    frame = {},
    tables,
    feeds,
    scriptAt,
  }: Pick<EmbedOptions, 'frame' | 'tables' | 'feeds'> & {
    /** The address of the element's script, for pages that do not load it already; undefined for none. */
    scriptAt?: string
  },
): string {
  const svg = toSvg(chart, { width: 960, height: 600, ...frame }, { at: 0 })
  const data = escapeScript(JSON.stringify({ ...fileOf(chart, tables, feeds), house: frame.house }))
  const theme = frame.theme === 'night' ? ' theme="night"' : ''
  const locale = frame.locale === undefined ? '' : ` locale="${escapeXml(frame.locale)}"`
  return `<dapplo-chart${theme}${locale}>\n${svg}\n<script type="application/json">${data}</script>\n</dapplo-chart>\n${scriptAt === undefined ? '' : `<script src="${escapeXml(scriptAt)}" defer></script>\n`}`
}

/** The script that makes the element known to a page, whole and in one file. */
export interface ElementScript {
  /** The name of its file. */
  name: string
  text: string
  /** Its hash, for the `integrity` of a script that a page takes from elsewhere (Subresource Integrity). */
  integrity: string
}

/** The script of the element `<dapplo-chart>`, for pages without a bundler: to be served or put beside them. */
export function elementScript(): ElementScript {
  const text = readFileSync(partOf('@dapplo/node/element'), 'utf8')
  const hash = createHash('sha384').update(text).digest('base64')
  return { name: 'dapplo.element.js', text, integrity: `sha384-${hash}` }
}

/** What a content security policy calls a script or style by: the hash of its text. */
export const scriptHash = (text: string): string =>
  `'sha256-${createHash('sha256').update(text).digest('base64')}'`

/** JSON inside a script element: nothing in it may look like markup. */
function escapeScript(json: string): string {
  return json.replace(
    /[<>&\u2028\u2029]/g,
    character => `\\u${character.charCodeAt(0).toString(16).padStart(4, '0')}`,
  )
}

/** The tables as data for the page: only the columns that the chart draws, as lists. */
function sources(
  chart: Chart | Spread,
  tables: Record<string, Table>,
  feeds: readonly Followed[],
  endpoint: string | undefined,
): Record<string, unknown> {
  const out: Record<string, unknown> = {}
  for (const [name, table] of Object.entries(tables)) {
    if (answeredElsewhere(table)) {
      out[name] = farSource(chart, table as FarTable, endpoint)
      continue
    }
    const { table: _, ...followed }: Partial<Followed> =
      feeds.find(followed => followed.table === table) ?? {}
    // Rows that age go by a column that nothing may draw.
    const used = columnsUsed(chart, table, followed.at)
    const rows: Record<string, unknown[]> = {}
    const columns: Record<string, unknown> = {}
    for (const column of used) {
      const { options, type, dateUnit } = table.column(column)!
      rows[column] = Array.from({ length: table.length }, (_, row) =>
        cellText(table.column(column)!.value(row), dateUnit),
      )
      columns[column] = { ...options, type }
    }
    const key = table.key.length > 0 ? table.key : undefined
    out[name] = { rows, key, rowsAre: table.rowsAre, columns, ...followed }
  }
  return out
}

/** What was asked of a table whose rows stay elsewhere; with an endpoint the page asks for more there. */
function farSource(chart: Chart | Spread, table: FarTable, endpoint: string | undefined): unknown {
  const columns = Object.fromEntries(
    columnsUsed(chart, table).map(name => [name, table.column(name)!.options]),
  )
  const key = table.key.length > 0 ? table.key : undefined
  return { frozen: table.frozen(), endpoint, table: table.farName, key, rowsAre: table.rowsAre, columns }
}

function columnsUsed(chart: Chart | Spread, table: Table, too?: string): string[] {
  const text = JSON.stringify(chart.toJSON())
  // A column that no phrase could name is left out; a name inside other words costs some bytes, never a value.
  return table.names.filter(
    name => name === too || table.key.includes(name) || text.includes(JSON.stringify(name).slice(1, -1)),
  )
}

/** Times without their idle seconds: they make up most of a page's data. */
function cellText(value: unknown, dateUnit: 'day' | 'month' | undefined): unknown {
  if (!(value instanceof Date)) return value
  const text = value.toISOString()
  return dateUnit
    ? text.slice(0, dateUnit === 'day' ? 10 : 7)
    : text.replace(/(:\d\d)?\.000Z$/, (_, seconds) => (seconds === ':00' ? 'Z' : `${seconds ?? ''}Z`))
}

function pageStyle(night: boolean): string {
  return `${interFaces()}html{background:${night ? '#15191c' : '#fdfcf9'}}body{margin:0}figure{margin:0}figure>svg{display:block;width:100%;height:auto}`
}

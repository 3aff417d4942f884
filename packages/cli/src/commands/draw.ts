import {
  type Chart,
  DapploError,
  type FilmFormat,
  findingsOf,
  type PictureFrame,
  type Spread,
  toCsv,
  toJson,
  toOutlinedSvg,
  toPdf,
  toPng,
  toSvg,
  writeWhole,
} from '@dapplo/node'
import type { Command } from 'commander'
import { tellFindings } from '../findings.ts'
import { frameOf, withChartFlags, withFrameFlags } from '../flags.ts'
import { arrived, chartOf, openInput, readingFlags } from '../input.ts'
import { say, tell } from '../say.ts'

const FILMS = ['gif', 'apng', 'webm', 'mp4'] as const
const FORMATS = ['svg', 'png', 'pdf', 'csv', 'json', 'eml', ...FILMS] as const
type Format = (typeof FORMATS)[number]

export function addDraw(program: Command): void {
  const command = program
    .command('draw')
    .summary('draw a chart from data or a description')
    .description(
      'Draws a chart from a data file and flags, or from a .chart.json file. Without --out, SVG goes to standard output, and to a terminal a chart of characters.',
    )
    .argument('<input>', 'a data file, a .chart.json file, a database, or - for standard input')
    .argument('[then...]', 'in a moving picture: what the chart turns into, one file after the other')
    .option(
      '-o, --out <file>',
      `where to write, or - for standard output; the name ends in .${FORMATS.join(', .')}`,
    )
    .option('--fonts <how>', 'letters of an SVG: named (default), embedded, or outlines')
    .option('--as-text', 'draw with characters, for a terminal')
    .option('--rate <count>', 'pictures a second of a moving picture; default 20')
    .option('--hold <milliseconds>', 'how long each of several charts stays in a moving picture; default 600')
    .option('--to <addresses>', 'whom a mail (.eml) is for')
    .option('--from <address>', 'who sends a mail; without it, it is a draft')
    .option('--rows <count>', 'how many rows of values a mail lists; default 100, 0 for none')
    .option('--watch', 'draw again whenever a file it is made from changes')
    .option('--strict', 'exit with 1 when there are findings')
  withFrameFlags(withChartFlags(command))
    .addHelpText(
      'after',
      `
Examples:
  dapplo draw demo-data/sailings.csv --draw line --x "day of departed" --y "sum of passengers" --color route --out chart.svg
  dapplo draw passengers.chart.json --theme night --out chart.png
  dapplo draw passengers.chart.json --to office@ferry.example --out report.eml
  dapplo draw piers.chart.json --through year --out race.gif
  dapplo draw before.chart.json after.chart.json --out change.gif
  dapplo draw sailings.parquet --draw bar --x route --y count --out bars.svg
  dapplo draw postgres://reader@localhost/line --table sailings --draw scatter --x wind --y delay --out wind.png
  cat sailings.csv | dapplo draw - --draw bar --x route --y count > chart.svg
  dapplo draw demo-data/piers.csv --draw bar --y pier --x 2025 --as-text`,
    )
    .action(async (input: string, then: string[], flags: Record<string, any>) => {
      await drawOnce(input, then, flags)
      if (flags.watch)
        await (await import('../watch.ts')).watchFiles(input, () => drawOnce(input, then, flags))
    })
}

async function drawOnce(input: string, then: readonly string[], flags: Record<string, any>): Promise<void> {
  const toTerminal = process.stdout.isTTY && (flags.out === undefined || flags.out === '-')
  const format = flags.asText || toTerminal ? 'text' : formatOf(flags.out)
  if (then.length > 0 && !isFilm(format))
    throw new DapploError(
      'bad-flag',
      'Several charts can only turn into each other in a moving picture',
      '--out',
      'Name a .gif, .apng, .webm or .mp4, or draw them one at a time.',
    )
  const reading = readingFlags(flags)
  const opened = await openInput(input, reading)
  const chart = chartOf(opened, flags)
  const frame = frameOf(flags, input, opened.house)
  const others: (Chart | Spread)[] = []
  for (const input of then) others.push(chartOf(await openInput(input, reading), flags))
  for (const shown of [chart, ...others]) await arrived(shown)
  // What finds its font where it is read needs none here.
  const named =
    (format === 'svg' && flags.fonts !== 'outlines') ||
    format === 'text' ||
    format === 'csv' ||
    format === 'json'
  const all = [chart, ...others]
    .flatMap(shown => findingsOf(shown, frame))
    .filter(({ code }) => !(named && code === 'no-letters'))
  // Charts of one film read the same data.
  const findings = [...new Map(all.map(finding => [finding.message, finding])).values()]
  if (isFilm(format)) {
    const { drawFilm } = await import('../film.ts')
    await drawFilm(others.length > 0 ? [chart, ...others] : chart, format, frame, flags)
  } else {
    const content = await contentOf(chart, format, frame, flags)
    if (flags.out && flags.out !== '-') {
      writeWhole(flags.out, content)
      if (format === 'png' && flags.frame !== undefined && flags.density === undefined)
        tellPixels(flags, frame)
    } else if (typeof content !== 'string') process.stdout.write(content)
    else {
      const whole = content.endsWith('\n') ? content : `${content}\n`
      // Characters are for a terminal; files keep what is in them.
      if (format === 'text') say(whole)
      else process.stdout.write(whole)
    }
  }
  tellFindings(findings, flags.strict)
}

/** A frame of so many pixels is drawn twice as fine, which a person who asked for it may not expect. */
const tellPixels = ({ out }: Record<string, any>, { width = 0, height = 0 }: PictureFrame) =>
  tell(
    `${out} has ${width * 2} × ${height * 2} pixels, two for each of the frame; for ${width} × ${height} say --density 1.`,
  )

const isFilm = (format: string): format is FilmFormat => (FILMS as readonly string[]).includes(format)

async function contentOf(
  chart: Chart | Spread,
  format: Exclude<Format, FilmFormat> | 'text',
  frame: PictureFrame,
  flags: Record<string, any>,
): Promise<string | Uint8Array> {
  switch (format) {
    case 'svg': {
      const fonts = flags.fonts ?? 'named'
      if (fonts === 'outlines') return toOutlinedSvg(chart, frame)
      if (fonts === 'named' || fonts === 'embedded') return toSvg(chart, { ...frame, fonts })
      throw new DapploError(
        'bad-flag',
        `"${fonts}" is no way to write letters`,
        '--fonts',
        'Write named, embedded or outlines.',
      )
    }
    case 'png':
      return toPng(chart, frame)
    case 'pdf':
      return toPdf(chart, frame)
    case 'csv':
      return toCsv(chart, frame)
    case 'json':
      return toJson(chart, frame)
    case 'eml':
      return (await import('../written.ts')).toMail(chart, {
        ...frame,
        to: flags.to,
        from: flags.from,
        rows: rowsOf(flags.rows),
      })
    case 'text':
      return (await import('../written.ts')).toText(chart, {
        columns: Math.min(process.stdout.columns ?? 80, 160),
        rows: Math.min((process.stdout.rows ?? 25) - 1, 40),
        locale: frame.locale,
      })
  }
}

function rowsOf(count: string | undefined): number | undefined {
  if (count === undefined) return undefined
  if (/^\d{1,6}$/.test(count)) return Number(count)
  throw new DapploError(
    'bad-flag',
    `"${count}" is no number of rows`,
    '--rows',
    'Write a whole number, such as 20.',
  )
}

function formatOf(out: string | undefined): Format {
  if (out === undefined || out === '-') return 'svg'
  const ending = /\.(\w+)$/.exec(out)?.[1].toLowerCase()
  if ((FORMATS as readonly string[]).includes(ending ?? '')) return ending as Format
  throw new DapploError(
    'bad-flag',
    ending ? `There is no format "${ending}"` : `${out} does not say which format to write`,
    '--out',
    `Name a file that ends in .${FORMATS.slice(0, -1).join(', .')} or .${FORMATS.at(-1)}.`,
  )
}

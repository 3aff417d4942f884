import { measureInter } from '@dapplo/core/inter'
import {
  type Chart,
  DapploError,
  type FilmFormat,
  type Finding,
  type PictureFrame,
  type Spread,
  toCsv,
  toJson,
  toOutlinedSvg,
  toPdf,
  toPng,
  toSvg,
  toText,
  View,
  writeFilm,
  writeWhole,
} from '@dapplo/node'
import type { Command } from 'commander'
import { frameOf, withChartFlags, withFrameFlags } from '../flags.ts'
import { chartOf, columnOptions, openInput } from '../input.ts'
import { progressBar } from '../progress.ts'
import { watchFiles } from '../watch.ts'

const FILMS = ['gif', 'apng', 'webm', 'mp4'] as const
const FORMATS = ['svg', 'png', 'pdf', 'csv', 'json', ...FILMS] as const
type Format = (typeof FORMATS)[number]

export function addDraw(program: Command): void {
  const command = program
    .command('draw')
    .summary('draw a chart from data or a description')
    .description(
      'Draws a chart from a data file and flags, or from a .chart.json file. Without --out, SVG goes to standard output, and to a terminal a chart of characters.',
    )
    .argument('<input>', 'a data file, a .chart.json file, or - for standard input')
    .option(
      '--out <file>',
      `where to write, or - for standard output; the name ends in .${FORMATS.join(', .')}`,
    )
    .option('--fonts <how>', 'letters of an SVG: named (default), embedded, or outlines')
    .option('--as-text', 'draw with characters, for a terminal')
    .option('--rate <count>', 'pictures a second of a moving picture; default 20')
    .option('--watch', 'draw again whenever a file it is made from changes')
    .option('--strict', 'exit with 1 when there are findings')
  withFrameFlags(withChartFlags(command))
    .addHelpText(
      'after',
      `
Examples:
  dapplo draw demo-data/sailings.csv --draw line --x "day of departed" --y "sum of passengers" --color route --out chart.svg
  dapplo draw passengers.chart.json --theme night --out chart.png
  dapplo draw piers.chart.json --through year --out race.gif
  cat sailings.csv | dapplo draw - --draw bar --x route --y count > chart.svg
  dapplo draw demo-data/piers.csv --draw bar --y pier --x 2025 --as-text`,
    )
    .action(async (input: string, flags: Record<string, any>) => {
      await drawOnce(input, flags)
      if (flags.watch) await watchFiles(input, () => drawOnce(input, flags))
    })
}

async function drawOnce(input: string, flags: Record<string, any>): Promise<void> {
  const toTerminal = process.stdout.isTTY && (flags.out === undefined || flags.out === '-')
  const format = flags.asText || toTerminal ? 'text' : formatOf(flags.out)
  const opened = openInput(input, { columns: columnOptions(flags.type), ragged: flags.ragged })
  const chart = chartOf(opened, flags)
  const frame = frameOf(flags, input, opened.house)
  const findings = findingsOf(chart, frame)
  if (isFilm(format)) await drawFilm(chart, format, frame, flags)
  else {
    const content = await contentOf(chart, format, frame, flags.fonts ?? 'named')
    if (flags.out && flags.out !== '-') writeWhole(flags.out, content)
    else
      process.stdout.write(typeof content === 'string' && !content.endsWith('\n') ? `${content}\n` : content)
  }
  tellFindings(findings, flags.strict)
}

/** What a person would regret about a chart. */
export const findingsOf = (chart: Chart | Spread, frame: PictureFrame): readonly Finding[] =>
  new View(chart, {}, { width: 1280, height: 800, measure: measureInter, ...frame }).findings

/** Says findings on standard error; under --strict they make the command fail. */
export function tellFindings(findings: readonly Finding[], strict: boolean): void {
  for (const finding of findings) process.stderr.write(`dapplo: ${finding.message}. ${finding.remedy}\n`)
  if (strict && findings.length > 0) process.exitCode = 1
}

const isFilm = (format: string): format is FilmFormat => (FILMS as readonly string[]).includes(format)

async function contentOf(
  chart: Chart | Spread,
  format: Exclude<Format, FilmFormat> | 'text',
  frame: PictureFrame,
  fonts: string,
): Promise<string | Uint8Array> {
  switch (format) {
    case 'svg':
      if (fonts === 'outlines') return toOutlinedSvg(chart, frame)
      if (fonts === 'named' || fonts === 'embedded') return toSvg(chart, { ...frame, fonts })
      throw new DapploError(
        'bad-flag',
        `"${fonts}" is no way to write letters`,
        '--fonts',
        'Write named, embedded or outlines.',
      )
    case 'png':
      return toPng(chart, frame)
    case 'pdf':
      return toPdf(chart, frame)
    case 'csv':
      return toCsv(chart, frame)
    case 'json':
      return toJson(chart, frame)
    case 'text':
      return toText(chart, {
        columns: Math.min(process.stdout.columns ?? 80, 160),
        rows: Math.min((process.stdout.rows ?? 25) - 1, 40),
        locale: frame.locale,
      })
  }
}

async function drawFilm(
  chart: Chart | Spread,
  format: FilmFormat,
  frame: PictureFrame,
  flags: Record<string, any>,
): Promise<void> {
  if (flags.out === undefined || flags.out === '-')
    throw new DapploError(
      'bad-flag',
      'A moving picture needs a file',
      '--out',
      'Name one, as in --out race.gif.',
    )
  const rate = flags.rate === undefined ? undefined : Number(flags.rate)
  if (rate !== undefined && !(rate >= 1 && rate <= 60))
    throw new DapploError('bad-flag', `"${flags.rate}" is no rate`, '--rate', 'Write a number from 1 to 60.')
  const bar = progressBar('Drawing')
  const stop = new AbortController()
  const interrupted = () => stop.abort()
  process.once('SIGINT', interrupted)
  try {
    await writeFilm(chart, flags.out, format, { frame, rate, progress: bar.show, signal: stop.signal })
  } finally {
    process.off('SIGINT', interrupted)
    bar.end()
  }
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

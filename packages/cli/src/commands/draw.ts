import { measureInter } from '@dapplo/core/inter'
import { DapploError, toPng, toSvg, View, writeWhole } from '@dapplo/node'
import type { Command } from 'commander'
import { frameOf, withChartFlags, withFrameFlags } from '../flags.ts'
import { chartOf, columnOptions, openInput } from '../input.ts'

export function addDraw(program: Command): void {
  const command = program
    .command('draw')
    .summary('draw a chart from data or a description')
    .description(
      'Draws a chart from a data file and flags, or from a .chart.json file. Without --out, SVG goes to standard output.',
    )
    .argument('<input>', 'a data file, a .chart.json file, or - for standard input')
    .option('--out <file>', 'where to write: a name ending in .svg or .png')
    .option('--strict', 'exit with 1 when there are findings')
  withFrameFlags(withChartFlags(command))
    .addHelpText(
      'after',
      '\nExamples:\n  dapplo draw demo-data/sailings.csv --draw line --x "day of departed" --y "sum of passengers" --color route --out chart.svg\n  dapplo draw passengers.chart.json --theme night --out chart.png\n  cat sailings.csv | dapplo draw - --draw bar --x route --y count > chart.svg',
    )
    .action(async (input: string, flags: Record<string, any>) => {
      const format = formatOf(flags.out)
      const opened = openInput(input, { columns: columnOptions(flags.type), ragged: flags.ragged })
      const chart = chartOf(opened, flags)
      const frame = frameOf(flags, input)
      const findings = new View(chart, {}, { width: 1280, height: 800, measure: measureInter, ...frame })
        .findings
      const content = format === 'png' ? await toPng(chart, frame) : toSvg(chart, frame)
      if (flags.out) writeWhole(flags.out, content)
      else process.stdout.write(`${content}\n`)
      for (const finding of findings) process.stderr.write(`dapplo: ${finding.message}. ${finding.remedy}\n`)
      if (flags.strict && findings.length > 0) process.exitCode = 1
    })
}

function formatOf(out: string | undefined): 'svg' | 'png' {
  if (out === undefined) return 'svg'
  const ending = /\.(\w+)$/.exec(out)?.[1].toLowerCase()
  if (ending === 'svg' || ending === 'png') return ending
  throw new DapploError(
    'bad-flag',
    ending ? `There is no picture format "${ending}"` : `${out} does not say which format to write`,
    '--out',
    'Name a file that ends in .svg or .png.',
  )
}

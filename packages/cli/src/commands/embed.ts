import { DapploError, embedPage, writeWhole } from '@dapplo/node'
import type { Command } from 'commander'
import { frameOf, withChartFlags, withFrameFlags } from '../flags.ts'
import { chartOf, columnOptions, openInput } from '../input.ts'

export function addEmbed(program: Command): void {
  const command = program
    .command('embed')
    .summary('write a chart as one self-contained page')
    .description(
      'Writes one HTML file that shows the chart before scripts run, then comes alive with tooltips, and needs no network.',
    )
    .argument('<input>', 'a .chart.json file, a data file with flags, or - for standard input')
    .requiredOption('--out <file>', 'where to write, such as page.html')
  withFrameFlags(withChartFlags(command))
    .addHelpText('after', '\nExample:\n  dapplo embed demo-data/passengers.chart.json --out page.html')
    .action((input: string, flags: Record<string, any>) => {
      if (!/\.html?$/i.test(flags.out))
        throw new DapploError(
          'bad-flag',
          `${flags.out} is no page`,
          '--out',
          'Name a file that ends in .html.',
        )
      const opened = openInput(input, { columns: columnOptions(flags.type), ragged: flags.ragged })
      writeWhole(
        flags.out,
        embedPage(chartOf(opened, flags), { frame: frameOf(flags, input), tables: opened.tables }),
      )
    })
}

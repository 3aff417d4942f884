import { findingsOf, Spread } from '@dapplo/node'
import type { Command } from 'commander'
import { tellFindings } from '../findings.ts'
import { frameOf, withFrameFlags } from '../flags.ts'
import { arrived, openInput } from '../input.ts'
import { say } from '../say.ts'

export function addCheck(program: Command): void {
  withFrameFlags(
    program
      .command('check')
      .summary('check a description and its data')
      .description(
        'Reads a .chart.json file with its data, and says what is wrong, and what is probably a mistake.',
      )
      .argument('<input>', 'a .chart.json file, or - for standard input')
      .option('--strict', 'exit with 1 when there are findings'),
  )
    .addHelpText('after', '\nExample:\n  dapplo check demo-data/passengers.chart.json --strict')
    .action(async (input: string, flags: Record<string, any>) => {
      const { chart, tables, house } = await openInput(input, {})
      if (!chart) {
        say(`${input} holds data and no description. dapplo look ${input} says what is in it.\n`)
        return
      }
      await arrived(chart)
      const findings = findingsOf(chart, frameOf(flags, input, house))
      const charts = chart instanceof Spread ? chart.charts.length : 1
      const rows = Object.values(tables).reduce((sum, table) => sum + table.length, 0)
      const what = `${charts === 1 ? 'One chart' : `${charts} charts`} over ${rows.toLocaleString('en')} rows`
      const found = findings.length === 1 ? 'one finding' : `${findings.length} findings`
      say(`${what}: ${findings.length === 0 ? 'nothing to mend' : found}.\n`)
      tellFindings(findings, flags.strict)
    })
}

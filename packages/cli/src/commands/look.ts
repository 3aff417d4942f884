import { lookAt, lookText } from '@dapplo/core'
import type { Command } from 'commander'
import { columnOptions, openInput } from '../input.ts'
import { say } from '../say.ts'

export function addLook(program: Command): void {
  program
    .command('look')
    .summary('show what is in a data file')
    .description(
      'Shows each column of a data file: its type, range or commonest values, what is missing and what looks odd.',
    )
    .argument('<data>', 'a CSV, JSON or newline-delimited JSON file, or - for standard input')
    .option('--json', 'print JSON, for programs')
    .option(
      '--type <column=type...>',
      'read a column as number, time or text, its dates with the "day first" or "month first", or its numbers with a "decimal point" or "decimal comma"',
    )
    .option('--ragged <how>', '"fill" accepts lines with too few or too many cells')
    .addHelpText('after', '\nExample:\n  dapplo look demo-data/sailings.csv')
    .action((data: string, options: { json?: boolean; type?: string[]; ragged?: 'fill' }) => {
      const look = lookAt(
        openInput(data, { columns: columnOptions(options.type), ragged: options.ragged }).table,
      )
      say(options.json ? `${JSON.stringify(look, null, 2)}\n` : lookText(look))
    })
}

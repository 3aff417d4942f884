import { lookText } from '@dapplo/core'
import type { Command } from 'commander'
import { withDataFlags } from '../flags.ts'
import { type DataFlags, lookOf, openInput, readingFlags } from '../input.ts'
import { say } from '../say.ts'

export function addLook(program: Command): void {
  withDataFlags(
    program
      .command('look')
      .summary('show what is in a data file')
      .description(
        'Shows each column of a data file: its type, range or commonest values, what is missing and what looks odd.',
      )
      .argument(
        '<data>',
        'a CSV, JSON, newline-delimited JSON or Parquet file, several of them by a pattern, a database, or - for standard input',
      )
      .option('--json', 'print JSON, for programs'),
  )
    .addHelpText(
      'after',
      '\nExamples:\n  dapplo look demo-data/sailings.csv\n  dapplo look sailings.parquet\n  dapplo look postgres://reader@localhost/line --table sailings',
    )
    .action(async (data: string, options: DataFlags & { json?: boolean }) => {
      const { table } = await openInput(data, readingFlags(options))
      const look = await lookOf(table)
      say(
        options.json
          ? `${JSON.stringify(look, null, 2)}
`
          : lookText(look),
      )
    })
}

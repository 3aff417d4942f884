import { lookAt, lookText } from '@dapplo/core'
import type { FarTable } from '@dapplo/core/far'
import { answeredElsewhere } from '@dapplo/core/internal'
import type { Command } from 'commander'
import { columnOptions, farFlags, openInput } from '../input.ts'
import { say } from '../say.ts'

export function addLook(program: Command): void {
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
    .option('--json', 'print JSON, for programs')
    .option('--table <name>', 'of a database: the table that is meant')
    .option('--query <sql>', 'of a database: the question whose answer is the table')
    .option('--in-order <column>', 'of a database: the column that puts rows in order')
    .option(
      '--type <column=type...>',
      'read a column as number, time or text, its dates with the "day first" or "month first", or its numbers with a "decimal point" or "decimal comma"',
    )
    .option('--ragged <how>', '"fill" accepts lines with too few or too many cells')
    .addHelpText(
      'after',
      '\nExamples:\n  dapplo look demo-data/sailings.csv\n  dapplo look sailings.parquet\n  dapplo look postgres://reader@localhost/line --table sailings',
    )
    .action(
      async (
        data: string,
        options: {
          table?: string
          query?: string
          inOrder?: string
          json?: boolean
          type?: string[]
          ragged?: 'fill'
        },
      ) => {
        const { table } = await openInput(data, {
          columns: columnOptions(options.type),
          ragged: options.ragged,
          ...farFlags(options),
        })
        const look = answeredElsewhere(table)
          ? await (await import('@dapplo/engines')).lookFar(table as FarTable)
          : lookAt(table)
        say(options.json ? `${JSON.stringify(look, null, 2)}\n` : lookText(look))
      },
    )
}

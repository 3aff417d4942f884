import { DapploError } from '@dapplo/core'
import { sentenceOf, suggestCharts, typesOf } from '@dapplo/core/sentence'
import type { Command } from 'commander'
import { withDataFlags } from '../flags.ts'
import { lookOf, openInput, readingFlags } from '../input.ts'
import { say } from '../say.ts'
import { asFlags } from '../suggested.ts'

export function addSuggest(program: Command): void {
  withDataFlags(
    program
      .command('suggest')
      .summary('name charts that are worth seeing for a data file')
      .description(
        'Names charts that are worth seeing for a data file, best first, each with the reason and the command that draws it.',
      )
      .argument('<data>', 'a data file or a database, as for dapplo look, or - for standard input')
      .option('--most <count>', 'how many; default 3')
      .option('--json', 'print descriptions as JSON, for programs'),
  )
    .addHelpText('after', '\nExample:\n  dapplo suggest demo-data/sailings.csv')
    .action(async (data: string, flags: Record<string, any>) => {
      const most = flags.most === undefined ? 3 : Number(flags.most)
      if (!(Number.isInteger(most) && most > 0))
        throw new DapploError(
          'bad-flag',
          `"${flags.most}" is no number of charts`,
          '--most',
          'Write a whole number from 1.',
        )
      const { table, chart } = await openInput(data, readingFlags(flags))
      if (chart)
        throw new DapploError(
          'bad-input',
          `${data} is a description, not data`,
          '',
          `"dapplo describe ${data}" says it in words.`,
        )
      const found = suggestCharts(table, { most, look: await lookOf(table) })
      if (flags.json) {
        say(
          `${JSON.stringify(
            found.map(({ reason, description }) => ({ reason, description })),
            null,
            2,
          )}\n`,
        )
        return
      }
      if (found.length === 0) {
        say(
          table.length === 0
            ? `There are no rows in ${table.title}, so there is nothing to show.\n`
            : `No column of ${table.title} has values that differ, so there is nothing to show.\n`,
        )
        return
      }
      found.forEach(({ description, reason }, i) => {
        const { text } = sentenceOf(description, { columns: typesOf(table) })
        say(
          `${i === 0 ? '' : '\n'}${i + 1}. ${text}\n   Why: ${reason}.\n   dapplo draw ${asFlags(data, description)}\n`,
        )
      })
    })
}

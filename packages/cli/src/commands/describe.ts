import { DapploError } from '@dapplo/core'
import {
  drawnOf,
  germanSentences,
  type Setting,
  sentenceOf,
  textOfPieces,
  typesOf,
} from '@dapplo/core/sentence'
import { type Chart, Spread } from '@dapplo/node'
import type { Command } from 'commander'
import { localeOf } from '../flags.ts'
import { openInput } from '../input.ts'
import { say } from '../say.ts'

const LANGUAGES: Readonly<Record<string, Readonly<Record<string, string>> | undefined>> = {
  en: {},
  de: germanSentences,
}

/** The places of what there are no words for. */
const moreOf = (unsaid: readonly Setting[]): string =>
  unsaid.length === 0 ? '' : `   (${unsaid.map(({ path }) => path.join('.')).join(', ')})\n`

export function addDescribe(program: Command): void {
  program
    .command('describe')
    .summary('say in words what a description draws')
    .description(
      'Says in words what a .chart.json file draws: a sentence that holds all of it, or says that there is more.',
    )
    .argument('<input>', 'a .chart.json file, or - for standard input')
    .option('--locale <tag>', 'language of the sentence: en or de')
    .addHelpText('after', '\nExample:\n  dapplo describe demo-data/passengers.chart.json')
    .action(async (input: string, flags: { locale?: string }) => {
      const { chart } = await openInput(input, {})
      if (!chart) {
        say(`${input} holds data and no description. dapplo suggest ${input} names charts for it.\n`)
        return
      }
      const locale = localeOf(flags.locale ?? 'en')
      const words = LANGUAGES[locale.split('-')[0]]
      if (!words)
        throw new DapploError(
          'bad-flag',
          `There are no sentences in the language "${locale}"`,
          '--locale',
          'Write en or de.',
        )
      const told = (chart: Chart) =>
        sentenceOf(chart.description, { columns: typesOf(chart.table), words, locale })
      if (!(chart instanceof Spread)) {
        const { text, unsaid } = told(chart as Chart)
        say(`${text}\n${moreOf(unsaid)}`)
        return
      }
      // Each chart by the columns of its own table; what is said of all of them comes last.
      const whole = sentenceOf(drawnOf(chart), { words, locale })
      chart.charts.forEach((own, i) => {
        const { text, unsaid } = told(own)
        say(`${i + 1}. ${text}\n${moreOf(unsaid)}`)
      })
      const last = whole.lines.at(-1)!
      if (last.chart === undefined) say(`${textOfPieces(last.pieces)}\n`)
    })
}

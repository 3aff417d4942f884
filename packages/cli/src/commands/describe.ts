import { DapploError } from '@dapplo/core'
import { germanSentences, sentenceOf, typesOf } from '@dapplo/core/sentence'
import { type Chart, Spread } from '@dapplo/node'
import type { Command } from 'commander'
import { localeOf } from '../flags.ts'
import { openInput } from '../input.ts'
import { say } from '../say.ts'

const LANGUAGES: Readonly<Record<string, Readonly<Record<string, string>> | undefined>> = {
  en: {},
  de: germanSentences,
}

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
      const charts: readonly Chart[] = chart instanceof Spread ? chart.charts : [chart as Chart]
      charts.forEach(({ description, table }, i) => {
        const { text, unsaid } = sentenceOf(description, { columns: typesOf(table), words, locale })
        say(`${charts.length > 1 ? `${i + 1}. ` : ''}${text}\n`)
        if (unsaid.length > 0) say(`   (${unsaid.map(({ path }) => path.join('.')).join(', ')})\n`)
      })
    })
}

/** A sentence whose words are choices: people who do not program compose charts, and the application gets the description. */
import { DapploError } from '@dapplo/core'
import { germanReasons, germanSentences } from '@dapplo/core/sentence'
import { Composer } from './composer.ts'
import type { Composed, ComposeOptions } from './options.ts'
import { germanComposer } from './words.ts'

export type { Drawn } from '@dapplo/core/sentence'
export { type ColumnTypes, chartFrom } from './chart-from.ts'
export type { Allowed } from './choose/model.ts'
export { ComposerElement, defineComposer } from './element.ts'
export type { Composed, ComposeOptions } from './options.ts'
export { COMPOSER_WORDS } from './words.ts'

/** All words of sentences and of the composer in German. */
export const germanWords: Readonly<Record<string, string>> = {
  ...germanSentences,
  ...germanReasons,
  ...germanComposer,
}

/**
 * Lets a person compose a chart in an element: the sentence that describes it, whose words are choices, over the chart.
 * Throws `no-element`, `bad-rows` where there is no table, and what the first description makes impossible.
 */
export function compose(element: HTMLElement, options: ComposeOptions): Composed {
  if (!(element instanceof HTMLElement))
    throw new DapploError(
      'no-element',
      'There is no element to compose in',
      'element',
      'Give an element of the page.',
    )
  return new Composer(element, options)
}

import { chartsOf, isSpread } from '@dapplo/core/internal'
import { Chart, DapploError, type Spread } from '@dapplo/core/small'
import type { Part, PartName } from './model.ts'

/** What a description asks for that only a part can do. */
const NEEDED: readonly [option: string, part: PartName][] = [
  ['zoom', 'exploring'],
  ['select', 'exploring'],
  ['controls', 'controls'],
  ['through', 'playback'],
]

/** Throws `missing-part` where a chart asks for what no part of these can do. */
export function checkParts(shown: Chart | Spread, parts: readonly Part[]): void {
  if (!(shown instanceof Chart || (typeof shown === 'object' && shown !== null && isSpread(shown))))
    throw new DapploError(
      'bad-chart',
      `${shown === null ? 'null' : `A plain ${typeof shown}`} is no chart that can be shown`,
      'chart',
      'Make one with chart(table, { … }).',
    )
  for (const { description } of chartsOf(shown))
    for (const [option, part] of NEEDED)
      if (
        (description as unknown as Record<string, unknown>)[option] &&
        !parts.some(({ name }) => name === part)
      )
        throw missing(part, option)
}

/** What a part brings; throws `missing-part` where it is not here. */
export function need<A>(ability: A | undefined, part: PartName, call: string): A {
  if (ability === undefined) throw missing(part, call)
  return ability
}

/** The error of what cannot be done without a part. */
const missing = (part: PartName, path: string): DapploError =>
  new DapploError(
    'missing-part',
    `The part "${part}" is not here, and "${path}" needs it`,
    path,
    `Import it from dapplo/small and hand it to mount: { parts: [${part}] }, or import mount from dapplo.`,
  )

import type { Settled } from '../../describe/description.ts'
import type { Finding } from '../../finding/error.ts'
import { nearest, suggest } from '../../finding/nearest.ts'
import { noEffect } from '../../finding/no-effect.ts'
import { partPath } from '../../finding/part-path.ts'
import type { Bound, BoundDrawing, Domain } from '../model.ts'
import { disagreements } from './disagreements.ts'
import { doubtfulValues } from './doubtful-values.ts'
import { farValues } from './far-values.ts'
import { unreadOptions } from './unread-options.ts'

/** Scales that place nothing in the plot. */
const OTHER_SCALES = ['color', 'size', 'shape', 'dash', 'through']

/** What a person would regret about a chart although every step of it went well. */
export type Advises = (
  description: Settled,
  bound: Bound,
  domains: ReadonlyMap<string, Pick<Domain, 'kind'>>,
  /** Whether the chart is played through periods. */
  played: boolean,
) => Finding[]

export const advise: Advises = (description, bound, domains, played) => [
  ...unusedFindings(description, bound.drawings),
  ...unreadOptions(description, bound, domains, played),
  ...[...bound.scales.values()].flatMap(input => {
    const ends = description.scales?.[input.name]?.domain ?? []
    const free = ends.every(end => end === null)
    return free && domains.get(input.name)?.kind.name === 'linear' ? farValues(input) : []
  }),
  ...bound.drawings.flatMap(drawn => [
    ...doubtfulValues(drawn, bound.tongue.locale),
    ...disagreements(drawn),
  ]),
]

/** Axes and scales that are told of and that nothing stands on, and sizes that are told and bound. */
function unusedFindings(description: Settled, drawings: readonly BoundDrawing[]): Finding[] {
  const placed = drawings.filter(({ drawing }) => !drawing.kind.parts)
  const names = new Set(placed.flatMap(({ drawing }) => ['x', drawing.against]))
  if (drawings.length === 0) return []
  const percentages = Object.entries(description.scales ?? {})
    .filter(([, scale]) => scale.percentOf !== undefined)
    .map(([name]) => name)
  if (placed.length > 0) for (const name of percentages) names.add(name)
  const unused = (name: string, of: 'axes' | 'scales', known: readonly string[]): Finding =>
    noEffect(
      `${of}.${name}`,
      `Nothing stands on a scale "${name}", so what ${of}.${name} says changes nothing`,
      placed.length === 0
        ? 'Leave it out: parts of a whole stand on no scale.'
        : `${suggest(name, [...known], 'Scales')} A drawing stands on another one by "against".`,
    )
  const scales = [...names, ...OTHER_SCALES]
  return [
    ...Object.keys(description.axes ?? {})
      .filter(name => !names.has(name))
      .map(name => unused(name, 'axes', [...names])),
    ...Object.keys(description.scales ?? {})
      .filter(name => !scales.includes(name))
      .map(name => unused(name, 'scales', scales)),
    ...misspelt(description, placed),
    ...Object.entries(description.scales ?? {})
      .filter(([, { percentOf, alignTo }]) => percentOf !== undefined && alignTo)
      .map(([name]) =>
        noEffect(
          `scales.${name}.alignTo`,
          `"alignTo" changes nothing about the scale "${name}", which reads the scale "y" itself`,
        ),
      ),
    ...drawings
      .filter(({ drawing, size }) => drawing.style.size !== undefined && size !== undefined)
      .map(({ drawing }) =>
        noEffect(
          partPath(drawing.path, 'style.size'),
          '"style.size" changes nothing where size is bound to values',
          'Leave it out, or bind nothing to size.',
        ),
      ),
  ]
}

/** Scales that a drawing alone stands on, and that are called almost as another. */
function misspelt({ axes, scales }: Settled, drawings: readonly BoundDrawing[]): Finding[] {
  return drawings.flatMap(({ drawing: { against, path } }) => {
    const told = ['y', 'right', 'top'].includes(against) || axes?.[against] || scales?.[against]
    const near = told ? undefined : nearest(against, ['right', 'top'])
    return near === undefined
      ? []
      : [
          {
            code: 'misspelt-scale',
            message: `"${against}" is a scale of its own, and not the scale "${near}"`,
            remedy: `Write against: "${near}", or say something of the scale "${against}" under axes or scales.`,
            path: partPath(path, 'against'),
          },
        ]
  })
}

import type { Settled } from '../describe/description.ts'
import type { Finding } from '../finding/error.ts'
import { nearest, suggest } from '../finding/nearest.ts'
import type { Bound, BoundDrawing, Domain, ScaleInput } from './model.ts'

/** Scales that place nothing in the plot. */
const OTHER_SCALES = ['color', 'size', 'shape', 'dash', 'through']

/** What a person would regret about a chart although every step of it went well. */
export type Advises = (
  description: Settled,
  bound: Bound,
  domains: ReadonlyMap<string, Pick<Domain, 'kind'>>,
) => Finding[]

export const advise: Advises = (description, bound, domains) => [
  ...unusedFindings(description, bound.drawings),
  ...[...bound.scales.values()].flatMap(input => {
    const ends = description.scales?.[input.name]?.domain ?? []
    const free = ends.every(end => end === null)
    return free && domains.get(input.name)?.kind.name === 'linear' ? farValues(input) : []
  }),
  ...bound.drawings.flatMap(zigzags),
]

/** Axes and scales that are told of and that nothing stands on, and sizes that are told and bound. */
function unusedFindings(description: Settled, drawings: readonly BoundDrawing[]): Finding[] {
  const placed = drawings.filter(({ drawing }) => !drawing.kind.parts)
  const names = new Set(placed.flatMap(({ drawing }) => ['x', drawing.against]))
  const percentages = Object.entries(description.scales ?? {})
    .filter(([, scale]) => scale.percentOf !== undefined)
    .map(([name]) => name)
  for (const name of percentages) names.add(name)
  if (placed.length === 0) return []
  const unused = (name: string, of: 'axes' | 'scales', known: readonly string[]): Finding => ({
    code: 'no-effect',
    message: `Nothing stands on a scale "${name}", so what ${of}.${name} says changes nothing`,
    remedy: `${suggest(name, [...known], 'Scales')} A drawing stands on another one by "against".`,
    path: `${of}.${name}`,
  })
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
      .map(([name]) => ({
        code: 'no-effect',
        message: `"alignTo" changes nothing about the scale "${name}", which reads the scale "y" itself`,
        remedy: 'Leave it out.',
        path: `scales.${name}.alignTo`,
      })),
    ...drawings
      .filter(({ drawing, size }) => drawing.style.size !== undefined && size !== undefined)
      .map(({ drawing }) => ({
        code: 'no-effect',
        message: '"style.size" changes nothing where size is bound to values',
        remedy: 'Leave it out, or bind nothing to size.',
        path: drawing.path ? `${drawing.path}.style.size` : 'style.size',
      })),
  ]
}

/** Scales that a drawing alone stands on, and that are called almost as another. */
function misspelt({ axes, scales }: Settled, drawings: readonly BoundDrawing[]): Finding[] {
  return drawings.flatMap(({ drawing: { against, path } }) => {
    const told = against === 'y' || against === 'right' || axes?.[against] || scales?.[against]
    const near = told ? undefined : nearest(against, ['right'])
    return near === undefined
      ? []
      : [
          {
            code: 'misspelt-scale',
            message: `"${against}" is a scale of its own, and not the scale "${near}"`,
            remedy: `Write against: "${near}", or say something of the scale "${against}" under axes or scales.`,
            path: path ? `${path}.against` : 'against',
          },
        ]
  })
}

/** A value so many times as large as the next leaves the others no height to be told apart by. */
const FAR = 20
/** Of fewer values each is seen. */
const FEW = 5

/** Tells of one far value that squeezes all others flat. */
function farValues(input: ScaleInput): Finding[] {
  for (const { positions, bound, values } of input.uses) {
    if (positions.from || input.type !== 'number' || bound.drawing.kind.aside) continue
    let [greatest, next, count] = [0, 0, 0]
    for (const value of positions.at) {
      const size = Math.abs(value)
      if (size !== size) continue
      count++
      if (size > greatest) [greatest, next] = [size, greatest]
      else if (size > next) next = size
    }
    if (count < FEW || next === 0 || greatest < next * FAR) continue
    const name = values.column?.name ?? input.name
    return [
      {
        code: 'far-value',
        message: `One value of "${name}" is ${Math.floor(greatest / next)} times as large as the next, so the others look alike`,
        remedy: `Set scales.${input.name}.kind to "signed log", or end scales.${input.name}.domain before it.`,
        path: `scales.${input.name}`,
      },
    ]
  }
  return []
}

/** Lines that go back and forth, since several rows of one series stand at one place. */
function zigzags({ drawing, marks }: BoundDrawing): Finding[] {
  if (drawing.kind.name !== 'line' || marks.length < 3 || marks.x.spans) return []
  const seen = new Map<number, Set<number>>()
  let twice = 0
  for (let mark = 0; mark < marks.length; mark++) {
    const place = marks.x.at[mark]
    if (place !== place || marks.y.at[mark] !== marks.y.at[mark]) continue
    const series = marks.seriesOf?.[mark] ?? 0
    let places = seen.get(series)
    if (!places) {
      places = new Set()
      seen.set(series, places)
    }
    if (places.has(place)) twice++
    else places.add(place)
  }
  // Where lines rise at once now and then, that is meant.
  if (twice * 4 < marks.length) return []
  return [
    {
      code: 'several-at-a-place',
      message: `Several rows of a line stand at one place, so it goes up and down there`,
      remedy: 'Bind color to what tells them apart, or sum them up, as in y: "mean of …".',
      path: drawing.path || 'draw',
    },
  ]
}

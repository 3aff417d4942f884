import type { Scale } from '../describe/description.ts'
import { isLying } from '../drawing/is-lying.ts'
import { leastStep } from '../drawing/least-step.ts'
import { DapploError, type Finding } from '../finding/error.ts'
import type { Found } from '../finding/found.ts'
import { noEffect } from '../finding/no-effect.ts'
import { quoted } from '../finding/plain-text.ts'
import { arrangeOf } from '../resolve/looks.ts'
import { KINDS, type ScaleKind } from '../scale/scale.ts'
import { LENGTH } from '../table/cells/calendar.ts'
import { extentOf } from '../table/cells/extent.ts'
import { utc } from '../table/cells/zone.ts'
import { numberOf } from '../table/group/where.ts'
import type { Bound, Domain, ScaleInput } from './model.ts'
import { unitOf } from './naming.ts'
import { extentOfPositions, lacksSome } from './positions.ts'

/** Told where values lie outside fixed ends; marks then stand at those edges. */
export const OUTSIDE = 'outside-domain'

/** Lines of sums start at zero where that costs less than this share of the height. */
const ZERO_COSTS = 0.6

/** Settles a scale's domain: `fit`, where it keeps an earlier one; else from its data and options, in the order domain, include, pad. */
export function settleDomain(input: ScaleInput, options: Scale | undefined, fit?: Domain): Found<Domain> {
  const findings: Finding[] = []
  const zone = input.uses[0]?.values.zone ?? utc
  const kind =
    KINDS[
      positionKind(options?.kind) ??
        (input.type === 'text' ? 'category' : input.type === 'time' ? 'time' : 'linear')
    ]
  const reverse = options?.reverse ?? false
  if (kind.name === 'category')
    return {
      value: {
        kind,
        min: -0.5,
        max: Math.max(0, input.words.length - 1) + 0.5,
        round: { min: false, max: false },
        reverse,
        words: input.words,
        zone,
      },
      findings: options?.domain ? unlisted(input) : findings,
    }

  const extent = dataExtent(input, kind)
  if (fit && fit.kind === kind) {
    return { value: { ...fit, zone }, findings: outside(input, extent, fit.min, fit.max) }
  }
  let [min, max] = extent
  const found = min <= max
  const measured = input.uses.some(use => use.positions.measured)
  const fromZero = input.uses.some(
    use => use.bound.drawing.kind.fromZero && !use.positions.spans && measures(use, input),
  )
  const type = input.type === 'time' ? 'time' : 'number'
  const number = kind.name !== 'time'
  if (!found) [min, max] = emptyDomain(kind)
  if (
    number &&
    found &&
    (fromZero || (measured && kind.name === 'linear' && min > 0 && min <= max * ZERO_COSTS)) &&
    kind.allows(0)
  ) {
    min = Math.min(0, min)
    max = Math.max(0, max)
  }
  const path = `scales.${input.name}`
  if (options?.domain && options.domain.length !== 2)
    throw new DapploError(
      'bad-option',
      `The domain of the scale "${input.name}" has ${options.domain.length === 1 ? 'one end' : `${options.domain.length} values`}, and a scale of ${type === 'time' ? 'times' : 'numbers'} has two ends`,
      `${path}.domain`,
      'Write both ends, null for one that is open.',
    )
  const [low, high] = (options?.domain ?? [null, null]) as [unknown, unknown]
  const fixedMin = low !== null && low !== undefined
  const fixedMax = high !== null && high !== undefined
  if (fixedMin) min = numberOf(low as string, type, zone, `${path}.domain[0]`)
  if (fixedMax) max = numberOf(high as string, type, zone, `${path}.domain[1]`)
  if (fixedMin && fixedMax && min > max) [min, max] = [max, min]
  if (!kind.allows(min) || !kind.allows(max)) {
    const [dataMin, dataMax] = extent
    if (!kind.allows(min)) min = dataMin <= dataMax ? dataMin : 1
    if (!kind.allows(max)) max = dataMin <= dataMax ? dataMax : 10
  }
  for (const value of [options?.include ?? []].flat()) {
    if (!kind.allows(value)) continue
    min = Math.min(min, value)
    max = Math.max(max, value)
  }
  if (!(min < max)) [min, max] = widened(min, kind, input)
  const scattered = input.uses.some(use => use.bound.drawing.kind.scattered)
  const pad =
    options?.pad ??
    (scattered && !number && input.uses.every(use => use.positions.from === undefined) ? 0.02 : 0)
  if (pad > 0) {
    const a = kind.forward(min)
    const b = kind.forward(max)
    if (!fixedMin) min = kind.backward(a - (b - a) * pad)
    if (!fixedMax) max = kind.backward(b + (b - a) * pad)
  }
  // Room that is asked for is that much room.
  const round =
    options?.roundEnds ??
    (options?.pad === undefined && number && (input.role === 'y' || measured || scattered || fromZero))
  if (options?.pad && fixedMin && fixedMax) findings.push(withoutRoom(input.name))
  if (kind.name === 'log') findings.push(...unplaced(input))
  if (fromZero && (min > 0 || max < 0)) findings.push(withoutZero(input, kind))
  findings.push(...outside(input, fromZero ? ofValues(input, extent) : extent, min, max))
  return {
    value: {
      kind,
      min,
      max,
      round: { min: round && !fixedMin, max: round && !fixedMax },
      reverse,
      words: [],
      zone,
    },
    findings,
  }
}

/** The kinds that place values; those that colour them mean nothing here. */
function positionKind(kind: Scale['kind']): ScaleKind['name'] | undefined {
  return kind === 'sequential' || kind === 'diverging' || kind === 'stepped' ? undefined : kind
}

const reachOf = ({ drawing, x }: Bound['drawings'][number]) => ({
  options: drawing.options,
  between: drawing.between,
  time: x.cells.type === 'time',
})

type Use = ScaleInput['uses'][number]

/** Whether the drawing's shapes grow along this scale. */
export const measures = ({ bound: { marks } }: Use, { role }: Pick<ScaleInput, 'role'>): boolean =>
  role === (isLying(marks) ? 'x' : 'y')

function dataExtent(input: ScaleInput, kind: ScaleKind): [number, number] {
  let min = Number.POSITIVE_INFINITY
  let max = Number.NEGATIVE_INFINITY
  const take = (low: number, high: number) => {
    if (low < min) min = low
    if (high > max) max = high
  }
  for (const use of [...input.uses, ...input.asides]) {
    const { bound, positions } = use
    const { kind: drawn } = bound.drawing
    const arrange = arrangeOf(bound.drawing)
    if (bound.marks.length === 0) continue
    const { reach } = use.values
    if (kind.name === 'log' && reach && reach[0] > 0) take(...reach)
    else if (kind.name === 'log') {
      const other = input.role === 'x' ? bound.marks.y : bound.marks.x
      positions.at.forEach((value, mark) => {
        if (value > 0 && (other.unbound || !Number.isNaN(other.at[mark]))) take(value, value)
      })
    } else if (drawn.extent && measures(use, input))
      take(...drawn.extent(bound.marks, input.role, arrange, reachOf(bound)))
    else if (positions.from && positions.to) {
      // Whole intervals for every kind, so that a change of kind leaves the axis where it is.
      take(
        extentOf({ type: 'number', values: positions.from }).min,
        extentOf({ type: 'number', values: positions.to }).max,
      )
    } else {
      const { min: low, max: high } = extentOfPlaced(use, input.role)
      // Bars at plain numbers need half their room beyond the first and the last, or they would be cut.
      const half = drawn.broad && (drawn.cells || !measures(use, input)) ? leastStep(positions.at) / 2 : 0
      take(low - half, high + half)
    }
  }
  return [min, max]
}

function emptyDomain(kind: ScaleKind): [number, number] {
  if (kind.name === 'log') return [1, 10]
  // A time axis without times shows a year that stays the same from run to run.
  return kind.name === 'time' ? [Date.UTC(2024, 0, 1), Date.UTC(2025, 0, 1)] : [0, 1]
}

/** Room around a single value. */
function widened(value: number, kind: ScaleKind, input: ScaleInput): [number, number] {
  if (kind.name === 'time') {
    const unit = input.uses.length > 0 ? unitOf(input.uses[0].values) : undefined
    const half = LENGTH[unit ?? 'day'] / 2
    return [value - half, value + half]
  }
  if (kind.name === 'log') return [value / 3, Math.min(value * 3, Number.MAX_VALUE)]
  // A place has its room around it: the year 2025 does not begin at zero.
  const placed = input.uses.some(use => !use.bound.drawing.kind.scattered && !measures(use, input))
  if (placed) return [value - 0.5, value + 0.5]
  if (value === 0) return [0, 1]
  return value > 0 ? [0, value] : [value, 0]
}

function unplaced(input: ScaleInput): Finding[] {
  let count = 0
  for (const { positions, bound } of input.uses)
    positions.at.forEach((value, mark) => {
      if (value <= 0) count += bound.marks.crowd?.rows[mark] ?? 1
    })
  if (count === 0) return []
  const label = input.uses[0].values.column?.name ?? input.name
  return [
    {
      code: 'not-on-log',
      message: `A logarithmic scale has no place for ${count} of the values of "${label}", being zero or negative`,
      remedy: 'Use the kind "signed log" or "root", or leave those rows out with "where".',
      path: `scales.${input.name}.kind`,
    },
  ]
}

/** Shapes whose baseline is out of sight: their lengths say nothing. */
const withoutZero = ({ name, uses }: ScaleInput, kind: ScaleKind): Finding => ({
  code: 'zero-out-of-sight',
  message: `Shapes of the kind "${uses.find(use => use.bound.drawing.kind.fromZero)?.bound.drawing.kind.name}" begin at zero, which the scale "${name}" does not show, so their lengths do not compare`,
  remedy:
    kind.name === 'log'
      ? 'Draw "scatter" or "line", or use the kind "root".'
      : `Let scales.${name}.domain hold zero, or draw "scatter" or "line".`,
  path: `scales.${name}.${kind.name === 'log' ? 'kind' : 'domain'}`,
})

/** The extent of what has a place: a value whose other position is missing is not drawn, and stretches nothing. */
function extentOfPlaced({ bound, values, positions }: Use, role: 'x' | 'y'): { min: number; max: number } {
  const across = role === 'x' ? 'y' : 'x'
  const other = bound.marks[across]
  if (other.unbound || positions.spans || values.reach || !lacksSome(bound[across], other))
    return extentOfPositions(values, positions)
  return extentOf({ type: 'number', values: positions.at.filter((_, mark) => !Number.isNaN(other.at[mark])) })
}

/** The extent without the baseline that bars begin at. */
function ofValues({ uses, role }: ScaleInput, [low, high]: [number, number]): [number, number] {
  let least = Number.POSITIVE_INFINITY
  let greatest = Number.NEGATIVE_INFINITY
  for (const use of uses) {
    const { min, max } = extentOfPlaced(use, role)
    least = Math.min(least, min)
    greatest = Math.max(greatest, max)
  }
  return [low === 0 ? least : low, high === 0 ? greatest : high]
}

/** Categories that a scale's list does not have. */
function unlisted(input: ScaleInput): Finding[] {
  const missing = new Set<string>()
  for (const { values, positions } of input.uses) {
    const { cells } = values
    if (cells.type !== 'text') continue
    for (let mark = 0; mark < positions.at.length; mark++) {
      const word = cells.codes[mark] < 0 ? undefined : cells.words[cells.codes[mark]]
      if (word !== undefined && Number.isNaN(positions.at[mark])) missing.add(word)
    }
  }
  if (missing.size === 0) return []
  const [first] = missing
  return [
    {
      code: 'not-in-domain',
      message: `${missing.size === 1 ? `${quoted(first)} is` : `${missing.size} values, such as ${quoted(first)}, are`} not in the list of the scale "${input.name}" and ${missing.size === 1 ? 'is' : 'are'} not drawn`,
      remedy: `Add ${missing.size === 1 ? 'it' : 'them'} to scales.${input.name}.domain, or leave those rows out with "where".`,
      path: `scales.${input.name}.domain`,
    },
  ]
}

const withoutRoom = (name: string): Finding =>
  noEffect(
    `scales.${name}.pad`,
    `"pad" changes nothing about the scale "${name}", whose ends are both fixed`,
    'Leave it out, or leave an end of its domain open with null.',
  )

function outside(input: ScaleInput, [low, high]: [number, number], min: number, max: number): Finding[] {
  if (!(low < min || high > max)) return []
  const label = input.uses[0]?.values.column?.name ?? input.name
  return [
    {
      code: OUTSIDE,
      message: `Some values of "${label}" lie outside the ends of the scale "${input.name}" and are only marked at its edge`,
      remedy: `Widen scales.${input.name}.domain, or leave an end open with null.`,
      path: `scales.${input.name}.domain`,
    },
  ]
}

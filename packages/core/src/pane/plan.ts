import { measures } from '../bind/domain.ts'
import type { Bound, Domain, ScaleInput } from '../bind/model.ts'
import { isOpenBin, labelOf, lookOf, measureTitle, unitOf } from '../bind/naming.ts'
import { formOn, isShared } from '../bind/number-forms.ts'
import type { Axis, AxisOptions, Settled } from '../describe/description.ts'
import { isLying } from '../drawing/is-lying.ts'
import { DapploError } from '../finding/error.ts'
import { quoted } from '../finding/plain-text.ts'
import type { AxisInput, Side } from '../guide/axis-parts.ts'
import type { AxisLook } from '../guide/axis-shapes.ts'
import { clean } from '../guide/text.ts'
import { KINDS } from '../scale/scale.ts'
import { stepOfSpan } from '../scale/time-ticks.ts'
import { utc } from '../table/cells/zone.ts'
import type { RoleValues } from '../table/group/shape.ts'
import { numberOf } from '../table/group/where.ts'
import type { Tongue } from '../words/tongue.ts'
import type { PlanContext, PlannedAxis } from './model.ts'
import { mostRoom, roomBeyond } from './room-beyond.ts'

/** Decides for every scale which axis reads it: its side, its ticks, its title. */
export function planAxes(context: PlanContext): PlannedAxis[] {
  const { description, bound, domains } = context
  const planned: PlannedAxis[] = []
  for (const source of bound.scales.values()) {
    const option = description.axes?.[source.name]
    const options: AxisOptions = option === false || option === undefined ? {} : option
    // A second scale keeps to the gridlines of the first, unless it is told not to.
    const first = planned.find(({ role }) => role === source.role)?.name
    planned.push(planOne({ ...context, first }, source, option, sideOf(source, options, planned)))
  }
  planned.push(...readings(description, domains, planned, bound.tongue.locale))
  return planned
}

/** The first vertical scale stands on the left, the next on the right, unless told otherwise. */
function sideOf(source: ScaleInput, { side }: AxisOptions, planned: PlannedAxis[]): Side {
  const level = source.role === 'x'
  if (side !== undefined && level === (side === 'top' || side === 'bottom')) return side
  if (level) return planned.some(({ look }) => look.side === 'bottom') ? 'top' : 'bottom'
  const taken = planned.filter(axis => axis.role === 'y')
  if (source.name === 'right') return 'right'
  return taken.length === 0 || taken.some(axis => axis.look.side === 'right') ? 'left' : 'right'
}

function planOne(
  context: PlanContext & { first?: string },
  source: ScaleInput,
  option: Axis | undefined,
  side: Side,
): PlannedAxis {
  const { description, bound, domains, zoom, labelRoom, first: base } = context
  const domain = domains.get(source.name)!
  const options: AxisOptions = option === false || option === undefined ? {} : option
  const { values, bound: first } = source.uses[0]
  const { meaning, column } = values
  const scale = description.scales?.[source.name]
  const look = lookOf(values)
  const format = options.format ?? look.format
  const zoomed = zoom?.[source.name]
  const shared = isShared(source)
  const { kind } = domain
  const min = zoomed ? Math.min(...zoomed) : domain.min
  const max = zoomed ? Math.max(...zoomed) : domain.max
  const needs = roomBeyond(source, context)
  const input: AxisInput = {
    name: source.name,
    side,
    kind,
    min,
    max,
    round: zoomed ? { min: false, max: false } : domain.round,
    // Categories are listed from the top, as people read.
    reverse: domain.reverse !== (source.role === 'y' && kind.name === 'category'),
    words: domain.words,
    zone: domain.zone,
    look: {
      ...look,
      ...(shared ? {} : formOn(domain, min, max)),
      percent: look.percent || shared,
      whole: look.whole && !shared,
      format: kind.name === 'time' || shared ? options.format : format,
      locale: bound.tongue.locale,
    },
    unit: unitOf(values),
    openFrom: openBin(values),
    intervals: meaning.is === 'bucket',
    whole: !shared && source.uses.every(({ values }) => isWhole(values)),
    cycle: meaning.is === 'cycle' ? meaning.cycle : undefined,
    timeFormat: kind.name === 'time' ? (format as AxisInput['timeFormat']) : undefined,
    labelRoom,
    depth: context.box.height * DEPTH,
    beyond: mostRoom([needs, context.beyond?.get(source.name)]),
    minor: options.minor,
    images: options.images ?? column?.options.images,
    shorter: column?.options.shorter,
    alignTo: scale?.alignTo === null ? undefined : (scale?.alignTo ?? base),
    wish: wishOf(options, domain, source.name),
  }
  // Stretched to the whole, sums are shares.
  const grows = source.uses.some(use => use.bound.drawing.kind.fromZero && measures(use, source))
  return {
    name: source.name,
    role: source.role,
    input,
    look: axisLook(
      options,
      side,
      (options.minor === true && kind.name === 'linear') || wantsGrid(source, input, bound, grows),
    ),
    hidden: option === false,
    title: titleOf(source, options, first.drawing.table, bound.tongue, domain, shared),
    grows,
    needs,
  }
}

/** The share of a chart's height that names under its plot may take. */
const DEPTH = 0.32

/** Where the open bin begins; undefined where there is none. */
function openBin({ meaning, cells }: RoleValues): number | undefined {
  if (cells.type === 'text' || meaning.is !== 'bins' || meaning.until === undefined) return undefined
  return cells.values.find(start => isOpenBin(meaning, start))
}

/** Summaries of whole numbers that are whole numbers themselves. */
const KEEP_WHOLE = ['sum', 'min', 'max', 'first', 'last', 'count', 'distinct']

/** Whether a role has whole numbers only: a look at the first thousand tells. */
function isWhole({ cells, meaning }: RoleValues): boolean {
  if (cells.type !== 'number' || meaning.is === 'ratio' || meaning.is === 'window') return false
  if (meaning.is === 'summary' && !KEEP_WHOLE.includes(meaning.how)) return false
  const some = cells.values.subarray(0, 1000)
  return some.length > 0 && some.every(value => Number.isInteger(value) || Number.isNaN(value))
}

function axisLook(options: AxisOptions, side: Side, grid: boolean): AxisLook {
  const wish = options.grid
  return {
    side,
    away: 0,
    grid: typeof wish === 'object' ? true : (wish ?? grid),
    gridDash: typeof wish === 'object' ? wish.dash : undefined,
    gridColor: typeof wish === 'object' ? wish.color : undefined,
    stripes: options.stripes,
    strongAt: options.strongAt && { unit: options.strongAt, count: 1 },
    tickLength: options.tickLength,
  }
}

function wishOf({ ticks }: AxisOptions, domain: Domain, name: string): AxisInput['wish'] {
  if (ticks === undefined || typeof ticks === 'number') return ticks
  if (Array.isArray(ticks)) {
    const type = domain.kind.name === 'time' ? 'time' : 'number'
    return ticks.map((value, i) =>
      domain.kind.name === 'category'
        ? domain.words.indexOf(String(value))
        : numberOf(value, type, domain.zone, `axes.${name}.ticks[${i}]`),
    )
  }
  const step = typeof ticks.every === 'number' ? ticks.every : stepOfSpan(ticks.every)
  if (step !== undefined && (typeof step === 'object' || step > 0)) return { every: step }
  throw new DapploError(
    'bad-option',
    `${quoted(ticks.every)} is no interval from tick to tick`,
    `axes.${name}.ticks.every`,
    'Write a number above 0, or one unit of time and how many of it, as in { "months": 3 }.',
  )
}

function titleOf(
  source: ScaleInput,
  options: AxisOptions,
  table: Parameters<typeof labelOf>[1],
  tongue: Tongue,
  domain: Domain,
  shared: boolean,
): string {
  if (typeof options.title === 'string') return clean(options.title)
  if (options.title === false || domain.kind.name === 'time' || domain.kind.name === 'category') return ''
  const { values, bound } = source.uses[0]
  const label = labelOf(values.meaning, table, tongue)
  const alike = source.uses.every(
    use => labelOf(use.values.meaning, use.bound.drawing.table, tongue) === label,
  )
  if (!alike) return ''
  const title = clean(measureTitle(values, source.role === 'y' ? bound.x : bound.y, table, tongue))
  return shared ? tongue.say('Share of {what}', { what: tongue.lower(title) }) : title
}

function wantsGrid(source: ScaleInput, input: AxisInput, bound: Bound, grows: boolean): boolean {
  if (input.kind.name === 'category') return false
  // A second scale has gridlines of its own only where they are those of the first.
  if (source.role === 'y') return input.name === 'y' || bound.scales.get('y') === undefined
  if (input.name !== 'x' && bound.scales.has('x')) return false
  // Points are read in both directions, what lies is read along x; a time axis needs no lines.
  const shown = bound.drawings.filter(({ drawing }) => !drawing.kind.aside)
  const read = shown.length > 0 ? shown : bound.drawings
  return grows || read.every(({ drawing, marks }) => drawing.kind.scattered || isLying(marks))
}

/** Scales that no drawing uses, but that read another one differently: as a percentage of a total. */
function readings(
  description: Settled,
  domains: ReadonlyMap<string, Domain>,
  planned: PlannedAxis[],
  locale: string,
): PlannedAxis[] {
  const out: PlannedAxis[] = []
  for (const [name, scale] of Object.entries(description.scales ?? {})) {
    if (scale.percentOf === undefined || planned.some(axis => axis.name === name)) continue
    const base = planned.find(axis => axis.name === 'y')
    const domain = domains.get('y')
    if (!base || !domain || !(Math.abs(scale.percentOf) > 0)) continue
    const option = description.axes?.[name]
    const options: AxisOptions = option === false || option === undefined ? {} : option
    const side = options.side === 'left' ? 'left' : 'right'
    out.push({
      name,
      role: 'y',
      input: {
        ...base.input,
        name,
        side,
        kind: KINDS.linear,
        zone: utc,
        words: [],
        min: domain.min / scale.percentOf,
        max: domain.max / scale.percentOf,
        round: { min: false, max: false },
        look: { locale, percent: true, format: options.format },
        percentOf: scale.percentOf,
        wish: wishOf(options, domain, name),
        alignTo: undefined,
        whole: false,
      },
      look: axisLook(options, side, false),
      hidden: option === false,
      title: typeof options.title === 'string' ? clean(options.title) : '',
      grows: false,
      needs: undefined,
    })
  }
  return out
}

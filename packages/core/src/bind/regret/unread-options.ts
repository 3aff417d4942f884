import type { AxisOptions, Scale, Settled } from '../../describe/description.ts'
import type { Finding } from '../../finding/error.ts'
import { suggest } from '../../finding/nearest.ts'
import { noEffect } from '../../finding/no-effect.ts'
import { partPath } from '../../finding/part-path.ts'
import type { Bound, BoundDrawing, Domain } from '../model.ts'

/** What a scale places or paints. */
type Reads =
  | 'numbers'
  | 'times'
  | 'categories'
  | 'ramp'
  | 'colors'
  | 'sizes'
  | 'periods'
  | 'forms'
  | 'nothing'

const POSITIONS: readonly Reads[] = ['numbers', 'times', 'categories']

/** By option: what scales read it. */
const SCALE_OPTIONS: Readonly<Record<keyof Scale, readonly Reads[]>> = {
  kind: [...POSITIONS, 'ramp'],
  domain: [...POSITIONS, 'ramp'],
  include: ['numbers'],
  pad: ['numbers', 'times'],
  roundEnds: ['numbers'],
  reverse: [...POSITIONS, 'ramp'],
  fixed: ['numbers', 'times'],
  alignTo: ['numbers'],
  percentOf: [],
  order: ['categories'],
  each: ['periods'],
  missing: ['periods'],
  keeps: ['periods'],
  colors: ['colors', 'ramp'],
  hatched: ['colors'],
  radius: ['sizes'],
  steps: ['sizes'],
}

/** By option: where it does something. */
const INSTEAD: Partial<Record<keyof Scale, string>> = {
  percentOf: 'Give it to a scale on which nothing stands, as in scales: { right: { percentOf: 3000 } }.',
}

/** By option: the axes that read it. */
const AXIS_OPTIONS: Readonly<Record<keyof AxisOptions, readonly Reads[]>> = {
  title: POSITIONS,
  side: POSITIONS,
  stripes: POSITIONS,
  tickLength: POSITIONS,
  grid: POSITIONS,
  ticks: POSITIONS,
  format: ['numbers', 'times'],
  minor: ['numbers'],
  strongAt: ['times'],
  images: ['categories'],
}

const CALLED: Readonly<Record<Reads, string>> = {
  numbers: 'a scale of numbers',
  times: 'a scale of times',
  categories: 'a scale of categories',
  ramp: 'a ramp of colours',
  colors: 'colours of categories',
  sizes: 'sizes',
  periods: 'periods',
  forms: 'forms and dashes',
  nothing: 'what nothing is bound to',
}

/** An option that changes nothing where it stands. */
const unread = (path: string, why: string, remedy?: string): Finding =>
  noEffect(path, `"${path.split('.').at(-1)}" changes nothing${why}`, remedy)

type Domains = ReadonlyMap<string, Pick<Domain, 'kind'>>

const RAMPS = ['sequential', 'diverging', 'stepped']

/** Options of scales, axes and legends that nothing reads where they stand. */
export function unreadOptions(
  description: Settled,
  bound: Bound,
  domains: Domains,
  played: boolean,
): Finding[] {
  const scales = Object.entries(description.scales ?? {}).flatMap(([name, scale]) => {
    const reads = readsOf(name, bound, domains, played)
    if (reads === 'nothing')
      return maySet(description, name)
        ? []
        : [unread(`scales.${name}`, ` where nothing is bound to "${name}"`, `Leave it out, or bind ${name}.`)]
    return reads === undefined
      ? []
      : [
          ...unreadOfScale(name, scale, reads),
          ...unreadKind(name, scale, reads),
          ...unaligned(name, scale, bound),
        ]
  })
  const axes = Object.entries(description.axes ?? {}).flatMap(([name, axis]) => {
    const reads = domains.has(name) ? readsOf(name, bound, domains, played) : undefined
    return axis === false || reads === undefined ? [] : unreadOfAxis(name, axis, reads, bound)
  })
  return [
    ...scales,
    ...axes,
    ...unreadLegend(description, bound),
    ...bound.drawings.flatMap(drawn => aimless(drawn, bound)),
  ]
}

/** Whether another choice of a control binds a role. */
const maySet = ({ controls = [] }: Settled, role: string): boolean =>
  controls.some(({ set }) => set === role || set === 'draw')

/** What a scale is for; undefined where it is for nothing, which is told elsewhere. */
function readsOf(name: string, bound: Bound, domains: Domains, played: boolean): Reads | undefined {
  const kind = domains.get(name)?.kind.name
  if (kind !== undefined) return kind === 'category' ? 'categories' : kind === 'time' ? 'times' : 'numbers'
  if (name === 'color') {
    if (bound.ramp) return 'ramp'
    const painted = bound.drawings.some(
      ({ drawing: { roles, wide, kind } }) => roles.has('color') || wide || kind.parts,
    )
    return painted ? 'colors' : 'nothing'
  }
  // Also where there are no rows yet.
  if (name === 'size')
    return bound.drawings.some(({ drawing: { roles } }) => roles.has('size')) ? 'sizes' : 'nothing'
  if (name === 'through') return played ? 'periods' : 'nothing'
  return name === 'shape' || name === 'dash' ? 'forms' : undefined
}

function unreadOfScale(name: string, scale: Scale, reads: Reads): Finding[] {
  return (Object.keys(scale) as (keyof Scale)[])
    .filter(option => scale[option] !== undefined && !SCALE_OPTIONS[option]?.includes(reads))
    .map(option => unread(`scales.${name}.${option}`, ` about ${CALLED[reads]}`, INSTEAD[option]))
}

/** A scale that cannot keep to the gridlines of the one that it names. */
function unaligned(name: string, { alignTo, percentOf }: Scale, { scales }: Bound): Finding[] {
  const upright = [...scales.values()].filter(({ role }) => role === 'y').map(({ name }) => name)
  const others = upright.filter(other => other !== name)
  if (typeof alignTo !== 'string' || percentOf !== undefined || others.includes(alignTo)) return []
  if (!scales.has(name)) return []
  const why = upright.includes(name)
    ? `, since no other vertical scale is called "${alignTo}"`
    : ' about a horizontal scale'
  return [unread(`scales.${name}.alignTo`, why, suggest(alignTo, others, 'Scales') || 'Leave it out.')]
}

/** A kind of scale that is for something else, and a ramp of one colour. */
function unreadKind(name: string, { kind, colors }: Scale, reads: Reads): Finding[] {
  const out: Finding[] = []
  const positions = POSITIONS.includes(reads)
  if (kind !== undefined && positions === RAMPS.includes(kind))
    out.push(
      unread(
        `scales.${name}.kind`,
        ` about ${CALLED[reads]}: "${kind}" is none`,
        positions
          ? 'Leave it out, or say it of the scale "color".'
          : `Write one of ${RAMPS.map(ramp => `"${ramp}"`).join(', ')}.`,
      ),
    )
  if (reads === 'ramp' && colors !== undefined && !Array.isArray(colors))
    out.push(
      unread(`scales.${name}.colors`, ' about a ramp of colours', 'Write the colours of the ramp as a list.'),
    )
  return out
}

function unreadOfAxis(name: string, axis: AxisOptions, reads: Reads, bound: Bound): Finding[] {
  const at = (option: keyof AxisOptions) => `axes.${name}.${option}`
  const out = (Object.keys(axis) as (keyof AxisOptions)[])
    .filter(
      option =>
        axis[option] !== undefined && axis[option] !== false && !AXIS_OPTIONS[option]?.includes(reads),
    )
    .map(option => unread(at(option), ` about ${CALLED[reads]}`))
  const { side, ticks, minor, grid, images } = axis
  const level = bound.scales.get(name)?.role === 'x'
  if (side !== undefined && level !== (side === 'top' || side === 'bottom'))
    out.push(
      unread(
        at('side'),
        `: this axis is ${level ? 'horizontal' : 'vertical'}`,
        level ? 'Write "top" or "bottom".' : 'Write "left" or "right".',
      ),
    )
  if (minor && grid === false)
    out.push(unread(at('minor'), ' without gridlines', `Leave axes.${name}.grid out.`))
  if (ticks !== undefined && !Array.isArray(ticks)) {
    const every = typeof ticks === 'object' ? ticks.every : undefined
    const suits =
      every === undefined
        ? reads !== 'categories'
        : reads === (typeof every === 'number' ? 'numbers' : 'times')
    if (!suits) out.push(unread(at('ticks'), ` about ${CALLED[reads]}`, 'Leave it out, or list the ticks.'))
  }
  const words = bound.scales.get(name)?.words ?? []
  if (reads === 'categories')
    for (const word of Object.keys(images ?? {}))
      if (!words.includes(word))
        out.push({
          code: 'unknown-category',
          message: `A picture is given for "${word}", which is none of the values`,
          remedy: `Values: ${words.slice(0, 12).join(', ')}.`,
          path: `${at('images')}.${word}`,
        })
  return out
}

/** A place for a legend that has nothing to explain. */
function unreadLegend({ legend }: Settled, { legend: entries, ramp, sizes }: Bound): Finding[] {
  if (legend === undefined || legend === false || legend === 'auto') return []
  const colors = entries.filter(({ by }) => (by ?? 'color') === 'color')
  const explained = {
    color: ramp !== undefined || colors.length > 1 || colors.some(({ title }) => title !== ''),
    shape: entries.some(({ by }) => by === 'shape'),
    dash: entries.some(({ by }) => by === 'dash'),
    size: sizes !== undefined,
  }
  const roles = Object.keys(explained) as (keyof typeof explained)[]
  const own = typeof legend === 'object' ? roles.filter(role => Object.hasOwn(legend, role)) : []
  if (own.length === 0)
    return roles.some(role => explained[role])
      ? []
      : [
          unread(
            'legend',
            ', since there is nothing for it to explain',
            'Leave it out, or bind color to what tells series apart.',
          ),
        ]
  return own
    .filter(role => !explained[role] && (legend as Record<string, unknown>)[role] !== false)
    .map(role => unread(`legend.${role}`, `, since no ${role} tells anything apart`))
}

/** An order, or a number of the best, of what has no categories. */
function aimless({ drawing, xScale, yScale, marks }: BoundDrawing, { scales }: Bound): Finding[] {
  const { kind, roles, path, table } = drawing
  if (kind.parts || kind.aside || marks.length === 0) return []
  const placed = [xScale, yScale].some(name => scales.get(name)?.type === 'text')
  const colored = ['color', 'series'].some(role => {
    const meaning = roles.get(role)
    return (
      meaning?.is === 'cycle' || (meaning?.is === 'column' && table.column(meaning.column)?.type === 'text')
    )
  })
  const at = (name: string) => partPath(path, name)
  const out: Finding[] = []
  if (drawing.order && !placed) out.push(unread(at('order'), ' where no position is one of categories'))
  if (drawing.top && !placed && !colored)
    out.push(
      unread(
        at('top'),
        ' where there are no categories',
        'Leave it out, or bind a position or color to a text column.',
      ),
    )
  return out
}

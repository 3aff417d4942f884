import { kind } from '../../describe/kind.ts'
import type { Marks, Positions } from '../../describe/model.ts'
import { remember } from '../../describe/remember.ts'
import type { PositionScale } from '../../scale/scale.ts'
import type { Rects } from '../../scene/scene.ts'
import { extentOfEnds } from '../extent-of-ends.ts'
import { isLying } from '../is-lying.ts'
import { alphaOf, paintOf } from '../paint-of.ts'
import { rememberedStack, stacked } from '../stack.ts'

const ROUND = { top: 1, right: 2, bottom: 3, left: 4 }
/** Narrower bars than this, in pixels, stand without a gap between them, or the gaps would flicker. */
const LEAST_GAPPED = 3
/** The room of a bar that stands alone, in pixels. */
const LONE = 96

/** Bars from the baseline along the measure: upright when y is measured, lying when x is. */
export const bar = kind({
  name: 'bar',
  looks: ['arrange'],
  styles: ['color', 'opacity', 'gap'],
  roles: { x: 'position', y: 'position', color: 'category', series: 'category' },
  swatch: 'rect',
  fromZero: true,
  broad: true,
  draw({ id, marks, x, y, style, arrange, density, memory }) {
    const upright = !isLying(marks)
    const along = upright ? y : x
    const across = upright ? x : y
    const values = upright ? marks.y : marks.x
    const places = upright ? marks.x : marks.y
    const count = marks.length
    const out = {
      x: new Float32Array(count),
      y: new Float32Array(count),
      width: new Float32Array(count),
      height: new Float32Array(count),
      round: new Uint8Array(count),
    }
    const zero = along.kind.allows(0) ? along.map(0) : along.range[0]
    const room = places.from ? undefined : leastRoom(places, across.map)
    // Bins touch, or nearly: they are slices of one span, not things side by side.
    const bins = places.from !== undefined && across.kind.name !== 'category' && across.kind.name !== 'time'
    const gap = style.gap ?? (bins ? 0.06 : 0.25)
    const stack =
      !values.spans && (arrange === 'stack' || arrange === 'share')
        ? rememberedStack(memory, marks, values, places, arrange === 'share')
        : undefined
    const side =
      stack || arrange === 'overlap' || standAlone(memory, marks, places)
        ? 1
        : Math.max(1, marks.series.length)
    const snap = (pixel: number) => Math.round(pixel * density) / density
    for (let i = 0; i < count; i++) {
      const value = values.at[i]
      const place = places.at[i]
      if (value !== value || place !== place || !along.kind.allows(value)) {
        out.x[i] = out.y[i] = Number.NaN
        continue
      }
      const a = room === undefined ? across.map(places.from![i]) : across.map(place) - room / 2
      const b = room === undefined ? across.map(places.to![i]) : across.map(place) + room / 2
      const low = Math.min(a, b)
      const whole = Math.abs(b - a)
      const open = whole * (whole * (1 - gap) < LEAST_GAPPED ? 0 : gap)
      const each = (whole - open) / side
      const start = low + open / 2 + (side === 1 ? 0 : (marks.seriesOf?.[i] ?? 0) * each)
      const edgeA = whole < 6 ? start : snap(start)
      const edgeB = whole < 6 ? start + each : snap(start + each)
      const breadth = Math.max(edgeB - edgeA - (side > 1 && each > 6 ? 1 : 0), Math.min(each, 0.5))
      const extent = values.spans && values.from && values.to
      const base = extent ? along.map(values.from![i]) : stack ? along.map(stack.from[i]) : zero
      const end = extent ? along.map(values.to![i]) : along.map(stack ? stack.to[i] : value)
      const from = Math.min(base, end)
      const length = Math.abs(end - base)
      if (upright) {
        out.x[i] = edgeA
        out.y[i] = from
        out.width[i] = breadth
        out.height[i] = length
        out.round[i] = extent || (stack && !stack.outer[i]) ? 0 : end <= base ? ROUND.top : ROUND.bottom
      } else {
        out.x[i] = from
        out.y[i] = edgeA
        out.width[i] = length
        out.height[i] = breadth
        out.round[i] = extent || (stack && !stack.outer[i]) ? 0 : end >= base ? ROUND.right : ROUND.left
      }
    }
    const rects: Rects = {
      kind: 'rects',
      id: `${id}/bar`,
      part: 'data',
      clip: true,
      keys: Array.from({ length: count }, (_, i) => marks.keyOf(i)),
      rows: marks.rowsOf,
      ...paintOf(marks, style),
      alpha: alphaOf(style.opacity ?? (arrange === 'overlap' && marks.series.length > 1 ? 0.6 : 1), count),
      along: { x: x.name, y: y.name },
      ...out,
      radius: 2,
      ...(stack ? { pileAlong: upright ? 'y' : 'x', toward: towards(values, along) } : {}),
    }
    return [rects]
  },
  extent(marks, measured, arrange) {
    const values = measured === 'y' ? marks.y : marks.x
    const places = measured === 'y' ? marks.x : marks.y
    if (values.spans && values.from && values.to) return extentOfEnds(values.from, values.to)
    let min = 0
    let max = 0
    const stack =
      arrange === 'stack' || arrange === 'share'
        ? stacked(marks, values, places, arrange === 'share')
        : undefined
    const ends = stack ? stack.to : values.at
    for (const value of ends) {
      if (value < min) min = value
      if (value > max) max = value
    }
    return [min, max]
  },
})

/** Which way each bar grows, in pixels. */
const towards = ({ at }: Positions, { factor }: PositionScale): Int8Array =>
  Int8Array.from(at, value => (value < 0 ? -1 : 1) * (factor < 0 ? -1 : 1))

/** Whether no two bars share a place: then each has all of its room, as when colour repeats the axis. */
function standAlone(memory: Map<string, unknown>, marks: Marks, places: Positions): boolean {
  return remember(memory, 'stand alone', () => {
    const present = places.at.filter(place => place === place)
    return marks.series.length > 1 && new Set(present).size === present.length
  })
}

/** Where marks stand at plain numbers, a bar's room is the least distance between two of them. */
function leastRoom(places: Positions, map: (value: number) => number): number {
  const distinct = [...new Set(places.at)].filter(value => value === value).sort((a, b) => a - b)
  let least = Number.POSITIVE_INFINITY
  for (let i = 1; i < distinct.length; i++)
    least = Math.min(least, Math.abs(map(distinct[i]) - map(distinct[i - 1])))
  return Number.isFinite(least) ? least : LONE
}

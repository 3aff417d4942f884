import { kind } from '../../describe/kind.ts'
import type { Positions } from '../../describe/model.ts'
import type { PositionScale } from '../../scale/scale.ts'
import type { Rects } from '../../scene/scene.ts'
import { extentOfEnds } from '../extent-of-ends.ts'
import { isLying } from '../is-lying.ts'
import { alphaOf, paintOf } from '../paint-of.ts'
import { leastRoom, roomAt, standAlone } from '../slots.ts'
import { rememberedStack, stacked } from '../stack.ts'

const ROUND = { top: 1, right: 2, bottom: 3, left: 4 }
/** Bars from the baseline along the measure: upright when y is measured, lying when x is. */
export const bar = kind({
  name: 'bar',
  looks: ['arrange'],
  styles: ['color', 'opacity', 'gap'],
  roles: { x: 'position', y: 'position', color: 'category', series: 'category' },
  swatch: 'rect',
  fromZero: true,
  broad: true,
  draw({ id, marks, x, y, style, arrange, slots, density, memory }) {
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
    const least = leastRoom(places, across.map)
    // Bins touch, or nearly: they are slices of one span, not things side by side.
    const bins = places.from !== undefined && across.kind.name !== 'category' && across.kind.name !== 'time'
    const gap = style.gap ?? slots?.gap ?? (bins ? 0.06 : 0.25)
    const stack =
      !values.spans && (arrange === 'stack' || arrange === 'share')
        ? rememberedStack(memory, marks, values, places, arrange === 'share')
        : undefined
    const beside = slots ?? (!stack && arrange !== 'overlap' && !standAlone(memory, marks, places))
    const side = slots ? slots.count : beside ? Math.max(1, marks.series.length) : 1
    const slotOf = (series: number) => (slots ? slots.of[series] : beside ? series : 0)
    const snap = (pixel: number) => Math.round(pixel * density) / density
    for (let i = 0; i < count; i++) {
      const value = values.at[i]
      const place = places.at[i]
      if (value !== value || place !== place || !along.kind.allows(value)) {
        out.x[i] = out.y[i] = Number.NaN
        continue
      }
      const { low, whole, open } = roomAt(places, i, across.map, gap, least)
      const each = (whole - open) / side
      const start = low + open / 2 + slotOf(marks.seriesOf?.[i] ?? 0) * each
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
    for (let i = 0; i < ends.length; i++) {
      // A bar without a place is not drawn.
      if (!places.unbound && Number.isNaN(places.at[i])) continue
      if (ends[i] < min) min = ends[i]
      if (ends[i] > max) max = ends[i]
    }
    return [min, max]
  },
})

/** Which way each bar grows, in pixels. */
const towards = ({ at }: Positions, { factor }: PositionScale): Int8Array =>
  Int8Array.from(at, value => (value < 0 ? -1 : 1) * (factor < 0 ? -1 : 1))

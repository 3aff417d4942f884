import { kind } from '../../describe/kind.ts'
import type { Marks } from '../../describe/model.ts'
import { MARKERS } from '../../scene/marker.ts'
import type { Discs } from '../../scene/scene.ts'
import { paintOf } from '../paint-of.ts'
import { moveToSlots } from '../slots.ts'
import { CROWD, densityOf } from './density.ts'
import { nearestByIndex } from './nearest.ts'

const RADIUS = 3.5
/** Points are solid as long as they cover no more than this share of the plot. */
const SOLID_COVER = 0.04

/** Discs of different sizes lie over each other; what is under one must show. */
const SIZED = 0.75

/** A disc for each mark; the more there are, the fainter and smaller each, so that overlap shows as density. */
export const scatter = kind({
  name: 'scatter',
  looks: ['arrange'],
  styles: ['color', 'opacity', 'size'],
  roles: {
    x: 'position',
    y: 'position',
    color: 'category',
    series: 'category',
    shape: 'category',
    size: 'number',
  },
  gathers: 'places',
  swatch: 'disc',
  reads: 'point',
  scattered: true,
  arrange: 'overlap',
  arranges: ['side', 'overlap'],
  crowd: densityOf,
  nearest: nearestByIndex,
  draw({ id, marks, x, y, plot, style, theme, largest, density, slots, memory }) {
    const count = marks.length
    if (
      (count > CROWD || marks.crowd) &&
      !slots &&
      !marks.size &&
      !formsOf(marks) &&
      style.size === undefined
    )
      return [densityOf(`${id}/density`, marks, paintOf(marks, style), x, y, plot, density, memory)]
    const px = new Float32Array(count)
    const py = new Float32Array(count)
    for (let i = 0; i < count; i++) {
      const xValue = marks.x.at[i]
      const yValue = marks.y.at[i]
      px[i] = x.kind.allows(xValue) ? x.map(xValue) : Number.NaN
      py[i] = y.kind.allows(yValue) ? y.map(yValue) : Number.NaN
    }
    if (slots) moveToSlots(slots, marks, { x, y }, { x: px, y: py })
    const cover = (count * Math.PI * RADIUS ** 2) / Math.max(1, plot.width * plot.height)
    const crowded = cover > SOLID_COVER
    const radius = style.size ?? (crowded ? Math.max(1.5, RADIUS * (SOLID_COVER / cover) ** 0.25) : RADIUS)
    const alpha =
      style.opacity ??
      (marks.size ? SIZED : crowded ? Math.max(0.12, Math.min(1, (SOLID_COVER / cover) ** 0.35)) : 1)
    const discs: Discs = {
      kind: 'discs',
      id: `${id}/scatter`,
      part: 'data',
      clip: true,
      keys: keysOf(count, marks.keyOf),
      rows: marks.rowsOf,
      ...paintOf(marks, style),
      alpha: alpha === 1 ? undefined : new Float32Array(count).fill(alpha),
      along: { x: x.name, y: y.name },
      x: px,
      y: py,
      radius: marks.size ? sized(marks.size, largest) : new Float32Array(count).fill(radius),
      form: formsOf(marks),
      ring: crowded ? undefined : { color: theme.background, width: 1.5 },
    }
    return [marks.size ? largestFirst(discs) : discs]
  },
})

/** Radii whose areas are in proportion to the values. */
function sized({ at, max }: { at: Float64Array; max: number }, largest: number): Float32Array {
  return Float32Array.from(at, value => (value > 0 && max > 0 ? largest * Math.sqrt(value / max) : 0))
}

/** Small discs lie on large ones, so that none is hidden. */
function largestFirst(discs: Discs): Discs {
  const order = Array.from(discs.radius, (_, i) => i).sort((a, b) => discs.radius[b] - discs.radius[a])
  const pick = <A extends Float32Array | Uint16Array | Uint8Array>(array: A): A =>
    array.map((_, i) => array[order[i]]) as A
  const { rows, keys, alpha, form } = discs
  return {
    ...discs,
    keys: order.map(i => keys[i]),
    rows: rows && (i => rows(order[i])),
    x: pick(discs.x),
    y: pick(discs.y),
    radius: pick(discs.radius),
    color: pick(discs.color),
    alpha: alpha && pick(alpha),
    form: form && pick(form),
  }
}

/** The form of each point, where series differ in it. */
function formsOf({ series, seriesOf, length }: Marks): Uint8Array | undefined {
  if (!series.some(series => series.shape !== undefined && series.shape !== 'disc')) return undefined
  const forms = series.map(series => Math.max(0, MARKERS.indexOf(series.shape ?? 'disc')))
  return seriesOf ? Uint8Array.from(seriesOf, s => forms[s]) : new Uint8Array(length).fill(forms[0])
}

function keysOf(count: number, keyOf: (mark: number) => string | number): ArrayLike<string | number> {
  const first = count > 0 ? keyOf(0) : 0
  return typeof first === 'number'
    ? Float64Array.from({ length: count }, (_, i) => keyOf(i) as number)
    : Array.from({ length: count }, (_, i) => keyOf(i))
}

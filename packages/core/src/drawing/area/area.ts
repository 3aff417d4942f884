import { kind } from '../../describe/kind.ts'
import type { Between, MarkStyle, Marks } from '../../describe/model.ts'
import { remember } from '../../describe/remember.ts'
import type { Areas, Lines } from '../../scene/scene.ts'
import { isTranslucent } from '../../theme/contrast.ts'
import { extentOfEnds } from '../extent-of-ends.ts'
import { lonePoints } from '../lone-points.ts'
import { alphaOf, hatchedOf } from '../paint-of.ts'
import { rememberedStack, type Stack, stacked } from '../stack.ts'
import { piled, type Vertex } from './pile.ts'
import { type Piling, steppedBands } from './steps.ts'

/** Bands between a value and what it stands on: zero, or the series before it. */
export const area = kind({
  name: 'area',
  looks: ['arrange', 'between'],
  styles: ['color', 'opacity', 'width'],
  roles: { x: 'position', y: 'position', color: 'category', series: 'category' },
  swatch: 'rect',
  arrange: 'stack',
  fromZero: true,
  draw({ id, marks, x, y, style, arrange, between, memory }) {
    const stacks = !marks.y.spans && (arrange === 'stack' || arrange === 'share')
    const zero = y.kind.allows(0) ? 0 : Math.min(...y.domain)
    const steps = between.startsWith('hold') && !marks.y.spans
    const bands = steps
      ? rememberedSteps(memory, marks, between, { stacks, share: arrange === 'share', zero })
      : ((stacks ? rememberedPile(memory, marks, arrange === 'share') : undefined) ??
        bandsOf(
          marks,
          stacks ? rememberedStack(memory, marks, marks.y, marks.x, arrange === 'share') : undefined,
          zero,
        ))
    const starts = new Uint32Array(bands.length + 1)
    bands.forEach((band, i) => {
      starts[i + 1] = starts[i] + band.length
    })
    const all = bands.flat()
    const place = (value: number) => (y.kind.allows(value) ? y.map(value) : Number.NaN)
    const atX = Float64Array.from(all, vertex => vertex.x)
    const atTop = Float64Array.from(all, vertex => vertex.top)
    const atBase = Float64Array.from(all, vertex => vertex.base)
    const areas: Areas = {
      kind: 'areas',
      id: `${id}/area`,
      part: 'data',
      clip: true,
      names: marks.series.map(series => series.key),
      keys: all.map(vertex => (vertex.mark < 0 ? '' : marks.keyOf(vertex.mark))),
      rows: i => (all[i].mark < 0 ? [] : marks.rowsOf(all[i].mark)),
      colors: marks.series.map(series => style.color ?? series.color),
      hatched: hatchedOf(marks, style),
      color: Uint16Array.from(marks.series, (_, i) => i),
      alpha: alphaOf(opacityOf(marks, style, stacks), bands.length),
      along: { x: x.name, y: y.name },
      starts,
      x: Float32Array.from(atX, x.map),
      top: Float32Array.from(atTop, place),
      base: Float32Array.from(atBase, place),
      atX,
      atTop,
      atBase,
      smooth: between === 'smooth',
      piled: stacks,
    }
    // An extent is read by its two edges alike, and needs no stronger one.
    if (marks.y.spans) return [areas]
    // What is faint needs an edge to be read by; what stands on each other shows its edges.
    const edge = edgeOf(areas, style.width ?? 2)
    // A value between gaps has no band, and would else not be seen at all.
    const lone = lonePoints(edge)
    const edged = style.width !== undefined || !stacks || marks.series.length === 1
    return edged ? [areas, edge, ...lone] : [areas, ...lone]
  },
  extent(marks, _measured, arrange, { between }) {
    if (marks.y.spans && marks.y.from && marks.y.to) return extentOfEnds(marks.y.from, marks.y.to)
    const stacks = arrange === 'stack' || arrange === 'share'
    const pile = !stacks
      ? undefined
      : between.startsWith('hold')
        ? steppedBands(marks, between, { stacks, share: arrange === 'share', zero: 0 })
        : piled(marks, arrange === 'share')
    const ends = pile
      ? pile.flat().map(({ top }) => top)
      : stacks
        ? stacked(marks, marks.y, marks.x, arrange === 'share').to
        : marks.y.at.filter((_, i) => !Number.isNaN(marks.x.at[i]))
    let min = 0
    let max = 0
    for (const value of ends) {
      if (value < min) min = value
      if (value > max) max = value
    }
    return [min, max]
  },
})

/** How faint areas are, unless that is told or their colour says it. */
function opacityOf({ series }: Marks, { opacity, color }: MarkStyle, stacks: boolean): number {
  if (opacity !== undefined) return opacity
  if (isTranslucent(color ?? series[0]?.color ?? '')) return 1
  return stacks && series.length > 1 ? 0.9 : 0.28
}

/** The bands that hold their values, worked out once for all frames in which the marks stay the same. */
function rememberedSteps(
  memory: Map<string, unknown>,
  marks: Marks,
  between: Between,
  piling: Piling,
): readonly Vertex[][] {
  const name = `steps ${between} ${piling.stacks} ${piling.share} ${piling.zero}`
  return remember(memory, name, () => steppedBands(marks, between, piling))
}

/** The bands of series whose places differ, worked out once for all frames in which the marks stay the same. */
function rememberedPile(
  memory: Map<string, unknown>,
  marks: Marks,
  share: boolean,
): readonly Vertex[][] | undefined {
  return remember(memory, share ? 'pile of shares' : 'pile', () => piled(marks, share))
}

/** The vertices of each series, in the order of x, from what it stands on to its values. */
function bandsOf(marks: Marks, stack: Stack | undefined, zero: number): Vertex[][] {
  const bands = marks.series.map((): Vertex[] => [])
  const extent = marks.y.spans && marks.y.from && marks.y.to
  for (let mark = 0; mark < marks.length; mark++) {
    if (Number.isNaN(marks.x.at[mark])) continue
    const value = marks.y.at[mark]
    const missing = Number.isNaN(value)
    bands[marks.seriesOf?.[mark] ?? 0].push({
      x: marks.x.at[mark],
      mark,
      top: missing ? Number.NaN : extent ? marks.y.to![mark] : stack ? stack.to[mark] : value,
      base: missing ? Number.NaN : extent ? marks.y.from![mark] : stack ? stack.from[mark] : zero,
    })
  }
  for (const band of bands) band.sort((a, b) => a.x - b.x)
  return bands
}

function edgeOf(areas: Areas, width: number): Lines {
  const { names, keys, starts, x, top, atX, atTop, colors, color, along, smooth } = areas
  return {
    kind: 'lines',
    id: `${areas.id}/edge`,
    part: 'data',
    clip: true,
    names,
    keys,
    colors,
    color,
    along,
    starts,
    x,
    y: top,
    atX,
    atY: atTop,
    width: new Float32Array(names.length).fill(width),
    dash: names.map(() => []),
    smooth,
  }
}

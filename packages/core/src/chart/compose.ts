import { type AxisInput, type AxisLayout, layoutAxis } from '../guide/axis.ts'
import { gridShapes, labelShapes, zeroShapes } from '../guide/axis-shapes.ts'
import { TextBuilder } from '../guide/build.ts'
import { footing, heading } from '../guide/heading.ts'
import { legend } from '../guide/legend.ts'
import { clean, ellipsis, LINE, wrap } from '../guide/text.ts'
import type { PositionScale } from '../scale/scale.ts'
import { spanLength, stepOfSpan } from '../scale/time-ticks.ts'
import type { Batch, Box, Scene } from '../scene/scene.ts'
import { numberOf } from '../table/where.ts'
import type { Measure } from '../theme/measure.ts'
import type { Theme } from '../theme/theme.ts'
import type { Bound, ScaleInput } from './bind.ts'
import type { Axis, Description } from './description.ts'
import type { Domain } from './domain.ts'
import type { Frame, State } from './frame.ts'
import { labelOf, lookOf, measureTitle } from './naming.ts'

/** A scene with what it was made from, for reading values back. */
export interface Composition {
  scene: Scene
  bound: Bound
  scales: ReadonlyMap<string, PositionScale>
  theme: Theme
  locale: string
}

export interface ComposeInput {
  description: Description
  bound: Bound
  domains: ReadonlyMap<string, Domain>
  frame: Frame
  theme: Theme
  measure: Measure
  /** The chart in words. */
  words: { title: string; description: string }
  zoom: State['zoom']
}

/** Below this width, in pixels, room goes to the shapes. */
const NARROW = 400
const TINY = 200

/** Lays a chart out in its frame and draws it: headings, legend, axes, shapes. */
export function composeScene(input: ComposeInput): Composition {
  const { description, bound, frame, theme, measure } = input
  const locale = frame.locale ?? 'en'
  const width = Math.max(1, frame.width)
  const height = Math.max(1, frame.height)
  const tiny = width < TINY || height < 120
  const margin = tiny ? 6 : width < NARROW ? 12 : 16
  const inner = Math.max(1, width - margin * 2)
  const batches: Batch[] = []
  let top = margin

  const axes = new Map<
    string,
    { input: AxisInput; option: Exclude<Axis, false>; hidden: boolean; title: string; source: ScaleInput }
  >()
  let rightTaken = false
  for (const source of bound.scales.values()) {
    const domain = input.domains.get(source.name)!
    const option = description.axes?.[source.name]
    const side = source.role === 'x' ? 'bottom' : source.name === 'y' || rightTaken ? 'left' : 'right'
    if (side === 'right') rightTaken = true
    axes.set(source.name, axisInput(source, domain, option, side, input.zoom, locale, inner * 0.36))
  }

  const font = { size: theme.sizes.text, weight: 400 } as const
  const verticals = [...axes.values()].filter(axis => axis.source.role === 'y')
  const horizontals = [...axes.values()].filter(axis => axis.source.role === 'x')
  const titled = verticals.filter(axis => axis.title !== '')
  const xTitled = horizontals.find(axis => !axis.hidden && axis.title !== '')?.title ?? ''

  // Words give way to the shapes where there is too little room for both, the least important first.
  const wants = tiny
    ? { title: false, subtitle: false, legend: false, foot: false, titles: false, xTitle: false }
    : { title: true, subtitle: true, legend: true, foot: true, titles: true, xTitle: true }
  const footOf = () =>
    footing(
      { caption: description.caption, source: description.source },
      margin,
      height - margin + 4,
      inner,
      theme,
      measure,
    )
  const headOf = () =>
    heading(
      {
        title: wants.title ? description.title : undefined,
        subtitle: wants.subtitle ? description.subtitle : undefined,
      },
      margin,
      margin,
      inner,
      theme,
      measure,
    )
  const legendOf = (y: number) =>
    legend(
      bound.legend,
      typeof description.legend === 'object' ? description.legend.title : undefined,
      margin,
      y,
      inner,
      theme,
      measure,
    )
  const showLegend = description.legend !== false && needsLegend(bound)
  const titleHeight = font.size * LINE + 12
  const heightOf = () => {
    const head = headOf().height
    return (
      (head > 0 ? head + 8 : 0) +
      (wants.legend && showLegend ? legendOf(0).height + 6 : 0) +
      (wants.foot ? footOf().height + 6 : 0) +
      (wants.titles && titled.length > 0 ? titleHeight : 6) +
      (wants.xTitle && xTitled ? font.size * LINE + 4 : 0)
    )
  }
  const least = Math.min(180, height * 0.5)
  for (const part of ['foot', 'legend', 'subtitle', 'xTitle', 'titles', 'title'] as const) {
    if (height - margin * 2 - heightOf() >= least) break
    wants[part] = false
  }

  const head = headOf()
  batches.push(...head.batches)
  if (head.height > 0) top += head.height + 8
  if (wants.legend && showLegend) {
    const block = legendOf(top)
    batches.push(...block.batches)
    top += block.height + 6
  }
  const foot = wants.foot ? footOf() : { height: 0, batches: [] }
  const bottom = height - margin - (foot.height > 0 ? foot.height + 6 : 0)
  if (wants.titles && titled.length > 0) {
    const builder = {
      start: new TextBuilder('axis titles', { ...font, anchor: 'start' }),
      end: new TextBuilder('axis titles right', { ...font, anchor: 'end' }),
    }
    const share = titled.length > 1 ? inner / 2 - 8 : inner
    for (const axis of titled) {
      const right = axis.input.side === 'right'
      builder[right ? 'end' : 'start'].add(
        ellipsis(axis.title, share, font, measure),
        right ? width - margin : margin,
        top + font.size,
        theme.muted,
        axis.input.name,
      )
    }
    batches.push(...builder.start.build(), ...builder.end.build())
    top += titleHeight
  } else top += tiny ? 2 : 6

  const plot: Box = { x: margin, y: top, width: inner, height: Math.max(10, bottom - top - 22) }
  let layouts = new Map<string, AxisLayout>()
  const xTitle = wants.xTitle ? xTitled : ''
  const xTitleHeight = xTitle ? font.size * LINE + 4 : 0
  // Heights decide vertical ticks, their labels the width, the width the horizontal ticks, and those the height again.
  for (let round = 0; round < 2; round++) {
    layouts = new Map()
    let left = 0
    let right = 0
    for (const axis of verticals) {
      const layout = layoutAxis(axis.input, [plot.y + plot.height, plot.y], font, measure)
      layouts.set(axis.input.name, layout)
      if (axis.hidden || tiny) continue
      if (axis.input.side === 'right') right = Math.max(right, layout.thickness)
      else left = Math.max(left, layout.thickness)
    }
    // Where the chart is squeezed, labels may take up to two fifths of its width.
    plot.x = margin + Math.min(left, inner * 0.4)
    let end = width - margin - right
    for (let pass = 0; pass < 2; pass++) {
      plot.width = Math.max(10, end - plot.x)
      for (const axis of horizontals) {
        const layout = layoutAxis(axis.input, [plot.x, plot.x + plot.width], font, measure)
        layouts.set(axis.input.name, layout)
        if (axis.hidden || tiny || pass > 0) continue
        const reach = overhang(layout, font, measure)
        const over = reach.right - (width - margin)
        if (over > 0 && right < over) end -= Math.min(over, inner * 0.2)
        if (reach.left < 4) plot.x += Math.min(4 - reach.left, inner * 0.2)
      }
    }
    const below = Math.max(
      0,
      ...horizontals.map(axis =>
        axis.hidden || tiny ? 0 : (layouts.get(axis.input.name)?.thickness ?? 0) + 4,
      ),
    )
    plot.height = Math.max(10, bottom - plot.y - Math.min(below + xTitleHeight, (bottom - plot.y) * 0.6))
  }
  // The last word on vertical axes: the height is known now.
  for (const axis of verticals)
    layouts.set(axis.input.name, layoutAxis(axis.input, [plot.y + plot.height, plot.y], font, measure))

  // Ticks of an axis without values would be numbers out of thin air.
  const empty = bound.drawings.every(one => one.marks.length === 0)
  const guides: Batch[] = []
  const zeros: Batch[] = []
  const scales = new Map<string, PositionScale>()
  for (const [name, axis] of axes) {
    const layout = layouts.get(name)!
    scales.set(name, layout.scale)
    if (axis.hidden || empty) continue
    const { side } = axis.input
    if (axis.option.grid ?? wantsGrid(axis.source, axis.input, bound))
      batches.push(...gridShapes(layout, side, plot, theme))
    const zero = zeroShapes(layout, side, plot, theme)
    // Bars stand on the line at zero; other shapes cross it.
    if (axis.source.role === 'y' || growsAlong(axis.source)) zeros.push(...zero)
    if (!tiny) guides.push(...labelShapes(layout, side, plot, theme))
  }
  const barsOnly = bound.drawings.every(one => one.drawing.kind.fromZero)
  if (!barsOnly) batches.push(...zeros)
  for (const one of bound.drawings) {
    batches.push(
      ...one.drawing.kind.draw({
        id: `drawing ${one.drawing.index}`,
        marks: one.marks,
        x: scales.get(one.xScale)!,
        y: scales.get(one.yScale)!,
        plot,
        density: frame.density ?? 1,
        style: one.drawing.style,
        arrange: one.drawing.arrange,
        theme,
        options: one.drawing.options,
        memory: one.memory,
      }),
    )
  }
  if (barsOnly) batches.push(...zeros)
  batches.push(...guides)
  if (xTitle) {
    const builder = new TextBuilder('axis title x', { ...font, anchor: 'end' })
    const thickness = Math.max(0, ...horizontals.map(axis => layouts.get(axis.input.name)?.thickness ?? 0))
    builder.add(
      ellipsis(xTitle, plot.width, font, measure),
      plot.x + plot.width,
      plot.y + plot.height + thickness + font.size * LINE + 3,
      theme.muted,
      'x',
    )
    batches.push(...builder.build())
  }
  if (!tiny && empty) batches.push(...nothing(bound, plot, theme, measure))
  batches.push(...foot.batches)

  const scene: Scene = {
    width,
    height,
    background: frame.background === false ? undefined : theme.background,
    font: theme.font,
    plot,
    batches,
    ...input.words,
    scales,
  }
  return { scene, bound, scales, theme, locale }
}

/** A legend would repeat the axis when each series stands at its own category. */
function needsLegend(bound: Bound): boolean {
  if (bound.legend.length < 2) return false
  return !bound.drawings.every(one => {
    const color = one.drawing.roles.get('color') ?? one.drawing.roles.get('series')
    if (!color) return false
    return ['x', 'y'].some(role => JSON.stringify(one.drawing.roles.get(role)) === JSON.stringify(color))
  })
}

function axisInput(
  source: ScaleInput,
  domain: Domain,
  option: Axis | undefined,
  side: AxisInput['side'],
  zoom: State['zoom'],
  locale: string,
  labelRoom: number,
) {
  const first = source.uses[0]
  const { values, bound } = first
  const options = option === false || option === undefined ? {} : option
  const look = lookOf(values)
  const zoomed = zoom?.[source.name]
  const meaning = values.meaning
  const bucket =
    meaning.is === 'bucket'
      ? meaning.unit
      : meaning.is === 'column' && values.column?.reader.dateOnly
        ? 'day'
        : undefined
  const input: AxisInput = {
    name: source.name,
    side,
    kind: domain.kind,
    min: zoomed ? Math.min(...zoomed) : domain.min,
    max: zoomed ? Math.max(...zoomed) : domain.max,
    round: zoomed ? { min: false, max: false } : domain.round,
    reverse: domain.reverse !== (source.role === 'y' && domain.kind.name === 'category'),
    words: domain.words,
    zone: domain.zone,
    look: { ...look, format: options.format ?? look.format, locale },
    unit: bucket,
    cycle: meaning.is === 'cycle' ? meaning.cycle : undefined,
    labelRoom,
    timeFormat:
      domain.kind.name === 'time' && typeof (options.format ?? look.format) === 'object'
        ? ((options.format ?? look.format) as Intl.DateTimeFormatOptions)
        : undefined,
  }
  const { ticks } = options
  if (typeof ticks === 'number') input.wish = ticks
  else if (Array.isArray(ticks)) {
    const type = domain.kind.name === 'time' ? 'time' : 'number'
    input.wish = ticks.map((value, i) =>
      domain.kind.name === 'category'
        ? domain.words.indexOf(String(value))
        : numberOf(value, type, domain.zone, `axes.${source.name}.ticks[${i}]`),
    )
  } else if (ticks) {
    const step = typeof ticks.every === 'number' ? ticks.every : stepOfSpan(ticks.every)
    if (
      step !== undefined &&
      (typeof step === 'number' ? step > 0 : spanLength({ [`${step.unit}s`]: step.count }) > 0)
    )
      input.wish = { every: step }
  }
  const other = source.role === 'y' ? bound.x : bound.y
  const untitled = options.title === false || domain.kind.name === 'time' || domain.kind.name === 'category'
  const named =
    source.uses.length === 1 ||
    source.uses.every(
      use =>
        use.values.meaning.is === meaning.is &&
        labelOf(use.values.meaning, use.bound.drawing.table) === labelOf(meaning, bound.drawing.table),
    )
  const auto = untitled || !named ? '' : measureTitle(values, other, bound.drawing.table)
  const title = typeof options.title === 'string' ? options.title : auto
  return { input, option: options, hidden: option === false, title: clean(title), source }
}

/** How far labels reach beyond the plot's ends, in pixels of the chart. */
function overhang(
  layout: AxisLayout,
  font: { size: number; weight: 400 },
  measure: Measure,
): { left: number; right: number } {
  let left = Number.POSITIVE_INFINITY
  let right = 0
  layout.ticks.forEach((_, i) => {
    const pixel = layout.scale.map(layout.labelAt[i])
    for (const text of layout.labels[i]) {
      const width = measure(text, font)
      if (layout.turn !== 0) left = Math.min(left, pixel - width * Math.cos((layout.turn * Math.PI) / 180))
      else {
        left = Math.min(left, pixel - width / 2)
        right = Math.max(right, pixel + width / 2)
      }
    }
    if (layout.larger[i]) {
      const width = measure(layout.larger[i], { ...font, weight: 600 })
      left = Math.min(left, pixel - width / 2)
      right = Math.max(right, pixel + width / 2)
    }
  })
  return { left, right }
}

function wantsGrid(source: ScaleInput, input: AxisInput, bound: Bound): boolean {
  if (input.kind.name === 'category') return false
  if (source.role === 'y') return input.side !== 'right'
  // Points are read in both directions, lying bars along x; a time axis needs no lines.
  return bound.drawings.some(one => one.drawing.kind.swatch === 'disc') || growsAlong(source)
}

function growsAlong(source: ScaleInput): boolean {
  return source.uses.some(use => use.bound.drawing.kind.fromZero && use.positions.measured)
}

function nothing(bound: Bound, plot: Box, theme: Theme, measure: Measure): Batch[] {
  const text = bound.findings.find(finding => finding.code === 'no-rows')?.message ?? 'Nothing to show'
  const font = { size: theme.sizes.subtitle, weight: 400 } as const
  const builder = new TextBuilder('nothing', { ...font, anchor: 'middle' })
  wrap(text, plot.width - 20, font, measure, 3).forEach((line, i, lines) => {
    builder.add(
      line,
      plot.x + plot.width / 2,
      plot.y + plot.height / 2 + (i - (lines.length - 1) / 2) * font.size * LINE,
      theme.muted,
      i,
    )
  })
  return builder.build()
}

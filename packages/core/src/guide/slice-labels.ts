import type { Batch, Box, Wedges } from '../scene/scene.ts'
import { inkOn } from '../theme/contrast.ts'
import type { Font, Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import { boxes, segments, TextBuilder } from './build.ts'
import { spreadOut } from './end-names.ts'
import { clean, ellipsis, MIDDLE } from './text.ts'

/** What stands at a slice: its name, and its share or value. */
export interface SliceWords {
  name: string
  value: string
}

/** From one label to the next on a side: the words, and the run of colour under the name. */
const STEP = 22
const RUN = { width: 20, height: 3 }
/** Pixels from the rim to the labels. */
const AWAY = 20
/** Least width of a plot that has names beside the slices, in pixels. */
const WIDE = 320
/** A name cut shorter than this says nothing, in pixels. */
const LEAST_NAME = 36
/** More names than these on both sides would be a list without a picture. */
const MOST = 24
/** The least radius beside names, as a share of the shorter side. */
const LEAST_RADIUS = 0.24
/** The largest share of the width that names on one side take. */
const SIDE = 0.34

/** Where the words of slices stand, and the pixels they need around the shapes. */
export interface SlicePlan {
  beside: boolean
  room: { x: number; y: number }
}

/** Decides whether names stand beside the slices, or only shares within them. */
export function planSlices(
  words: readonly SliceWords[],
  width: number,
  height: number,
  theme: Theme,
  measure: Measure,
): SlicePlan {
  const font: Font = { size: theme.sizes.text, weight: 400 }
  if (width < WIDE || words.length > MOST || words.length === 0)
    return { beside: false, room: { x: 2, y: 2 } }
  const widest = Math.max(...words.map(slice => fullWidth(slice, font, measure)))
  const values = Math.max(...words.map(slice => measure(slice.value, font) + 8))
  if (width * SIDE - AWAY < values + LEAST_NAME) return { beside: false, room: { x: 2, y: 2 } }
  const room = Math.min(widest + AWAY + 8, width * SIDE)
  // Where names would leave a small pie in a large picture, a list of them is better.
  if (width / 2 - room < Math.min(width, height) * LEAST_RADIUS)
    return { beside: false, room: { x: 2, y: 2 } }
  return { beside: true, room: { x: room, y: 10 } }
}

const fullWidth = ({ name, value }: SliceWords, font: Font, measure: Measure) =>
  measure(clean(name), font) + (value ? measure(value, font) + 8 : 0)

/** Labels of the slices of one pie: beside them, with leaders where moved, or within those that have room. `inside`: names beside and values within. */
export function sliceLabels(
  id: string,
  batch: Wedges,
  words: readonly SliceWords[],
  plan: SlicePlan,
  plot: Box,
  theme: Theme,
  measure: Measure,
  inside = false,
): Batch[] {
  if (!plan.beside) return withinSlices(id, batch, words, theme, measure)
  if (!inside) return besideSlices(id, batch, words, plot, theme, measure)
  // What has no room within its slice stands beside it.
  const within = withinSlices(id, batch, words, theme, measure)
  const shown = new Set(within.flatMap(({ keys }) => Array.from(keys)))
  const others = words.map((word, i) => (shown.has(batch.keys[i]) ? { ...word, value: '' } : word))
  return [...besideSlices(id, batch, others, plot, theme, measure), ...within]
}

interface Side {
  right: boolean
  /** Shapes, from the top. */
  slices: { shape: number; x: number; y: number }[]
}

function besideSlices(
  id: string,
  batch: Wedges,
  words: readonly SliceWords[],
  plot: Box,
  theme: Theme,
  measure: Measure,
): Batch[] {
  const font: Font = { size: theme.sizes.text, weight: 400 }
  const [cx, cy, radius] = [batch.x[0], batch.y[0], batch.outer[0]]
  const sides: Side[] = [true, false].map(right => ({ right, slices: [] }))
  for (let shape = 0; shape < batch.x.length; shape++) {
    const angle = (batch.from[shape] + batch.to[shape]) / 2
    const side = sides[angle <= Math.PI ? 0 : 1]
    side.slices.push({ shape, x: cx + Math.sin(angle) * radius, y: cy - Math.cos(angle) * radius })
  }
  const names = {
    start: new TextBuilder(`${id}/names start`, { ...font, anchor: 'start' }),
    end: new TextBuilder(`${id}/names end`, { ...font, anchor: 'end' }),
  }
  const values = {
    start: new TextBuilder(`${id}/shares start`, { ...font, anchor: 'start' }),
    end: new TextBuilder(`${id}/shares end`, { ...font, anchor: 'end' }),
  }
  const runs: Parameters<typeof boxes>[1] = []
  const leaders: Parameters<typeof segments>[1] = []
  for (const { right, slices } of sides) {
    // What has no room is left to the tooltip: the smallest slices first.
    const most = Math.max(1, Math.floor((plot.height + 4) / STEP))
    const size = (shape: number) => batch.to[shape] - batch.from[shape]
    const kept = new Set([...slices].sort((a, b) => size(b.shape) - size(a.shape)).slice(0, most))
    const shown = slices.filter(slice => kept.has(slice)).sort((a, b) => a.y - b.y)
    const places = spreadOut(
      shown.map(slice => slice.y),
      STEP,
      plot.y + font.size * 0.5,
      plot.y + plot.height - font.size,
    )
    const edge = cx + (right ? 1 : -1) * (radius + AWAY)
    const room = right ? plot.x + plot.width - edge : edge - plot.x
    shown.forEach(({ shape, x, y }, i) => {
      const { name, value } = words[shape]
      const valueWidth = value ? measure(value, font) + 8 : 0
      const text = ellipsis(clean(name), Math.max(20, room - valueWidth), font, measure)
      const width = measure(text, font)
      const baseline = places[i] + font.size * MIDDLE
      const key = batch.keys[shape]
      const anchor = right ? 'start' : 'end'
      // Read from left to right on both sides: the name, then its value.
      const nameAt = right ? edge : edge - valueWidth
      names[anchor].add(text, nameAt, baseline, theme.text, key)
      if (value) values[anchor].add(value, right ? edge + width + 8 : edge, baseline, theme.muted, key)
      runs.push({
        x: right ? edge : nameAt - width,
        y: baseline + 4,
        ...RUN,
        color: batch.colors[batch.color[shape]],
        key,
      })
      const turn = right ? -1 : 1
      leaders.push({
        x1: x + Math.sign(x - cx) * 2,
        y1: y,
        x2: edge + turn * 5,
        y2: places[i],
        key,
      })
    })
  }
  return [
    ...segments(`${id}/leaders`, leaders, { color: theme.strong, width: 1 }),
    ...boxes(`${id}/runs`, runs),
    ...names.start.build(),
    ...names.end.build(),
    ...values.start.build(),
    ...values.end.build(),
  ]
}

function withinSlices(
  id: string,
  batch: Wedges,
  words: readonly SliceWords[],
  theme: Theme,
  measure: Measure,
): Batch[] {
  const font: Font = { size: theme.sizes.caption, weight: 600 }
  const builder = new TextBuilder(`${id}/shares`, { ...font, anchor: 'middle' })
  for (let shape = 0; shape < batch.x.length; shape++) {
    const { value } = words[shape]
    const angle = (batch.from[shape] + batch.to[shape]) / 2
    const open = batch.to[shape] - batch.from[shape]
    const reach =
      batch.inner[shape] > 0 ? (batch.inner[shape] + batch.outer[shape]) / 2 : batch.outer[shape] * 0.66
    const width = measure(value, font)
    const wide = open >= Math.PI ? batch.outer[shape] : 2 * reach * Math.sin(open / 2)
    const thick = batch.outer[shape] - batch.inner[shape]
    const ink = inkOn(batch.colors[batch.color[shape]], theme)
    if (!value || !ink || wide < Math.hypot(width, font.size) + 4 || thick < width + 6) continue
    builder.add(
      value,
      batch.x[shape] + Math.sin(angle) * reach,
      batch.y[shape] - Math.cos(angle) * reach + font.size * MIDDLE,
      ink,
      batch.keys[shape],
    )
  }
  return builder.build()
}

/** The whole in the middle of a ring. */
export function ringCentre(
  id: string,
  batch: Wedges,
  words: { value: string; title: string },
  theme: Theme,
  measure: Measure,
): Batch[] {
  const inner = batch.inner[0] ?? 0
  const big: Font = { size: Math.min(theme.sizes.title + 4, inner * 0.42), weight: 600 }
  const small: Font = { size: theme.sizes.caption, weight: 400 }
  const room = inner * 2 - 16
  if (inner < 30 || measure(words.value, big) > room) return []
  const value = new TextBuilder(`${id}/whole`, { ...big, anchor: 'middle' })
  const title = new TextBuilder(`${id}/whole title`, { ...small, anchor: 'middle' })
  const named = inner >= 40 && words.title !== ''
  value.add(words.value, batch.x[0], batch.y[0] + (named ? 2 : big.size * MIDDLE), theme.text, 'whole')
  if (named)
    title.add(
      ellipsis(clean(words.title), room, small, measure),
      batch.x[0],
      batch.y[0] + 2 + small.size * 1.5,
      theme.muted,
      'whole',
    )
  return [...value.build(), ...title.build()]
}

import type { Series } from '../describe/model.ts'
import { MARKERS } from '../scene/marker.ts'
import type { Batch, Discs, Lines } from '../scene/scene.ts'
import type { Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import { boxes, TextBuilder } from './build.ts'
import { clean, ellipsis, LINE, MIDDLE } from './text.ts'

export interface LegendEntry extends Series {
  swatch: 'line' | 'rect' | 'disc'
  hidden: boolean
}

/** What one legend lists. */
export interface LegendList {
  /** Tells its batches from those of other legends of the chart. */
  id: string
  entries: readonly LegendEntry[]
  title: string | undefined
  /** How many entries stand side by side; undefined for as many as fit in a row. */
  columns: number | undefined
  /** What is said of so many entries without room. */
  more: (count: number) => string
}

/** A block of guides: the room it takes, in pixels, and its shapes. */
export interface GuideBlock {
  width: number
  height: number
  batches: Batch[]
}

/** Length of the run of stroke that stands under a series' name, in pixels. */
const RUN = 20
const GAP = 20
const ROW = 24
/** Rows of a legend that flows over the width. */
const MOST_ROWS = 3
/** The widest a name may be, in pixels. */
const WIDEST = 260
/** The least room for a name beside others, in pixels. */
const NARROWEST = 40
/** What a disc and its gap take before a name, in pixels. */
const DISC = 13

type Placed = { entry: LegendEntry; x: number; y: number }

/** Names of series, each underlined with a run of the series' own stroke; a disc stands before the name of points. */
export function legend(
  { id, entries, title, columns: wished, more }: LegendList,
  x: number,
  y: number,
  width: number,
  height: number,
  theme: Theme,
  measure: Measure,
): GuideBlock {
  const font = { size: theme.sizes.text, weight: 400 } as const
  const names = new TextBuilder(`${id}/names`, { ...font, anchor: 'start' })
  const placed: Placed[] = []
  const columns = wished && Math.max(1, Math.min(wished, Math.floor((width + GAP) / (NARROWEST + GAP))))
  const widest = Math.min(WIDEST, columns ? (width - GAP * (columns - 1)) / columns : width)
  const items = entries.map(entry => {
    const mark = entry.swatch === 'disc' ? DISC : 0
    const text = ellipsis(clean(entry.name), widest - mark, font, measure)
    return { entry, mark, text, taken: mark + Math.max(measure(text, font), mark ? 0 : RUN) }
  })
  const cell = columns ? Math.max(0, ...items.map(item => item.taken)) + GAP : 0
  const rows = columns ? Math.max(1, Math.floor((height - 4) / ROW)) : MOST_ROWS
  let left = x
  let row = 0
  let end = x
  const baseline = () => y + row * ROW + font.size
  const put = (text: string, color: string, key: string, taken: number) => {
    names.add(text, left, baseline(), color, key)
    end = Math.max(end, left + taken)
  }
  if (title) {
    const text = ellipsis(clean(title), width, font, measure)
    put(text, theme.muted, 'title', measure(text, font))
    if (columns) row++
    else left += measure(text, font) + GAP
  }
  const over = columns ? (rows - row) * columns : Number.POSITIVE_INFINITY
  let shown = 0
  for (const { entry, mark, text, taken } of items) {
    if (columns) {
      // The last place says how many more there are.
      if (shown >= over - (items.length > over ? 1 : 0)) break
      left = x + (shown % columns) * cell
      if (shown > 0 && shown % columns === 0) row++
    } else if (left > x && left + taken > x + width) {
      if (row + 1 >= rows) break
      row++
      left = x
    }
    if (mark) placed.push({ entry, x: left + 4, y: baseline() - font.size * MIDDLE })
    else placed.push({ entry, x: left, y: baseline() + 5.5 })
    left += mark
    put(text, entry.hidden ? theme.missing : theme.text, entry.key, taken - mark)
    left += taken - mark + GAP
    shown++
  }
  const rest = entries.length - shown
  if (rest > 0) {
    const text = more(rest)
    if (columns ? shown > 0 : left + measure(text, font) > x + width) row++
    if (columns || left + measure(text, font) > x + width) left = x
    const short = ellipsis(text, width, font, measure)
    put(short, theme.muted, 'rest', measure(short, font))
  }
  return {
    width: end - x,
    height: (row + 1) * ROW - (ROW - font.size * LINE) + 4,
    batches: [...names.build(), ...swatches(id, placed, theme)],
  }
}

const colorOf = (entry: LegendEntry, theme: Theme) => (entry.hidden ? theme.missing : entry.color)

function swatches(id: string, placed: Placed[], theme: Theme): Batch[] {
  const of = (swatch: LegendEntry['swatch']) => placed.filter(placed => placed.entry.swatch === swatch)
  const bars = of('rect').map(run => ({
    x: run.x,
    y: run.y - 2,
    width: RUN,
    height: 4,
    color: colorOf(run.entry, theme),
    key: run.entry.key,
  }))
  return [...boxes(`${id}/bars`, bars, 0), ...strokes(id, of('line'), theme), ...dots(id, of('disc'), theme)]
}

function strokes(id: string, placed: Placed[], theme: Theme): Lines[] {
  if (placed.length === 0) return []
  const count = placed.length
  return [
    {
      kind: 'lines',
      id: `${id}/strokes`,
      part: 'guide',
      clip: false,
      names: placed.map(run => run.entry.key),
      keys: [],
      colors: placed.map(run => colorOf(run.entry, theme)),
      color: Uint16Array.from({ length: count }, (_, i) => i),
      starts: Uint32Array.from({ length: count + 1 }, (_, i) => i * 2),
      x: Float32Array.from(placed.flatMap(run => [run.x, run.x + RUN])),
      y: Float32Array.from(placed.flatMap(run => [run.y, run.y])),
      atX: Float64Array.from(placed.flatMap(() => [0, 1])),
      atY: new Float64Array(count * 2),
      width: new Float32Array(count).fill(2),
      dash: placed.map(run => run.entry.dash),
    },
  ]
}

function dots(id: string, placed: Placed[], theme: Theme): Discs[] {
  if (placed.length === 0) return []
  return [
    {
      kind: 'discs',
      id: `${id}/discs`,
      part: 'guide',
      clip: false,
      keys: placed.map(dot => dot.entry.key),
      colors: placed.map(dot => colorOf(dot.entry, theme)),
      color: Uint16Array.from(placed, (_, i) => i),
      x: Float32Array.from(placed, dot => dot.x),
      y: Float32Array.from(placed, dot => dot.y),
      radius: new Float32Array(placed.length).fill(4),
      form: Uint8Array.from(placed, dot => Math.max(0, MARKERS.indexOf(dot.entry.shape ?? 'disc'))),
    },
  ]
}

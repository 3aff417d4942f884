import type { Series } from '../drawing/kind.ts'
import type { Batch, Discs, Lines } from '../scene/scene.ts'
import type { Measure } from '../theme/measure.ts'
import type { Theme } from '../theme/theme.ts'
import { boxes, TextBuilder } from './build.ts'
import type { WordBlock } from './heading.ts'
import { clean, ellipsis, LINE } from './text.ts'

export interface LegendEntry extends Series {
  swatch: 'line' | 'rect' | 'disc'
  hidden: boolean
}

/** Length of the run of stroke that stands under a series' name, in pixels. */
const RUN = 20
const GAP = 20
const ROW = 24
const MOST_ROWS = 3

/** Names of series in rows, each underlined with a run of the series' own stroke; a disc stands before the name of points. */
export function legend(
  entries: readonly LegendEntry[],
  title: string | undefined,
  x: number,
  y: number,
  width: number,
  theme: Theme,
  measure: Measure,
): WordBlock {
  const font = { size: theme.sizes.text, weight: 400 } as const
  const names = new TextBuilder('legend/names', { ...font, anchor: 'start' })
  const runs: { entry: LegendEntry; x: number; y: number }[] = []
  const discs: { entry: LegendEntry; x: number; y: number }[] = []
  let left = x
  let row = 0
  const baseline = () => y + row * ROW + font.size
  if (title) {
    names.add(title, left, baseline(), theme.muted, 'title')
    left += measure(title, font) + GAP
  }
  let shown = 0
  for (const entry of entries) {
    const mark = entry.swatch === 'disc' ? 13 : 0
    const text = ellipsis(clean(entry.name), Math.min(width - mark, 260), font, measure)
    const taken = mark + Math.max(measure(text, font), mark ? 0 : RUN)
    if (left > x && left + taken > x + width) {
      if (row + 1 >= MOST_ROWS) break
      row++
      left = x
    }
    names.add(text, left + mark, baseline(), entry.hidden ? theme.missing : theme.text, entry.key)
    if (mark) discs.push({ entry, x: left + 4, y: baseline() - font.size * 0.36 })
    else runs.push({ entry, x: left, y: baseline() + 5.5 })
    left += taken + GAP
    shown++
  }
  const rest = entries.length - shown
  if (rest > 0) {
    const text = `and ${rest} more`
    if (left + measure(text, font) > x + width) {
      row++
      left = x
    }
    names.add(text, left, baseline(), theme.muted, 'rest')
  }
  const batches: Batch[] = [
    ...names.build(),
    ...boxes(
      'legend/bars',
      runs
        .filter(run => run.entry.swatch === 'rect')
        .map(run => ({
          x: run.x,
          y: run.y - 2,
          width: RUN,
          height: 4,
          color: colorOf(run.entry, theme),
          key: run.entry.key,
        })),
      0,
    ),
    ...strokes(
      runs.filter(run => run.entry.swatch === 'line'),
      theme,
    ),
    ...dots(discs, theme),
  ]
  return { height: (row + 1) * ROW - (ROW - font.size * LINE) + 4, batches }
}

const colorOf = (entry: LegendEntry, theme: Theme) => (entry.hidden ? theme.missing : entry.color)

type Placed = { entry: LegendEntry; x: number; y: number }

function strokes(placed: Placed[], theme: Theme): Lines[] {
  if (placed.length === 0) return []
  const count = placed.length
  return [
    {
      kind: 'lines',
      id: 'legend/strokes',
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

function dots(placed: Placed[], theme: Theme): Discs[] {
  if (placed.length === 0) return []
  return [
    {
      kind: 'discs',
      id: 'legend/discs',
      part: 'guide',
      clip: false,
      keys: placed.map(dot => dot.entry.key),
      colors: placed.map(dot => colorOf(dot.entry, theme)),
      color: Uint16Array.from(placed, (_, i) => i),
      x: Float32Array.from(placed, dot => dot.x),
      y: Float32Array.from(placed, dot => dot.y),
      radius: new Float32Array(placed.length).fill(4),
    },
  ]
}

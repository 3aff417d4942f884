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
  /** Whether its points are marked. */
  pointed?: boolean
}

/** What one legend lists. */
export interface LegendList {
  /** Tells its batches from those of other legends of the chart. */
  id: string
  entries: readonly LegendEntry[]
  title: string | undefined
  /** How many entries stand side by side; undefined for as many as fit in a row. */
  columns: number | undefined
  /** How many are passed over, where not all have room. */
  from?: number
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
/** The widest a name may be, in pixels. */
const WIDEST = 260
/** A name that is shortened to make room for others keeps this much, in pixels. */
const SHORTEST = 110
/** The least room for a name beside others, in pixels. */
const NARROWEST = 40
/** What a disc and its gap take before a name, in pixels. */
const DISC = 13

type Placed = { entry: LegendEntry; x: number; y: number }

/** Names of series, each underlined with a run of the series' own stroke; a disc stands before the name of points. */
export function legend(
  { id, entries, title, columns: wished, from = 0, more }: LegendList,
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
  const rows = Math.max(1, Math.floor((height - 4) / ROW))
  const widest = wished
    ? Math.max(NARROWEST, (width - GAP * (wished - 1)) / wished)
    : // Long names are shortened before any is left out.
      Math.max(SHORTEST, (width + GAP) / Math.ceil(entries.length / rows) - GAP)
  const items = entries.map(entry => {
    const mark = entry.swatch === 'disc' ? DISC : 0
    const text = ellipsis(clean(entry.name), Math.min(WIDEST, width, widest) - mark, font, measure)
    return { entry, mark, text, taken: mark + Math.max(measure(text, font), mark ? 0 : RUN) }
  })
  const heading = title ? ellipsis(clean(title), width, font, measure) : ''
  // A title stands before a list that is wide, and over one that is narrow.
  const before = heading && !wished ? measure(heading, font) + GAP : 0
  const aside = before > 0 && before < width * 0.3 && width - before > NARROWEST * 2
  const first = heading && !aside ? 1 : 0
  const left = aside ? x + before : x
  const rowsLeft = Math.max(1, rows - first)
  const columnsFor = (some: typeof items) =>
    columnsOf(
      some.map(item => item.taken),
      width - (left - x),
      rowsLeft,
      wished,
    )
  const whole = columnsFor(items)
  const fits = items.length <= rowsLeft * whole.length
  const passed = fits ? 0 : from
  const columns = fits ? whole : columnsFor(items.slice(passed))
  let end = x
  const put = (text: string, color: string, key: string, at: number, row: number, whole?: string) => {
    names.add(text, at, y + row * ROW + font.size, color, key, undefined, undefined, whole)
    end = Math.max(end, at + measure(text, font))
  }
  if (heading) put(heading, theme.muted, 'title', x, 0, clean(title!))
  // The last place says how many more there are.
  const page = fits ? items : items.slice(passed, passed + Math.max(1, rowsLeft * columns.length - 1))
  const at = (place: number) => ({
    from: left + columns.slice(0, place % columns.length).reduce((sum, taken) => sum + taken + GAP, 0),
    row: first + Math.floor(place / columns.length),
  })
  for (const [place, { entry, mark, text, taken }] of page.entries()) {
    const { from, row } = at(place)
    const baseline = y + row * ROW + font.size
    placed.push({
      entry,
      x: mark ? from + 4 : from,
      y: mark ? baseline - font.size * MIDDLE : baseline + 5.5,
    })
    put(text, entry.hidden ? theme.missing : theme.text, entry.key, from + mark, row, clean(entry.name))
    end = Math.max(end, from + taken)
  }
  if (!fits) {
    const { from, row } = at(page.length)
    const words = ellipsis(more(items.length - page.length), x + width - from, font, measure)
    put(words, theme.muted, 'rest', from, row)
  }
  const last = at(fits ? Math.max(0, page.length - 1) : page.length).row
  return {
    width: end - x,
    height: (last + 1) * ROW - (ROW - font.size * LINE) + 4,
    batches: [...names.build(), ...swatches(id, placed, theme)],
  }
}

/**
 * The widths of the columns in which names stand under each other: as many as have room, each as wide as the widest
 * name in it. `wished`: how many there should be, of one width.
 */
function columnsOf(
  taken: readonly number[],
  width: number,
  rows: number,
  wished: number | undefined,
): number[] {
  if (wished !== undefined) {
    const count = Math.max(1, Math.min(wished, Math.floor((width + GAP) / (NARROWEST + GAP))))
    return new Array(count).fill(Math.max(0, ...taken))
  }
  for (let count = Math.min(taken.length, Math.floor((width + GAP) / (RUN + GAP))); count > 1; count--) {
    const columns = new Array<number>(count).fill(0)
    for (let i = 0; i < Math.min(taken.length, rows * count); i++)
      columns[i % count] = Math.max(columns[i % count], taken[i])
    if (columns.reduce((sum, column) => sum + column + GAP, -GAP) <= width) return columns
  }
  return [Math.max(0, ...taken.slice(0, rows))]
}

const colorOf = (entry: LegendEntry, theme: Theme) => (entry.hidden ? theme.missing : entry.color)

function swatches(id: string, placed: Placed[], theme: Theme): Batch[] {
  const of = (swatch: LegendEntry['swatch']) => placed.filter(placed => placed.entry.swatch === swatch)
  const bars = of('rect').map(run => ({
    x: run.x,
    y: run.entry.hatch ? run.y - 3 : run.y - 2,
    width: RUN,
    height: run.entry.hatch ? 7 : 4,
    color: colorOf(run.entry, theme),
    key: run.entry.key,
  }))
  const hatched = Object.fromEntries(
    of('rect').flatMap(({ entry }) => (entry.hatch && !entry.hidden ? [[entry.color, entry.hatch]] : [])),
  )
  const surfaces = boxes(`${id}/bars`, bars, 0).map(batch => ({ ...batch, hatched }))
  return [
    ...surfaces,
    ...strokes(id, of('line'), theme),
    ...dots(`${id}/discs`, of('disc'), 4, theme),
    ...dots(`${id}/points`, onStrokes(of('line')), 2.75, theme),
  ]
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

/** Points in the middle of strokes whose lines mark theirs. */
const onStrokes = (placed: Placed[]): Placed[] =>
  placed.filter(({ entry }) => entry.pointed).map(run => ({ ...run, x: run.x + RUN / 2 }))

function dots(id: string, placed: Placed[], radius: number, theme: Theme): Discs[] {
  if (placed.length === 0) return []
  return [
    {
      kind: 'discs',
      id,
      part: 'guide',
      clip: false,
      keys: placed.map(dot => dot.entry.key),
      colors: placed.map(dot => colorOf(dot.entry, theme)),
      color: Uint16Array.from(placed, (_, i) => i),
      x: Float32Array.from(placed, dot => dot.x),
      y: Float32Array.from(placed, dot => dot.y),
      radius: new Float32Array(placed.length).fill(radius),
      form: Uint8Array.from(placed, dot => Math.max(0, MARKERS.indexOf(dot.entry.shape ?? 'disc'))),
    },
  ]
}

import type { BoundDrawing } from '../bind/model.ts'
import { labelOf } from '../bind/naming.ts'
import { shareTexts } from '../bind/values.ts'
import type { NearMark } from '../describe/model.ts'
import { remember } from '../describe/remember.ts'
import { valueText } from '../scale/number-format.ts'
import type { Box } from '../scene/scene.ts'
import type { RoleValues } from '../table/group/shape.ts'
import type { Meaning } from '../table/phrase/meaning.ts'
import { nearestMark } from './nearest-mark.ts'
import { furtherValues, type Place, placeText, type Reading, textOf, valueAt } from './reading-texts.ts'

/** The cell nearest to the pointer: its place as heading, its value as the row. */
export function readCell(
  composition: Place,
  drawn: BoundDrawing[],
  x: number,
  y: number,
): Reading | undefined {
  let best: { drawing: BoundDrawing; mark: number; box: Box } | undefined
  let least = Number.POSITIVE_INFINITY
  for (const drawing of drawn) {
    for (let mark = 0; mark < drawing.marks.length; mark++) {
      const box = barOf(composition, drawing, mark)
      if (!box) continue
      const far = Math.hypot(
        Math.max(box.x - x, 0, x - box.x - box.width),
        Math.max(box.y - y, 0, y - box.y - box.height),
      )
      if (far < least) {
        least = far
        best = { drawing, mark, box }
      }
    }
  }
  if (!best) return undefined
  const { drawing, mark, box } = best
  const { marks, shade } = drawing
  const place = (values: RoleValues, at: number) => placeText(values, mark, at, composition)
  const centre = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  const value = shade && shade.cells.type !== 'text' ? shade.cells.values[mark] : Number.NaN
  const color = marks.shade ? marks.shade.colors[marks.shade.of[mark]] : marks.series[0].color
  const rows = shade
    ? [
        {
          name: labelOf(shade.meaning, drawing.drawing.table, composition.tongue),
          text: textOf(shade, value, composition.tongue.locale),
          series: { key: '', name: '', color, dash: [], swatch: 'rect' as const },
          pointed: true,
          ...centre,
          rows: marks.rowsOf(mark),
          table: drawing.drawing.table,
          key: marks.keyOf(mark),
          link: drawing.links?.(mark) || undefined,
        },
      ]
    : []
  return {
    heading: `${place(drawing.x, marks.x.at[mark])}, ${place(drawing.y, marks.y.at[mark])}`,
    along: 'point',
    ...centre,
    reach: box.width / 2,
    rows,
    more: 0,
  }
}

/** The point nearest to the pointer. */
export function readPoint(
  composition: Place,
  drawn: BoundDrawing[],
  x: number,
  y: number,
): Reading | undefined {
  let best: (NearMark & { drawing: BoundDrawing }) | undefined
  for (const drawing of drawn) {
    const found = nearestMark(composition, drawing, x, y)
    if (found && !(best && best.far <= found.far)) best = { ...found, drawing }
  }
  if (!best) return undefined
  const { drawing, mark } = best
  const { marks } = drawing
  const series = marks.series[marks.seriesOf?.[mark] ?? 0]
  const { tongue } = composition
  const several = (marks.crowd?.rows[mark] ?? 1) > 1
  const row = ({ name, text }: { name: string; text: string }) => ({
    name,
    text,
    series: undefined,
    pointed: false,
    x: best.x,
    y: best.y,
    rows: marks.rowsOf(mark),
    table: drawing.drawing.table,
    key: marks.keyOf(mark),
    link: drawing.links?.(mark) || undefined,
  })
  return {
    heading: series.name,
    series: { ...series, swatch: drawing.drawing.kind.swatch },
    along: 'point',
    x: best.x,
    y: best.y,
    reach: 0,
    rows: [
      ...(['x', 'y'] as const).map(role =>
        row({
          name: labelOf(middleOf(drawing[role].meaning, several), drawing.drawing.table, tongue),
          text: valueAt(drawing[role], marks[role], mark, tongue.locale),
        }),
      ),
      ...furtherValues(drawing, mark, tongue).map(row),
      ...(several
        ? [
            row({
              name: labelOf({ is: 'summary', how: 'count' }, drawing.drawing.table, tongue),
              text: valueText(marks.crowd!.rows[mark], { locale: tongue.locale }),
            }),
          ]
        : []),
    ],
    more: 0,
  }
}

/** Where several rows lie at one place, it is their middle that is read. */
const middleOf = (meaning: Meaning, several: boolean): Meaning =>
  several && meaning.is === 'column' ? { is: 'summary', how: 'mean', column: meaning.column } : meaning

/** The bar that stands for a mark; undefined for kinds without bars. */
export function barOf({ batches }: Place, { drawing, marks }: BoundDrawing, mark: number): Box | undefined {
  const batch = batches.find(
    batch => batch.kind === 'rects' && batch.drawing === drawing.index && batch.x.length === marks.length,
  )
  if (batch?.kind !== 'rects' || Number.isNaN(batch.x[mark])) return undefined
  return { x: batch.x[mark], y: batch.y[mark], width: batch.width[mark], height: batch.height[mark] }
}

/** The slice under the pointer, or in its direction: its name as heading, its value and its share. */
export function readSlice(
  composition: Place,
  drawn: BoundDrawing[],
  x: number,
  y: number,
): Reading | undefined {
  for (const drawing of drawn) {
    const batch = composition.batches.find(
      batch => batch.kind === 'wedges' && batch.drawing === drawing.drawing.index,
    )
    if (batch?.kind !== 'wedges' || batch.x.length === 0) continue
    const [cx, cy] = [batch.x[0], batch.y[0]]
    const angle = (Math.atan2(x - cx, cy - y) + Math.PI * 2) % (Math.PI * 2)
    const far = Math.hypot(x - cx, y - cy)
    if (far > batch.outer[0] + 24) continue
    const slice = batch.from.findIndex((from, i) => angle >= from && angle <= batch.to[i])
    if (slice < 0) continue
    const { marks } = drawing
    const mark = markOfKey(drawing, batch.keys[slice])
    if (mark === undefined) continue
    const middle = (batch.from[slice] + batch.to[slice]) / 2
    const reach = (batch.inner[slice] + batch.outer[slice]) / 2
    const at = { x: cx + Math.sin(middle) * reach, y: cy - Math.cos(middle) * reach }
    const series = marks.series[marks.seriesOf?.[mark] ?? 0]
    const angles = batch.to.map((to, i) => to - batch.from[i])
    const behind = {
      rows: marks.rowsOf(mark),
      table: drawing.drawing.table,
      key: marks.keyOf(mark),
      link: drawing.links?.(mark) || undefined,
    }
    return {
      heading: '',
      along: 'point',
      within: true,
      ...at,
      reach: (batch.outer[slice] - batch.inner[slice]) / 2,
      rows: [
        {
          name: series.name,
          text: textOf(drawing.y, marks.y.at[mark], composition.tongue.locale),
          series: { ...series, swatch: 'rect' },
          pointed: true,
          ...at,
          ...behind,
        },
        {
          name: composition.tongue.say('Share'),
          text: shareTexts(angles, composition.tongue.locale)[slice],
          series: undefined,
          pointed: false,
          ...at,
          ...behind,
        },
      ],
      more: 0,
    }
  }
  return undefined
}

/** The mark with a key; worked out at the first look and kept with the marks. */
function markOfKey({ marks, memory }: BoundDrawing, key: string | number): number | undefined {
  const index = remember(memory, 'marks by key', () => {
    const marksByKey = new Map<string | number, number>()
    for (let mark = 0; mark < marks.length; mark++) marksByKey.set(marks.keyOf(mark), mark)
    return marksByKey
  })
  return index.get(key)
}

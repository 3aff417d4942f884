import { isLying } from '../drawing/is-lying.ts'
import type { Composition } from '../pane/model.ts'
import { rootOf } from '../table/live/selection.ts'
import type { Table } from '../table/live/table.ts'
import { type Serials, serialsOf } from './pick.ts'

/** What a chart is about at the moment: the rows that are selected, else those of its leading shape, and the colour they have. */
export interface Lead {
  root: Table
  serials: Serials
  color: string | undefined
}

/** The lead of a picture; `selected`: serial numbers of selected rows. */
export function leadOf(
  { panes }: Composition,
  root: Table,
  selected: ArrayLike<number> | undefined,
): Lead | undefined {
  const bound = panes
    .flatMap(pane => pane.bound.drawings)
    .find(drawn => !drawn.drawing.kind.aside && drawn.marks.length > 0)
  if (!bound) return undefined
  const { marks, drawing } = bound
  const table = drawing.table
  if (rootOf(table) !== root) return undefined
  const colorOf = (mark: number) =>
    marks.shade ? marks.shade.colors[marks.shade.of[mark]] : marks.series[marks.seriesOf?.[mark] ?? 0]?.color
  const rowsOf = (mark: number) => serialsOf(root, [{ table, rows: marks.rowsOf(mark) }])
  if (selected?.length) {
    const first = selected[0]
    let mark = 0
    while (mark < marks.length && !rowsOf(mark).includes(first)) mark++
    return {
      root,
      serials: Float64Array.from(selected),
      color: mark < marks.length ? colorOf(mark) : undefined,
    }
  }
  const values = isLying(marks) ? marks.x : marks.y
  let lead = -1
  for (let mark = 0; mark < marks.length; mark++)
    if (!Number.isNaN(values.at[mark]) && (lead < 0 || values.at[mark] > values.at[lead])) lead = mark
  return lead < 0 ? undefined : { root, serials: rowsOf(lead), color: colorOf(lead) }
}

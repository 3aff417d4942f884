import {
  type DataTable,
  type Description,
  paneAt,
  type Reading,
  type ReadingRow,
  Spread,
  type Told,
  tellMore,
  type View,
} from '@dapplo/core/small'
import { showTables } from './dialog.ts'

/** Rows that are listed at most. */
const MOST_ROWS = 500

/** What a chart says of what is pointed at: further lines, words of its author's own, the rows behind. */
export class Telling {
  private readonly view: View
  private readonly element: HTMLElement
  private closeDialog: (() => void) | undefined
  private readonly closed: () => void

  /** `closed`: called when a dialog has been closed, so that focus can go back. */
  constructor(view: View, element: HTMLElement, closed: () => void) {
    this.view = view
    this.element = element
    this.closed = closed
  }

  remove(): void {
    this.closeDialog?.()
  }

  more(reading: Reading): readonly Told[] {
    const row = pointedRow(reading)
    const { tooltip } = this.descriptionAt(reading)
    if (!row || tooltip === undefined || tooltip === false) return []
    return tellMore(tooltip, row, this.view.composition.value.locale)
  }

  own(reading: Reading): string | Node | undefined {
    const { tooltip } = this.descriptionAt(reading)
    const row = pointedRow(reading)
    if (typeof tooltip !== 'function' || !row) return undefined
    try {
      const said = tooltip(row.table.rows(row.rows))
      return said instanceof Node ? said : String(said)
    } catch (error) {
      // What the author's function throws must not take the chart with it.
      reportError(error)
      return undefined
    }
  }

  /** Shows the rows behind a reading. */
  openRows(reading: Reading): void {
    const row = pointedRow(reading)
    if (!row) return
    const { names } = row.table
    const list = Array.from(row.rows).slice(0, MOST_ROWS)
    const rows = list.map(i => names.map(name => cellText(row.table.column(name)?.value(i))))
    const caption = `${row.rows.length.toLocaleString()} ${row.rows.length === 1 ? 'row' : 'rows'}`
    this.openTables(reading.heading || row.name, [
      { caption, head: names, rows, more: row.rows.length - list.length },
    ])
  }

  openTables(title: string, tables: readonly DataTable[]): void {
    this.closeDialog?.()
    const host = this.element.closest('dialog[open]') ?? document.fullscreenElement ?? document.body
    this.closeDialog = showTables(title, tables, this.view.composition.value.theme, host, () => {
      this.closeDialog = undefined
      this.closed()
    })
  }

  private descriptionAt(reading: Reading): Description {
    const composition = this.view.composition.value
    const chart = this.view.chart.value
    const pane = paneAt(composition, reading.x, reading.y)
    const i = pane ? composition.panes.indexOf(pane) : 0
    return (chart instanceof Spread ? (chart.charts[i] ?? this.view.first) : chart).description
  }
}

const pointedRow = (reading: Reading): ReadingRow | undefined =>
  reading.rows.find(one => one.pointed) ?? reading.rows[0]

function cellText(value: unknown): string {
  if (value === null || value === undefined) return ''
  return value instanceof Date
    ? value
        .toISOString()
        .replace('T', ' ')
        .replace(/:00\.000Z$|Z$/, '')
    : String(value)
}

import type { DataTable, View } from '@dapplo/core/internal'
import type { Reading } from '@dapplo/core/small'
import { pointedRow } from '../point/telling.ts'
import { showTables } from './dialog.ts'

/** Rows that are listed at most. */
const MOST_ROWS = 500

/** Opens tables over the page: the rows behind a reading, or whatever it is given. */
export class Tables {
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

  /** Shows the rows behind a reading. */
  openRows(reading: Reading): void {
    const row = pointedRow(reading)
    if (!row) return
    const { names } = row.table
    const list = Array.from(row.rows).slice(0, MOST_ROWS)
    const columns = names.map(name => row.table.column(name)!)
    const rows = list.map(i => columns.map(column => cellText(column.value(i), column.dateUnit)))
    const count = row.rows.length
    const caption = this.view.tongue.value.say(count === 1 ? '{count} row' : '{count} rows', { count })
    this.open(reading.heading || row.name, [
      {
        caption,
        head: names,
        rows,
        numbers: columns.map(({ type }) => type === 'number'),
        more: count - list.length,
      },
    ])
  }

  open(title: string, tables: readonly DataTable[]): void {
    this.closeDialog?.()
    const host = this.element.closest('dialog[open]') ?? document.fullscreenElement ?? document.body
    this.closeDialog = showTables(title, tables, this.view.composition.value, host, () => {
      this.closeDialog = undefined
      this.closed()
    })
  }
}

const ENDS = { day: 10, month: 7 }

function cellText(value: unknown, dateUnit: keyof typeof ENDS | undefined): string {
  if (value === null || value === undefined) return ''
  if (!(value instanceof Date)) return String(value)
  const text = value.toISOString()
  return dateUnit ? text.slice(0, ENDS[dateUnit]) : text.replace('T', ' ').replace(/:00\.000Z$|Z$/, '')
}

import type { DataTable, Reading, View } from '@dapplo/core/small'
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
    const rows = list.map(i => names.map(name => cellText(row.table.column(name)?.value(i))))
    const count = row.rows.length
    const caption = this.view.tongue.value.say(count === 1 ? '{count} row' : '{count} rows', { count })
    this.open(reading.heading || row.name, [{ caption, head: names, rows, more: count - list.length }])
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

function cellText(value: unknown): string {
  if (value === null || value === undefined) return ''
  return value instanceof Date
    ? value
        .toISOString()
        .replace('T', ' ')
        .replace(/:00\.000Z$|Z$/, '')
    : String(value)
}

import { dataTables } from '@dapplo/core/small'
import type { Part } from '../part.ts'
import { Tables } from '../tables.ts'

/** The rows behind a shape, and the values behind the picture, as tables that can be opened. */
export const tableView: Part = {
  name: 'tableView',
  install({ can, view, stage, live }) {
    const tables = new Tables(view, live.element, () => stage.focus.focus())
    can.openRows = reading => tables.openRows(reading)
    can.openTables = (title, list) => tables.open(title, list)
    can.dataTables = () => dataTables(view.composition.value)
    return { remove: () => tables.remove() }
  },
}

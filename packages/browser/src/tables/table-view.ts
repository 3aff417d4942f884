import { dataTables } from '@dapplo/core/internal'
import type { Part } from '../live/model.ts'
import { paperView } from '../save/paper.ts'
import { tableElements } from './table-elements.ts'
import { Tables } from './tables.ts'

/** The rows behind a shape, and the values behind the picture, as tables that can be opened. */
export const tableView: Part = {
  name: 'tableView',
  install(host) {
    const { can, view, stage, live } = host
    const tables = new Tables(view, live.element, () => stage.focus.focus())
    can.openRows = reading => tables.openRows(reading)
    can.openTables = (title, list) => tables.open(title, list)
    can.dataTables = () => dataTables(host.current.composition.value)
    can.paperTables = () => {
      if (!host.options.printsTable) return []
      // Ink on paper, also where a page is dark.
      const { composition } = paperView(view, live.moving || can.playing !== undefined)
      const { theme, tongue } = composition.value
      return dataTables(host.current.composition.value).flatMap(table => tableElements(table, theme, tongue))
    }
    return { remove: () => tables.remove() }
  },
}

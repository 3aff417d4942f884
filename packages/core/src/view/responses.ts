import type { ReadonlySignal } from '@preact/signals-core'
import type { RowFilter } from '../bind/questions.ts'
import type { RowTests } from '../pane/dim.ts'
import type { Pane } from '../pane/model.ts'
import { answeredElsewhere } from '../table/group/question.ts'
import {
  allTests,
  maskOf,
  type RowMask,
  type RowTest,
  rootOf,
  rowsTest,
  rowTest,
  selectionsOf,
} from '../table/live/selection.ts'
import type { Table } from '../table/live/table.ts'
import type { Chart } from './chart.ts'

/** What another chart has a view explain. */
export interface Detail {
  root: Table
  serials: ArrayLike<number>
  /** The colour of which categories are shades. */
  color: string | undefined
}

/** What a view does about rows that are selected elsewhere: it leaves the others out, or dims them. */
export class Responses {
  private readonly owner: object
  private readonly others = new Map<Table, ReadonlySignal<RowMask | undefined>>()
  private readonly lists = new Map<Table, ReadonlySignal<readonly ArrayLike<number>[]>>()

  /** `owner`: whose own selections are not those of others. */
  constructor(owner: object) {
    this.owner = owner
  }

  /** What the other charts on a root table have selected. */
  private othersOn(root: Table): ReadonlySignal<RowMask | undefined> {
    let found = this.others.get(root)
    if (!found) {
      found = selectionsOf(root).byOthers(this.owner)
      this.others.set(root, found)
    }
    return found
  }

  /** The rows that a chart draws at all: those selected in other charts where it filters by them, and what it explains. */
  filterFor(
    chart: Chart,
    detail: Detail | undefined,
    only: { table: Table; rows: Int32Array } | undefined,
  ): RowFilter | undefined {
    const filters = chart.description.respond === 'narrow'
    const far = chart.resolved.tables.some(answeredElsewhere)
    if (!filters && !detail && !only && !far) return undefined
    return table => {
      const own = only?.table === table ? only.rows : undefined
      const root = rootOf(table)
      if (root.meetingAll) {
        // Other charts show what is selected and nothing else: what of a mark that is, is not known here.
        const lists = chart.description.respond === 'ignore' ? [] : this.listsOn(root).value
        return root.meetingAll([
          ...lists,
          ...(detail?.root === root ? [detail.serials] : []),
          ...(own ? [own] : []),
        ])
      }
      const masks: RowMask[] = []
      if (detail && detail.root === root) masks.push(maskOf(root, detail.serials))
      const others = filters ? this.othersOn(root).value : undefined
      if (others) masks.push(others)
      const tests: RowTest[] = masks.map(mask => rowTest(table, mask))
      if (own) tests.push(rowsTest(own, table.length))
      return tests.length === 0 ? undefined : allTests(tests)
    }
  }

  private listsOn(root: Table): ReadonlySignal<readonly ArrayLike<number>[]> {
    let found = this.lists.get(root)
    if (!found) {
      found = selectionsOf(root).listsOfOthers(this.owner)
      this.lists.set(root, found)
    }
    return found
  }

  /** By drawing: the test that its rows must pass not to be dimmed. `own`: what is selected in the view itself. */
  masksFor(
    panes: readonly Pane[],
    charts: readonly Chart[],
    own: { root: Table; selected: ArrayLike<number> | undefined },
  ): RowTests {
    const here = own.selected?.length && !answeredElsewhere(own.root)
    const selected = here ? maskOf(own.root, own.selected!) : undefined
    const tests: RowTests = new Map()
    panes.forEach((pane, i) => {
      const highlights = (charts[i].description.respond ?? 'dim') === 'dim'
      for (const bound of pane.bound.drawings) {
        const { table } = bound.drawing
        const root = rootOf(table)
        if (answeredElsewhere(root)) {
          const test =
            root === own.root && own.selected?.length ? root.selectionTest(own.selected) : undefined
          if (test) tests.set(bound, test)
          continue
        }
        const others = highlights ? this.othersOn(root).value : undefined
        const masks = [root === own.root ? selected : undefined, others].filter(mask => mask !== undefined)
        if (masks.length === 0) continue
        tests.set(bound, allTests(masks.map(mask => rowTest(table, mask))))
      }
    })
    return tests
  }

  /** Makes an effect run again when others select, without composing anything. */
  follow(charts: readonly Chart[]): void {
    for (const chart of charts)
      if (chart.description.respond !== 'ignore')
        for (const table of chart.resolved.tables) {
          const root = rootOf(table)
          void (answeredElsewhere(root) ? this.listsOn(root) : this.othersOn(root)).value
        }
  }
}

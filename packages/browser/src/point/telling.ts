import { isSpread, paneAt, shownMeanings, type Told, tellMore, type View } from '@dapplo/core/internal'
import type { Description, Reading, ReadingRow } from '@dapplo/core/small'

/** What a chart says of what is pointed at: further lines, words of its author's own. */
export class Telling {
  private readonly view: View
  private readonly arrived: () => void

  /** `arrived`: called when values have come that were asked for to be told. */
  constructor(view: View, arrived: () => void = () => {}) {
    this.view = view
    this.arrived = arrived
  }

  more(reading: Reading): readonly Told[] {
    const row = pointedRow(reading)
    const { tooltip } = this.descriptionAt(reading)
    if (!row || tooltip === undefined || tooltip === false) return []
    const bound = (this.paneAt(reading) ?? this.view.composition.value.panes[0])?.bound
    return tellMore(
      tooltip,
      row,
      this.view.tongue.value,
      bound && shownMeanings(bound, row.table),
      this.arrived,
    )
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

  private paneAt({ x, y }: Reading) {
    return paneAt(this.view.composition.value, x, y)
  }

  private descriptionAt(reading: Reading): Description {
    const chart = this.view.chart.value
    const pane = this.paneAt(reading)
    const i = pane ? this.view.composition.value.panes.indexOf(pane) : 0
    return (isSpread(chart) ? (chart.charts[i] ?? this.view.first) : chart).description
  }
}

/** What of a reading the pointer is at. */
export const pointedRow = (reading: Reading): ReadingRow | undefined =>
  reading.rows.find(row => row.pointed) ?? reading.rows[0]

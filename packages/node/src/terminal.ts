import { type Chart, compose, day, type Spread, type State } from '@dapplo/core'
import { CELL, measureTerminal, toTerminalText } from '@dapplo/core/terminal'

/** One size of letters, since a terminal has no other. */
const SIZES = { title: 12, subtitle: 12, text: 12, caption: 12 }

/** The chart in plain Unicode, to be read in a terminal. Columns and rows of characters; default 80 by 24. */
export function toText(
  chart: Chart | Spread,
  { columns = 80, rows = 24, locale }: { columns?: number; rows?: number; locale?: string } = {},
  state: State = {},
): string {
  const frame = {
    width: columns * CELL.width,
    height: rows * CELL.height,
    locale,
    theme: { ...day, sizes: SIZES },
    measure: measureTerminal,
  }
  return toTerminalText(compose(chart, state, frame))
}

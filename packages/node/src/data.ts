import type { Chart, Spread, State } from '@dapplo/core'
import { csvText, dataTables, View } from '@dapplo/core/internal'
import { type PictureFrame, wholeFrame } from './picture.ts'

const tablesOf = (chart: Chart | Spread, frame: PictureFrame, state: State) =>
  dataTables(new View(chart, state, wholeFrame(frame)).composition.value, Number.POSITIVE_INFINITY, 'plain')

/** The values that a chart shows, as CSV: plain numbers, and times by ISO 8601. */
export const toCsv = (chart: Chart | Spread, frame: PictureFrame = {}, state: State = {}): string =>
  `${csvText(tablesOf(chart, frame, state))}\r\n`

/** The values that a chart shows, as JSON: a list of records for each drawing, or the one list where there is one. */
export function toJson(chart: Chart | Spread, frame: PictureFrame = {}, state: State = {}): string {
  const lists = tablesOf(chart, frame, state).map(({ head, rows }) =>
    rows.map(row => Object.fromEntries(row.map((text, i) => [head[i], valueOfText(text)]))),
  )
  return `${JSON.stringify(lists.length === 1 ? lists[0] : lists, null, 2)}\n`
}

/** Numbers are numbers in JSON; what is missing is null. */
function valueOfText(text: string): string | number | null {
  if (text === '') return null
  return /^-?\d+(\.\d+)?(e[+-]?\d+)?$/i.test(text) ? Number(text) : text
}

/** The computation behind Dapplo: tables, scales, charts, scenes, motion, painters. No page, no files. */

import { checkDescription, checkStyles } from './describe/check-shape.ts'
import { area } from './drawing/area/area.ts'
import { bar } from './drawing/bar/bar.ts'
import { heatmap } from './drawing/heatmap/heatmap.ts'
import { line } from './drawing/line/line.ts'
import { pie } from './drawing/pie/pie.ts'
import { reference } from './drawing/reference/reference.ts'
import { scatter } from './drawing/scatter/scatter.ts'
import { text } from './drawing/text/text.ts'
import { trend } from './drawing/trend/trend.ts'
import { labels } from './pane/label/labels.ts'
import { following } from './table/group/live-groups.ts'
import { advice } from './view/advice.ts'
import { chartMaker } from './view/chart.ts'
import { panes } from './view/panes.ts'

export { reshape } from './describe/reshape.ts'
export * from './small.ts'

/** The kinds that descriptions name by a word. */
export const builtinKinds = {
  line,
  area,
  bar,
  scatter,
  pie,
  heatmap,
  reference,
  trend,
  text,
} as const

/**
 * Describes a chart over a table. `draw` names what to draw; `x`, `y` and `color` are bound to phrases such as
 * `"day of departed"` or `"sum of passengers"`. Throws a `DapploError` with a suggestion when a phrase or an
 * option cannot be understood. `tables`: other tables, by the names that drawings use for them.
 */
export const chart = /* @__PURE__ */ chartMaker(builtinKinds, {
  check: checkDescription,
  checkHouse: checkStyles,
  advise: advice,
  following,
  labels,
  panes,
})

export { keepRecent } from './table/live/keep.ts'
export { type PartsOptions, readCsvInParts } from './table/open/csv-parts.ts'
export type { ArrowColumns, FormOptions } from './table/open/forms.ts'
export { readCsv, readJson, readLines, readRows, table } from './table/open/read.ts'
export type { CsvOptions } from './table/read/csv.ts'

export { type ColumnLook, lookAt, lookText, type TableLook } from './table/reshape/look.ts'
export type { Step } from './table/reshape/reshape.ts'
export { readChartFile, readHouse, readText } from './view/file.ts'

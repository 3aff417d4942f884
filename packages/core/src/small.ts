/** Everything but the kinds' names: pass kinds themselves (`draw: line`), and a bundle holds only those. */
import { chartMaker } from './view/chart.ts'

export type {
  Axis,
  AxisOptions,
  Background,
  Bind,
  ChartFile,
  Control,
  Description,
  Drawing,
  Elsewhere,
  Gesture,
  Legend,
  LegendPlace,
  Legends,
  Long,
  Motion,
  Note,
  Order,
  Phrase,
  Place,
  Roles,
  Scale,
  Source,
  SpreadOptions,
  Stamp,
  Style,
  Where,
} from './describe/description.ts'

export type { Frame, State } from './describe/frame.ts'
export { kind } from './describe/kind.ts'
export type { DrawInput, Kind, Labels, Marks, Positions, Series } from './describe/model.ts'

export { area } from './drawing/area/area.ts'
export { bar } from './drawing/bar/bar.ts'
export { heatmap } from './drawing/heatmap/heatmap.ts'
export { line } from './drawing/line/line.ts'
export { pie } from './drawing/pie/pie.ts'
export { reference } from './drawing/reference/reference.ts'
export { scatter } from './drawing/scatter/scatter.ts'
export { text } from './drawing/text/text.ts'
export { trend } from './drawing/trend/trend.ts'
export { DapploError, type Finding } from './finding/error.ts'

export { paintCanvas } from './paint/canvas.ts'
export type { Bitmap, Context2D, Pictures, Surroundings } from './paint/context.ts'
export { paintSvg, type SvgOptions } from './paint/svg.ts'
export { labels } from './pane/label/labels.ts'
export type { Reading, ReadingRow } from './read/reading-texts.ts'
export type { PositionScale } from './scale/scale.ts'
export type {
  Areas,
  Batch,
  Box,
  Discs,
  Images,
  Lines,
  Pixels,
  Rects,
  Scene,
  Segments,
  Texts,
  Wedges,
} from './scene/scene.ts'
export type { TableColumn } from './table/cells/column.ts'
export type { Column, Format, Span, Value, Words } from './table/cells/options.ts'
export { following } from './table/group/live-groups.ts'
export type { Change } from './table/live/change.ts'
export type { Counter, TableOptions } from './table/live/model.ts'
export { selectedRows } from './table/live/selection.ts'
export { Table } from './table/live/table.ts'
export { table } from './table/open/read.ts'
export type { Report } from './table/read/report.ts'
export type { House } from './theme/house.ts'
export { setHouse } from './theme/set-house.ts'
export type { Font, Measure } from './theme/text-width.ts'
export { day, night, type Theme } from './theme/theme.ts'
export { Chart, type ChartParts, chartMaker, on } from './view/chart.ts'
export { panes } from './view/panes.ts'

export { Spread, spread } from './view/spread.ts'
export { compose } from './view/view.ts'
export { SENTENCES, type Sentence } from './words/sentences.ts'
export type { Forms, HouseWords, Tongue } from './words/tongue.ts'

/** Like `chart` of the whole library, but kinds are passed as objects rather than named. */
export const chartOf = /* @__PURE__ */ chartMaker({})

/** Everything but the kinds' names: pass kinds themselves (`draw: line`), and a bundle holds only those. */
import { chartMaker } from './view/chart.ts'

export type {
  Axis,
  Bind,
  ChartFile,
  Control,
  Description,
  Drawing,
  Elsewhere,
  Gesture,
  Legend,
  Long,
  Motion,
  Phrase,
  Place,
  Roles,
  Scale,
  Source,
  SpreadOptions,
  Style,
  Where,
} from './describe/description.ts'
export { sharedScales } from './describe/description.ts'
export type { Frame, State } from './describe/frame.ts'
export { kind } from './describe/kind.ts'
export type { DrawInput, Kind, Labels, Marks, Positions, Series } from './describe/model.ts'
export { checkState } from './describe/state-check.ts'
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
export { plainText } from './finding/plain-text.ts'
export { appear, type Between, between } from './motion/between.ts'
export type { Progress } from './motion/blend.ts'
export { carrying } from './motion/carry.ts'
export { type Easing, readEasing } from './motion/easing.ts'
export { type Paced, paced, type Timing, timingOf } from './motion/pace.ts'
export { paintCanvas } from './paint/canvas.ts'
export type { Bitmap, Context2D, Pictures, Surroundings } from './paint/context.ts'
export { escapeXml, paintSvg, type SvgOptions } from './paint/svg.ts'
export { labels } from './pane/labels.ts'
export type { Composition, Insets, Pane } from './pane/model.ts'
export { momentBetween } from './play/moment.ts'
export { type Period, Playback } from './play/playback.ts'
export { csvText, type DataStyle, type DataTable, dataTables } from './read/data-table.ts'
export { type Hotspot, hotspots } from './read/hotspots.ts'
export { type Lead, leadOf } from './read/lead.ts'
export { type Corner, rowsAtPlace, rowsInBox, rowsInOutline, rowsOfEntry, serialsOf } from './read/pick.ts'
export { paneAt, readAlong, readAt } from './read/reading.ts'
export type { Reading, ReadingRow } from './read/reading-texts.ts'
export { shownMeanings, type Told, tellMore } from './read/tell.ts'
export { type Standing, type WalkStep, walk } from './read/walk.ts'
export type { Areas, Batch, Box, Discs, Images, Lines, Rects, Scene, Segments, Texts } from './scene/scene.ts'
export { safeLink, safePicture } from './scene/scene.ts'
export type { Column, Format, Span, Value, Words } from './table/cells/options.ts'
export {
  type Answer,
  answeredBy,
  ask,
  askColumns,
  type Question,
  type Shaper,
} from './table/group/question.ts'
export type { Change } from './table/live/change.ts'
export type { TableOptions } from './table/live/model.ts'
export { rootOf, selectedRows, selectionsOf } from './table/live/selection.ts'
export { Table } from './table/live/table.ts'
export { table } from './table/open/read.ts'
export type { Report } from './table/read/report.ts'
export { firstFont, fontsOf, type House } from './theme/house.ts'
export type { Font, Measure } from './theme/text-width.ts'
export { day, night, type Theme } from './theme/theme.ts'
export { Chart, type ChartParts, chartMaker, on } from './view/chart.ts'
export { tablesOf } from './view/charts.ts'
export type { Detail } from './view/responses.ts'
export { Spread, spread } from './view/spread.ts'
export { compose, View } from './view/view.ts'
export { SENTENCES, type Sentence } from './words/sentences.ts'
export type { Forms, HouseWords, Tongue } from './words/tongue.ts'

/** Like `chart` of the whole library, but kinds are passed as objects rather than named. */
export const chartOf = /* @__PURE__ */ chartMaker({})

/** Everything but the kinds' names: pass kinds themselves (`draw: line`), and a bundle holds only those. */
import { chartMaker } from './chart/chart.ts'

export { Chart, type ChartParts, chartMaker, on } from './chart/chart.ts'
export type { Composition, Pane } from './chart/compose.ts'
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
  Style,
  Where,
} from './chart/description.ts'
export { sharedScales } from './chart/description.ts'
export type { Frame, State } from './chart/frame.ts'
export { type Labels, labels } from './chart/labels.ts'
export { paneAt, readAt } from './chart/reading.ts'
export type { Reading, ReadingRow } from './chart/reading-texts.ts'
export { Spread, type SpreadOptions, spread } from './chart/spread.ts'
export { checkState } from './chart/state-check.ts'
export { type Told, tellMore } from './chart/tell.ts'
export { compose, type Detail, tablesOf, View } from './chart/view.ts'
export { area } from './drawing/area/area.ts'
export { bar } from './drawing/bar/bar.ts'
export { heatmap } from './drawing/heatmap/heatmap.ts'
export { type DrawInput, type Kind, kind, type Marks, type Positions, type Series } from './drawing/kind.ts'
export { line } from './drawing/line/line.ts'
export { pie } from './drawing/pie/pie.ts'
export { reference } from './drawing/reference/reference.ts'
export { scatter } from './drawing/scatter/scatter.ts'
export { text } from './drawing/text/text.ts'
export { trend } from './drawing/trend/trend.ts'
export { csvText, type DataStyle, type DataTable, dataTables } from './explore/data-table.ts'
export { type Hotspot, hotspots } from './explore/hotspots.ts'
export { type Lead, leadOf } from './explore/lead.ts'
export { type Corner, rowsAtPlace, rowsInBox, rowsInOutline, rowsOfEntry, serialsOf } from './explore/pick.ts'
export { type Standing, type Step, walk } from './explore/walk.ts'
export { DapploError, type Finding } from './finding/error.ts'
export { plainText } from './finding/plain-text.ts'
export { appear, type Between, between } from './motion/between.ts'
export { carrying } from './motion/carry.ts'
export { type Easing, readEasing } from './motion/easing.ts'
export { type Paced, paced, type Timing, timingOf } from './motion/pace.ts'
export { type Bitmap, type Context2D, type Pictures, paintCanvas, type Surroundings } from './paint/canvas.ts'
export { escapeXml, type SvgOptions, toSvgText } from './paint/svg.ts'
export { type Period, Playback } from './play/playback.ts'
export type { Areas, Batch, Box, Discs, Images, Lines, Rects, Scene, Segments, Texts } from './scene/scene.ts'
export { safeLink, safePicture } from './scene/scene.ts'
export type { Change } from './table/change.ts'
export type { Column, Format, Span, Value, Words } from './table/options.ts'
export { table } from './table/read.ts'
export type { Report } from './table/report.ts'
export { rootOf, selectionsOf } from './table/selection.ts'
export { Table, type TableOptions } from './table/table.ts'
export type { House } from './theme/house.ts'
export type { Font, Measure } from './theme/measure.ts'
export { day, night, type Theme } from './theme/theme.ts'
export { SENTENCES, type Sentence } from './words/sentences.ts'
export type { Forms, HouseWords, Tongue } from './words/tongue.ts'

/** Like `chart` of the whole library, but kinds are passed as objects rather than named. */
export const chartOf = /* @__PURE__ */ chartMaker({})

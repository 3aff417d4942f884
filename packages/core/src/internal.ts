/** What the packages beside the core are made with: no part of its public face, and free to change. */

export { sharedScales } from './describe/description.ts'
export { checkState } from './describe/state-check.ts'

export { withCode } from './finding/error.ts'
export { suggest } from './finding/nearest.ts'
export { plainText } from './finding/plain-text.ts'
export { runsLeft } from './guide/mirror.ts'
export { appear, type Between, between } from './motion/between.ts'
export type { Progress } from './motion/blend.ts'
export { carrying } from './motion/carry.ts'
export { type Easing, readEasing } from './motion/easing.ts'
export { type Paced, paced, type Timing, timingOf } from './motion/pace.ts'
export { paintDense } from './paint/dense.ts'
export { escapeXml } from './paint/svg.ts'
export { mostOf } from './pane/chart-input.ts'
export type { Composition, Insets, Pane } from './pane/model.ts'
export { momentBetween } from './play/moment.ts'
export { periodsInTime } from './play/periods-in-time.ts'
export { type Period, Playback } from './play/playback.ts'
export { csvText, type DataStyle, type DataTable, dataTables } from './read/data-table.ts'
export { type Tone, tonesOf } from './read/heard.ts'
export { type Hotspot, hotspots } from './read/hotspots.ts'
export { type Lead, leadOf } from './read/lead.ts'
export { type Corner, rowsAtPlace, rowsInBox, rowsInOutline, rowsOfEntry, serialsOf } from './read/pick.ts'
export { paneAt, readAlong, readAt } from './read/reading.ts'
export { shownMeanings, type Told, tellMore } from './read/tell.ts'
export { type Standing, type WalkStep, walk } from './read/walk.ts'
export { safeLink, safePicture } from './scene/scene.ts'
export { LENGTH } from './table/cells/calendar.ts'
export {
  type Answer,
  answeredBy,
  answeredElsewhere,
  ask,
  askColumns,
  type Question,
  type Shaper,
} from './table/group/question.ts'
export { followersOf } from './table/live/followers.ts'
export { rootOf, selectionsOf } from './table/live/selection.ts'
export { isMeasure, type Meaning } from './table/phrase/meaning.ts'
export { readPhrase } from './table/phrase/phrase.ts'
export { firstFont, fontsOf, themeOf } from './theme/house.ts'
export { commonHouse, withCommon } from './theme/set-house.ts'
export { rememberWidths } from './theme/text-width.ts'
export { chartsOf, isSpread, tablesOf } from './view/charts.ts'
export { joinedEnds, type ScaleEnds } from './view/fits.ts'
export type { Detail } from './view/responses.ts'
export { View } from './view/view.ts'
export { tongueOf } from './words/tongue.ts'

/** The same for what reads files and texts, which a small page does not carry. */

export { spanLength } from './table/live/keep.ts'
export { type PackedTable, packTable, unpackTable, withoutFunctions } from './table/open/packed.ts'
export { readRecords } from './table/open/read.ts'
export { type CommonColumns, columnsInUse, useColumns } from './table/read/common-columns.ts'
export { hasManyRecords } from './table/read/json-text.ts'
export {
  type Followed,
  formatOf,
  mediaFormat,
  namedFormat,
  type OpenedFile,
  openChartData,
  readInHouse,
  sendsMessages,
  type TableOf,
  type TextFormat,
} from './view/file.ts'

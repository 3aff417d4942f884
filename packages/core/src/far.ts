/** Tables whose rows stay in an engine: for pages and programs, and for those who write an adapter to an engine. */

export { ready } from './play/ready.ts'
export { answerData } from './table/far/answer-data.ts'
export { FarTable, type FarTableOptions, type FetchOptions, type Frozen } from './table/far/far-table.ts'
export { frozenTable } from './table/far/frozen.ts'
export { lookFar } from './table/far/look.ts'
export type {
  FarAnswer,
  FarAsking,
  FarBucket,
  FarColumnFacts,
  FarEngine,
  FarMeasure,
  FarOffsets,
  FarQuestion,
  FarTableFacts,
  FarTest,
  FarTimes,
  FarValue,
} from './table/far/model.ts'
export { remoteEngine } from './table/far/remote.ts'
export { describedTable, farTable } from './table/far/shaper.ts'

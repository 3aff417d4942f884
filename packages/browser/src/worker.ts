/** Data that are read in a worker: what the page calls, and what the module of the worker calls. None of what draws. */
export { type PackedTable, packTable, unpackTable } from '@dapplo/core/internal-files'
export type { FetchOptions } from './feed/fetch-table.ts'
export { readForPages, readInWorker } from './feed/read-in-worker.ts'

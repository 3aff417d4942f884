/** Charts of a page over rows that stay in a database. */

export {
  type FarEngine,
  FarTable,
  type FarTableOptions,
  type FetchOptions,
  type Frozen,
  farTable,
  frozenTable,
  lookFar,
  ready,
  remoteEngine,
} from '@dapplo/core/far'

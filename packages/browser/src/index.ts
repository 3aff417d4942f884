/** Dapplo for pages: everything of the core, and mount. */
export * from '@dapplo/core'
export { type FetchOptions, fetchTable } from './fetch-table.ts'
export { chartById, type Live, type MountOptions, mount } from './mount.ts'

/** Dapplo for pages: everything of the core, and mount. */
export * from '@dapplo/core'
export { ChartElement, defineElement } from './element.ts'
export { type Feed, type FeedOptions, type FeedState, feed } from './feed.ts'
export { type FetchOptions, fetchTable } from './fetch-table.ts'
export { fitFrames } from './frame-protocol.ts'
export { chartById, type Live, type MountOptions, mount } from './mount.ts'

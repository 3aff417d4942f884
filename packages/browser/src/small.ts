/** Dapplo for pages that count bytes: kinds are passed as objects, and only those used are bundled. */
export * from '@dapplo/core/small'
export { chartById, type Live, type MountOptions, mount } from './mount.ts'

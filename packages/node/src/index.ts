/** Dapplo in Node: files in, pictures and pages out. */
export * from '@dapplo/core'
export { type EmbedOptions, embedPage } from './embed.ts'
export { fileBeside, type OpenOptions, openChart, openTable, readFileText, writeWhole } from './open.ts'
export { type PictureFrame, paintPng, sceneOf, toPng, toSvg } from './picture.ts'

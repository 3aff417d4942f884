/** Dapplo in Node: files in, pictures and pages out. */
export * from '@dapplo/core'
export { toCsv, toJson } from './data.ts'
export {
  type ElementScript,
  type EmbedOptions,
  elementScript,
  embedElement,
  embedPage,
  embedSnippet,
  scriptHash,
} from './embed.ts'
export { confinedFile, fileBeside, readFileText, writeWhole } from './files.ts'
export { type FilmFormat, type FilmOf, type FilmOptions, toFilm, writeFilm } from './film.ts'
export { addFont } from './fonts.ts'
export {
  type MailFrame,
  type MailHeads,
  type MailParts,
  type MailPicture,
  mailParts,
  toMail,
} from './mail.ts'
export { type OpenOptions, openChart, openTable } from './open.ts'
export {
  findingsOf,
  type PictureFrame,
  paintPng,
  type SvgFonts,
  sceneOf,
  toOutlinedSvg,
  toPdf,
  toPng,
  toSvg,
} from './picture.ts'
export type { FilmStep } from './reel.ts'
export { toText } from './terminal.ts'

/** Dapplo for pages that count bytes: kinds and parts are passed as objects, and only those used are bundled. */
import { mountMaker } from './live/mount.ts'

export * from '@dapplo/core/small'
export { controls } from './controls/part.ts'
export { exploring } from './explore/exploring.ts'
export { keyboard } from './keys/keyboard.ts'
export type { Deed, Happening, Live, MountOptions, Part, PartName } from './live/model.ts'
export { motion } from './live/motion.ts'
export { chartById } from './live/mount.ts'
export { menu } from './menu/part.ts'
export { playback } from './play/playback.ts'
export { saving } from './save/saving.ts'
export { tableView } from './tables/table-view.ts'

/** Like `mount` of the whole library, with no parts but those that it is handed: `mount(chart, place, { parts: [motion] })`. */
export const mount = /* @__PURE__ */ mountMaker([])

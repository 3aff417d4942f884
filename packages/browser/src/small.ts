/** Dapplo for pages that count bytes: kinds and parts are passed as objects, and only those used are bundled. */
import { mountMaker } from './mount.ts'

export * from '@dapplo/core/small'
export { chartById, type Live, type MountOptions } from './mount.ts'
export type { Part, PartName } from './part.ts'
export { controls } from './parts/controls.ts'
export { exploring } from './parts/exploring.ts'
export { keyboard } from './parts/keyboard.ts'
export { menu } from './parts/menu.ts'
export { motion } from './parts/motion.ts'
export { playback } from './parts/playback.ts'
export { saving } from './parts/saving.ts'
export { tableView } from './parts/table-view.ts'

/** Like `mount` of the whole library, with no parts but those that it is handed: `mount(chart, place, { parts: [motion] })`. */
export const mount = /* @__PURE__ */ mountMaker([])

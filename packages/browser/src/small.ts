/** Dapplo for pages that count bytes: kinds and parts are passed as objects, and only those used are bundled. */
import { mountMaker } from './live/mount.ts'
import { whenReadyMaker } from './waiting/mount-when-ready.ts'

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
export type { AwaitedChart } from './waiting/mount-when-ready.ts'
export type { WaitingSigns } from './waiting/sign.ts'

/** Like `mount` of the whole library, with no parts but those that it is handed: `mount(chart, place, { parts: [motion] })`. */
export const mount = /* @__PURE__ */ mountMaker([])

/** Like `mountWhenReady` of the whole library, with the parts that it is handed. */
export const mountWhenReady = /* @__PURE__ */ whenReadyMaker(mount)

import { mountMaker } from './live/mount.ts'
import { allParts } from './parts.ts'
import { whenReadyMaker } from './waiting/mount-when-ready.ts'

/**
 * Shows a chart in an element, which it fills and whose size it follows. It moves when its tables change.
 * Mounting on an element that has a chart replaces that. Throws `no-element` when there is no such element.
 */
export const mount = /* @__PURE__ */ mountMaker(allParts)

/**
 * Shows a chart once its data are there: `make` fetches them and makes the chart. Meanwhile the place shows that something
 * is on its way, and where it fails, why, with a way to try again; `loading` and `failed` put something else there.
 */
export const mountWhenReady = /* @__PURE__ */ whenReadyMaker(mount)

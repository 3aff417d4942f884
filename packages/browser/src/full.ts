import { mountMaker } from './live/mount.ts'
import { allParts } from './parts.ts'

/**
 * Shows a chart in an element, which it fills and whose size it follows. It moves when its tables change.
 * Mounting on an element that has a chart replaces that. Throws `no-element` when there is no such element.
 */
export const mount = /* @__PURE__ */ mountMaker(allParts)

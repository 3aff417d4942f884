/** The element for pages without a bundler: makes it known, and lays the library open as `dapplo`. */
import * as library from '../index.ts'

declare global {
  /** The library, on pages that load it as a script of its own. */
  var dapplo: typeof library | undefined
}

// Two scripts on one page are one library: the first stays.
if (!customElements.get('dapplo-chart')) {
  library.defineElement()
  globalThis.dapplo = library
}

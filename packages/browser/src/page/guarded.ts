/** Does something whose mistakes are another's: what it throws is reported, and keeps nothing else from going on. */
export function guarded(act: () => void): void {
  try {
    act()
  } catch (error) {
    reportError(error)
  }
}

interface Surroundings {
  reportError?: (fault: unknown) => void
  console?: { error(...what: unknown[]): void }
}

/** Tells of what a listener threw where developers look for it: the page's own error events, else the console. */
export function reportFault(fault: unknown): void {
  const { reportError, console } = globalThis as unknown as Surroundings
  if (reportError) reportError(fault)
  else console?.error(fault)
}

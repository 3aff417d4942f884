const ends: (() => Promise<void> | undefined)[] = []

/** What is to be done when a command has done its work, such as closing what it opened. */
export const atEnd = (end: () => Promise<void> | undefined): void => {
  ends.push(end)
}

/** Does what was left for the end. */
export async function end(): Promise<void> {
  await Promise.allSettled(ends.splice(0).map(one => one()))
}

import { guarded } from './guarded.ts'

/** Milliseconds of work in a moment in which the page has nothing else to do. */
const WORK = 8
/** Milliseconds after which it is done all the same. */
const LATEST = 500

const waiting = new Set<() => void>()

/** Not every browser tells when it is idle. */
const ask: (act: (left: () => number) => void) => void = act =>
  typeof requestIdleCallback === 'function'
    ? requestIdleCallback(deadline => act(() => deadline.timeRemaining()), { timeout: LATEST })
    : setTimeout(() => act(() => 0), 50)

/** Does something once the page has nothing else to do; what waits already is not put twice. Returns what takes it back. */
export function whenIdle(act: () => void): () => void {
  if (waiting.size === 0) ask(work)
  waiting.add(act)
  return () => waiting.delete(act)
}

function work(left: () => number): void {
  const end = performance.now() + Math.max(WORK, left())
  for (const act of waiting) {
    waiting.delete(act)
    guarded(act)
    if (performance.now() >= end) break
  }
  if (waiting.size > 0) ask(work)
}

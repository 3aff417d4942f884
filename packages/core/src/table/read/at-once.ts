/** Does work at one go that could be done step by step. */
export function atOnce<T>(work: Generator<unknown, T>): T {
  let step = work.next()
  while (!step.done) step = work.next()
  return step.value
}

import type { Frame, State } from '../describe/frame.ts'
import { DapploError } from '../finding/error.ts'
import type { Chart } from '../view/chart.ts'
import type { Spread } from '../view/spread.ts'
import { View } from '../view/view.ts'
import { periodsInTime } from './periods-in-time.ts'

/** What every host of JavaScript has. */
interface Timers {
  setTimeout(run: () => void, milliseconds: number): unknown
  clearTimeout(timer: unknown): void
}

/**
 * Ends when all is here that a picture of the chart shows, so that it can be drawn at once. `state`: what a person has done,
 * since a zoom asks for more. `within`: milliseconds after which it fails with `too-slow`; default 30,000.
 */
export async function ready(
  chart: Chart | Spread,
  { state = {}, within = 30_000 }: { state?: State; within?: number } = {},
): Promise<void> {
  // How wide letters are changes nothing about what is asked.
  const frame: Frame = { width: 640, height: 400, measure: text => text.length * 7 }
  const view = new View(chart, state, frame)
  const timers = globalThis as unknown as Timers
  let timer: unknown
  const late = new Promise<never>((_, fail) => {
    timer = timers.setTimeout(
      () =>
        fail(
          new DapploError(
            'too-slow',
            `The values were not here within ${within / 1000} seconds`,
            '',
            'Ask for less, or wait longer.',
          ),
        ),
      within,
    )
  })
  try {
    await Promise.race([Promise.all([view.settled(), periodsInTime(chart, state, frame)]), late])
  } finally {
    timers.clearTimeout(timer)
  }
  const [failed] = view.failures
  if (failed) throw new DapploError(failed.code, failed.message, failed.path, failed.remedy)
}

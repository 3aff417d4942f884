import type { Frame, State } from '../describe/frame.ts'
import { answeredElsewhere } from '../table/group/question.ts'
import type { Chart } from '../view/chart.ts'
import { isSpread } from '../view/charts.ts'
import type { Spread } from '../view/spread.ts'
import { View } from '../view/view.ts'
import { askPeriods, Playback } from './playback.ts'

/** Waits for what a played chart shows in any of its periods, where its rows are elsewhere: then it can be played at once. */
export async function periodsInTime(chart: Chart | Spread, state: State, frame: Frame): Promise<void> {
  if (isSpread(chart) || !chart.resolved.throughMeaning || !answeredElsewhere(chart.table)) return
  await Promise.all(askPeriods(chart, chart.resolved.throughMeaning))
  // Places come from the chart as a whole.
  await new View(chart, state, frame).settled()
  await new Playback(chart, state, frame).settled()
}

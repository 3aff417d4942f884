import { chart, compose, reshape } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { followersOf } from '@dapplo/core/internal'
import { time } from './measure.mjs'

const frame = { width: 800, height: 500, measure: measureInter }
const lineOf = (table, x, y) => chart(table, { draw: 'line', x, y, color: 'route' })

/** Milliseconds for sums by time and route: those of a composed chart, less those of the same chart over finished sums. */
export function groupingCost(table, phrase) {
  const sums = reshape(table, [{ group: [phrase, 'route'], values: ['sum of passengers'] }])
  // As if nobody had asked before.
  const whole = time(() => {
    followersOf(table).clear()
    return compose(lineOf(table, phrase, 'sum of passengers'), {}, frame)
  })
  const drawing = time(() =>
    compose(lineOf(sums, { column: phrase }, { column: 'sum of passengers' }), {}, frame),
  )
  return whole - drawing
}

import { chart, compose } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'

/** Sums by time and route, as far as a composed line chart: what a person waits for. */
export const bucketSums = (table, phrase) =>
  compose(
    chart(table, { draw: 'line', x: phrase, y: 'sum of passengers', color: 'route' }),
    {},
    { width: 800, height: 500, measure: measureInter },
  )

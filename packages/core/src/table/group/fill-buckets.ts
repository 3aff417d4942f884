import type { Encoded } from './encoded.ts'
import type { Groups } from './group.ts'

/** Empty buckets are filled in only up to this many marks. */
const MOST_FILLED = 20_000

/** Adds the buckets without rows between the first and the last of every series. */
export function fillBuckets(
  groups: Groups,
  encodings: Encoded[],
  along: number,
): { codes: Int32Array[]; count: number; unfilled: number } {
  const { count, codes } = groups
  const steps = codes[along]
  const series = new Map<string, { has: Set<number>; low: number; high: number; group: number }>()
  for (let group = 0; group < count; group++) {
    if (steps[group] < 0) continue
    let name = ''
    for (let e = 0; e < encodings.length; e++) if (e !== along) name += `${codes[e][group]},`
    let span = series.get(name)
    if (!span) {
      span = { has: new Set(), low: steps[group], high: steps[group], group }
      series.set(name, span)
    }
    span.has.add(steps[group])
    span.low = Math.min(span.low, steps[group])
    span.high = Math.max(span.high, steps[group])
  }
  let lacking = 0
  for (const reach of series.values()) lacking += reach.high - reach.low + 1 - reach.has.size
  if (lacking === 0) return { codes, count, unfilled: 0 }
  if (count + lacking > Math.max(MOST_FILLED, count * 4)) return { codes, count, unfilled: lacking }
  const out = codes.map(column => {
    const grown = new Int32Array(count + lacking)
    grown.set(column)
    return grown
  })
  let at = count
  for (const filled of series.values()) {
    for (let step = filled.low; step <= filled.high; step++) {
      if (filled.has.has(step)) continue
      for (let e = 0; e < encodings.length; e++) out[e][at] = e === along ? step : codes[e][filled.group]
      at++
    }
  }
  return { codes: out, count: count + lacking, unfilled: 0 }
}

import type { Encoded } from './encode.ts'
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
    let one = series.get(name)
    if (!one) {
      one = { has: new Set(), low: steps[group], high: steps[group], group }
      series.set(name, one)
    }
    one.has.add(steps[group])
    one.low = Math.min(one.low, steps[group])
    one.high = Math.max(one.high, steps[group])
  }
  let lacking = 0
  for (const one of series.values()) lacking += one.high - one.low + 1 - one.has.size
  if (lacking === 0) return { codes, count, unfilled: 0 }
  if (count + lacking > Math.max(MOST_FILLED, count * 4)) return { codes, count, unfilled: lacking }
  const out = codes.map(column => {
    const grown = new Int32Array(count + lacking)
    grown.set(column)
    return grown
  })
  let at = count
  for (const one of series.values()) {
    for (let step = one.low; step <= one.high; step++) {
      if (one.has.has(step)) continue
      for (let e = 0; e < encodings.length; e++) out[e][at] = e === along ? step : codes[e][one.group]
      at++
    }
  }
  return { codes: out, count: count + lacking, unfilled: 0 }
}

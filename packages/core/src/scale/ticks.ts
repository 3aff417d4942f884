/**
 * Neat ticks by optimisation, after Talbot, Lin & Hanrahan, "An Extension of Wilkinson's Algorithm for
 * Positioning Tick Labels on Axes" (IEEE InfoVis 2010), without its steps that pass zero by. Candidates are scored for simplicity, coverage, density
 * and legibility; legibility is judged on the labels themselves, at their size.
 */
export interface TickWish {
  /** Ends of what the axis must show, in data units; `min` < `max`. */
  min: number
  max: number
  /** How many ticks would be right; a wish, not a count. */
  wanted: number
  /** Whether ticks may lie outside the ends: then the outermost enclose them. Otherwise all lie inside. */
  enclose: boolean
  /** Only whole numbers. */
  whole?: boolean
  /** 1: labels fit; 0: they only just do; -Infinity: they cannot be read. Called only for candidates that could win. */
  legible?: (ticks: number[], step: number) => number
}

export interface Ticks {
  values: number[]
  step: number
}

/** Steps people count in, the simplest first; ticks are their multiples, so that zero is one wherever it is in view. */
const STEPS = [1, 5, 2, 2.5]
const WEIGHT = { simplicity: 0.25, coverage: 0.2, density: 0.5, legibility: 0.05 }
/** Candidates with more ticks than this multiple of what is wanted, or reaching over this multiple of the data, never win. */
const FAR_OFF = 3

/** A narrower range has no steps: their sizes would be too small for a number. */
export const NARROWEST = 1e-290

/** Steps are counted from zero, so far from it that adding one still makes a difference. */
const COUNTABLE = 2 ** 52

/** Labels that are written and measured in one search at the most. */
const MOST_LABELS = 6000

/** The best ticks for the wish; undefined when nothing is legible. */
export function chooseTicks(wish: TickWish): Ticks | undefined {
  const { min, max, enclose, whole } = wish
  const wanted = Math.max(2, wish.wanted)
  const range = max - min
  if (!(range > NARROWEST) || !Number.isFinite(range)) return undefined
  let written = 0
  // Where labels of one step touch, those of a step four times finer do, too.
  let touching = 0
  const legible = (values: number[], step: number): number => {
    if (!wish.legible) return 1
    written += values.length
    const found = wish.legible(values, step)
    if (found === Number.NEGATIVE_INFINITY) touching = Math.max(touching, step)
    return found
  }
  let best: Ticks | undefined
  let bestScore = Number.NEGATIVE_INFINITY
  const slack = range * 1e-10
  const farthest = Math.max(Math.abs(min), Math.abs(max))

  STEPS.forEach((lead, i) => {
    const simplest = 1 - i / (STEPS.length - 1)
    for (let count = 2; count <= wanted * FAR_OFF + 2; count++) {
      const densest = count >= wanted ? 2 - (count - 1) / (wanted - 1) : 1
      if (weigh(simplest, 1, densest, 1) <= bestScore) {
        if (count >= wanted) break
        continue
      }
      for (let power = Math.ceil(Math.log10(range / (count + 1) / lead)); power < 309; power++) {
        const step = lead * 10 ** power
        const span = step * (count - 1)
        if (
          span > range * FAR_OFF * 4 ||
          weigh(simplest, coverageAtBest(range, span), densest, 1) <= bestScore
        )
          break
        if ((whole && step % 1 !== 0) || farthest / step > COUNTABLE) continue
        const last = Math.ceil(min / step)
        for (let start = Math.floor(max / step) - (count - 1); start <= last; start++) {
          const low = start * step
          const high = low + span
          if (enclose ? low > min + slack || high < max - slack : low < min - slack || high > max + slack)
            continue
          // What begins or ends at zero has nothing on the other side of it.
          if (enclose && ((min === 0 && low < -slack) || (max === 0 && high > slack))) continue
          const coverage = 1 - (0.5 * ((max - high) ** 2 + (min - low) ** 2)) / (0.1 * range) ** 2
          const ratio = ((count - 1) / span / (wanted - 1)) * (Math.max(high, max) - Math.min(low, min))
          const density = 2 - Math.max(ratio, 1 / ratio)
          if (weigh(simplest, coverage, density, 1) <= bestScore) continue
          if (wish.legible && (step <= touching / 4 || written > MOST_LABELS)) continue
          const values = tickValues(start, step, count)
          const score = weigh(simplest, coverage, density, legible(values, step))
          if (score > bestScore) {
            bestScore = score
            best = { values, step }
          }
        }
      }
    }
  })
  return best
}

function weigh(simplicity: number, coverage: number, density: number, legibility: number): number {
  return (
    WEIGHT.simplicity * simplicity +
    WEIGHT.coverage * coverage +
    WEIGHT.density * density +
    WEIGHT.legibility * legibility
  )
}

function coverageAtBest(range: number, span: number): number {
  if (span <= range) return 1
  const half = (span - range) / 2
  return 1 - half ** 2 / (0.1 * range) ** 2
}

function tickValues(start: number, step: number, count: number): number[] {
  // 0.30000000000000004 is nobody's tick: values are rounded to the digits that the step needs.
  const digits = Math.max(0, 1 - Math.floor(Math.log10(step) + 1e-9))
  const parts = 10 ** digits
  const values = new Array<number>(count)
  for (let i = 0; i < count; i++) {
    const value = (start + i) * step
    const whole = Math.round(value * parts)
    // Powers of ten are exact up to here, and so is what whole numbers divided by them are nearest to.
    values[i] = digits <= 20 && Math.abs(whole) < Number.MAX_SAFE_INTEGER ? whole / parts + 0 : value
  }
  return values
}

/** How many multiples of `step` lie inside the ends. */
export const countEvery = (min: number, max: number, step: number): number =>
  Math.max(0, Math.floor(max / step + 1e-9) - Math.ceil(min / step - 1e-9) + 1)

/** Ticks every `step`, on its multiples, inside the ends. Ask `countEvery` first how many there will be. */
export const ticksEvery = (min: number, max: number, step: number): Ticks => ({
  values: tickValues(Math.ceil(min / step - 1e-9), step, countEvery(min, max, step)),
  step,
})

/** Divisions between ticks: fifths, or quarters of a step of two, inside the ends. */
export function minorBetween(ticks: readonly number[], step: number, min: number, max: number): number[] {
  const lead = Math.round((step / 10 ** Math.floor(Math.log10(step) + 1e-9)) * 100) / 100
  const parts = lead === 2 ? 4 : 5
  const out: number[] = []
  if (ticks.length === 0) return out
  for (let i = -parts; i < ticks.length * parts; i++) {
    const value = Number((ticks[0] + (i * step) / parts).toPrecision(14))
    if (i % parts !== 0 && value >= min && value <= max) out.push(value)
  }
  return out
}

/** Powers of the base inside the ends, thinned to about `wanted`, with the multiples between them as minor ticks. */
export function logTicks(
  min: number,
  max: number,
  wanted: number,
  base = 10,
): { major: number[]; minor: number[] } {
  if (!(min > 0) || !(max > min) || max === Number.POSITIVE_INFINITY) return { major: [], minor: [] }
  const log = (value: number) => Math.log(value) / Math.log(base)
  const low = Math.ceil(log(min) - 1e-9)
  const high = Math.floor(log(max) + 1e-9)
  const powers = high - low + 1
  const power = (exponent: number) => (exponent < 0 ? 1 / base ** -exponent : base ** exponent)
  const inside = (value: number) => value >= min * (1 - 1e-9) && value <= max * (1 + 1e-9)
  const between = (major: readonly number[], from: number, to: number) => {
    const out: number[] = []
    for (let e = from; e <= to; e++)
      for (let lead = 1; lead < 10; lead++)
        if (inside(lead * power(e)) && !major.includes(lead * power(e))) out.push(lead * power(e))
    return out
  }
  if (powers < 3 && base === 10) {
    // Less than two full decades: 1, 2 and 5 of each, or plainly neat numbers when even those are too few.
    const some: number[] = []
    for (let e = low - 1; e <= high + 1; e++)
      for (const lead of [1, 2, 5]) if (inside(lead * power(e))) some.push(lead * power(e))
    if (some.length >= 3) return { major: some, minor: between(some, low - 1, high + 1) }
    return { major: chooseTicks({ min, max, wanted, enclose: false })?.values ?? some, minor: [] }
  }
  const every = Math.max(1, Math.ceil(powers / Math.max(2, wanted)))
  const major: number[] = []
  const minor: number[] = []
  for (let e = low - 1; e <= high; e++) {
    const value = power(e)
    if (inside(value) && (((e % every) + every) % every === 0 || powers <= wanted)) major.push(value)
    else if (inside(value)) minor.push(value)
    if (every === 1)
      for (let lead = 2; lead < base && base <= 10; lead++) if (inside(lead * value)) minor.push(lead * value)
  }
  return { major, minor }
}

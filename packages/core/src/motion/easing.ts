import { DapploError } from '../finding/error.ts'

/** Progress from 0 to 1 in, progress from 0 to 1 out; may leave that span on the way. */
export type Easing = (progress: number) => number

const NAMED: Record<string, [number, number, number, number]> = {
  ease: [0.25, 0.1, 0.25, 1],
  'ease-in': [0.42, 0, 1, 1],
  'ease-out': [0, 0, 0.58, 1],
  'ease-in-out': [0.42, 0, 0.58, 1],
}

/** Whether steps jump at the beginning and at the end, by their name in CSS. */
const JUMPS: Record<string, readonly [first: number, last: number]> = {
  start: [1, 0],
  'jump-start': [1, 0],
  end: [0, 1],
  'jump-end': [0, 1],
  'jump-none': [0, 0],
  'jump-both': [1, 1],
}

/** Reads an easing function in CSS syntax: a keyword, `cubic-bezier(…)`, `steps(…)` or `linear(…)`. Throws `bad-option`. */
export function readEasing(text: string, path = 'motion.easing'): Easing {
  const easing = text.trim().toLowerCase()
  if (easing === 'linear') return progress => progress
  if (Object.hasOwn(NAMED, easing)) return cubicBezier(...NAMED[easing])
  const points = /^linear\((.*)\)$/.exec(easing)
  if (points) {
    const stops = readStops(points[1])
    if (stops) return piecewise(stops)
  }
  const numbers = /^(cubic-bezier|steps)\(([^)]*)\)$/.exec(easing)
  if (numbers?.[1] === 'cubic-bezier') {
    const [x1, y1, x2, y2, ...more] = numbers[2].split(',').map(Number)
    if (
      more.length === 0 &&
      [x1, y1, x2, y2].every(Number.isFinite) &&
      x1 >= 0 &&
      x1 <= 1 &&
      x2 >= 0 &&
      x2 <= 1
    )
      return cubicBezier(x1, y1, x2, y2)
  }
  if (numbers?.[1] === 'steps') {
    const [count, where = 'end'] = numbers[2].split(',').map(part => part.trim())
    const n = Number(count)
    if (Number.isInteger(n) && n > 0 && Object.hasOwn(JUMPS, where)) {
      const [first, last] = JUMPS[where]
      const jumps = n - 1 + first + last
      const step = (progress: number) => Math.floor(Math.min(progress, 1 - 1e-9) * n)
      if (jumps > 0) return progress => (progress >= 1 ? 1 : (step(Math.max(0, progress)) + first) / jumps)
    }
  }
  throw new DapploError(
    'bad-option',
    `"${text}" is no easing function`,
    path,
    'Write one as in CSS, such as "ease-in-out" or "cubic-bezier(0.4, 0, 0.2, 1)".',
  )
}

/** A cubic Bézier curve through (0, 0) and (1, 1), solved for y at x by bisection after Newton's steps. */
function cubicBezier(x1: number, y1: number, x2: number, y2: number): Easing {
  const at = (a: number, b: number, t: number) =>
    ((1 - 3 * b + 3 * a) * t + (3 * b - 6 * a)) * t * t + 3 * a * t
  const slope = (a: number, b: number, t: number) =>
    3 * (1 - 3 * b + 3 * a) * t * t + 2 * (3 * b - 6 * a) * t + 3 * a
  return progress => {
    if (progress <= 0) return 0
    if (progress >= 1) return 1
    let t = progress
    for (let i = 0; i < 8; i++) {
      const rise = slope(x1, x2, t)
      if (Math.abs(rise) < 1e-6) break
      t -= (at(x1, x2, t) - progress) / rise
    }
    if (!(t >= 0 && t <= 1) || Math.abs(at(x1, x2, t) - progress) > 1e-6) {
      let low = 0
      let high = 1
      for (let i = 0; i < 40; i++) {
        t = (low + high) / 2
        if (at(x1, x2, t) < progress) low = t
        else high = t
      }
    }
    return at(y1, y2, t)
  }
}

/** A place on a piecewise straight easing: progress in, progress out. */
type Stop = readonly [at: number, value: number]

/** The stops of `linear(0, 0.25 75%, 1)` (CSS Easing Level 2): those without a percentage lie evenly between their neighbours. */
function readStops(text: string): Stop[] | undefined {
  const given: { value: number; at: number | undefined }[] = []
  for (const part of text.split(',')) {
    const words = part.trim().split(/\s+/)
    const values = words.filter(word => !word.endsWith('%')).map(Number)
    const places = words.filter(word => word.endsWith('%')).map(word => Number(word.slice(0, -1)) / 100)
    if (values.length !== 1 || places.length > 2 || ![...values, ...places].every(Number.isFinite))
      return undefined
    if (places.length === 0) given.push({ value: values[0], at: undefined })
    for (const at of places) given.push({ value: values[0], at })
  }
  if (given.length < 2) return undefined
  given[0].at ??= 0
  given[given.length - 1].at ??= 1
  let most = 0
  for (const stop of given) {
    if (stop.at === undefined) continue
    // A stop never lies before an earlier one.
    most = Math.max(most, stop.at)
    stop.at = most
  }
  for (let i = 1; i < given.length; i++) {
    if (given[i].at !== undefined) continue
    let next = i
    while (given[next].at === undefined) next++
    const [before, after] = [given[i - 1].at!, given[next].at!]
    for (let k = i; k < next; k++) given[k].at = before + ((after - before) * (k - i + 1)) / (next - i + 1)
  }
  return given.map(({ at, value }) => [at!, value])
}

function piecewise(stops: readonly Stop[]): Easing {
  return progress => {
    let i = stops.findIndex(([at]) => at > progress)
    if (i < 0) i = stops.length - 1
    i = Math.max(1, i)
    const [a, b] = [stops[i - 1], stops[i]]
    return b[0] === a[0] ? b[1] : a[1] + ((b[1] - a[1]) * (progress - a[0])) / (b[0] - a[0])
  }
}

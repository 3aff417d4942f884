import type { Finding } from '../finding/error.ts'
import { tickTexts } from '../scale/number-format.ts'
import { chooseTicks, countEvery, logTicks, minorBetween, ticksEvery } from '../scale/ticks.ts'
import { inFigures } from '../theme/text-width.ts'
import {
  MOST_GIVEN,
  mostLabels,
  readableStep,
  ticksLeftOut,
  tooDense,
  tooFar,
  tooMany,
} from './asked-ticks.ts'
import { type AxisContext, type AxisLayout, LABEL_GAP, type Room } from './axis-parts.ts'
import { collide, keptApart } from './tick-room.ts'

/** The pixels beyond the values at both ends, where these may move; never more than a third of the axis. */
const roomAtEnds = ({ input: { round }, length }: AxisContext, beyond: Room) => ({
  low: round.min ? Math.min(beyond.min, length / 3) : 0,
  high: round.max ? Math.min(beyond.max, length / 3) : 0,
})

/** Ends that leave so many pixels beyond the values. */
function withRoom(context: AxisContext, beyond: Room): [number, number] {
  const { input, length } = context
  const { min, max, kind } = input
  const { low, high } = roomAtEnds(context, beyond)
  const [from, to] = [kind.forward(min), kind.forward(max)]
  const pixel = (to - from) / Math.max(1, length - low - high)
  // What needs no room keeps its very value.
  return [
    low > 0 ? kind.backward(from - low * pixel) : min,
    high > 0 ? kind.backward(to + high * pixel) : max,
  ]
}

/** The same once one end has been rounded, which takes of the room at the other: what is lacking is added. */
function stillWithRoom(
  context: AxisContext,
  beyond: Room,
  least: number,
  greatest: number,
): [number, number] {
  const { input, length } = context
  const { min, max, kind } = input
  let [from, to] = [kind.forward(least), kind.forward(greatest)]
  const room = roomAtEnds(context, beyond)
  const [low, high] = [room.low / length, room.high / length]
  // Half a pixel is none.
  const lacks = (has: number, share: number) => has < (to - from) * share - (to - from) / (2 * length)
  const [first, last] = [kind.forward(min), kind.forward(max)]
  if (low > 0 && lacks(first - from, low)) from = (first - low * to) / (1 - low)
  if (high > 0 && lacks(to - last, high)) to = (last - high * from) / (1 - high)
  return [
    from === kind.forward(least) ? least : kind.backward(from),
    to === kind.forward(greatest) ? greatest : kind.backward(to),
  ]
}

/** An axis of numbers: ends at neat values where they may move, ticks by optimisation on the labels themselves. */
export function numberAxis(context: AxisContext): AxisLayout {
  const { input, length, level, make } = context
  let { min, max } = input
  const { look } = input
  let { round } = input
  if (input.beyond && input.kind.allows(min)) {
    ;[min, max] = withRoom(context, input.beyond)
    // Room for large points is no reason for numbers on the other side of zero, where there are no values.
    round = {
      min: round.min && !(min < 0 && input.min >= 0),
      max: round.max && !(max > 0 && input.max <= 0),
    }
  }
  const { openFrom = Number.POSITIVE_INFINITY } = input
  const texts = (values: readonly number[]) =>
    tickTexts(values, look).map((text, i) => (values[i] >= openFrom - 1e-9 ? `${text}+` : text))
  // A reader needs a few marks to measure by, and more only slowly as the axis grows.
  const most = mostLabels(context)
  const findings: Finding[] = []
  if (typeof input.wish === 'number' && input.wish > most)
    findings.push(tooMany(input.name, input.wish, most))
  const wanted =
    typeof input.wish === 'number'
      ? Math.max(1, Math.min(input.wish, most))
      : level
        ? Math.max(2, 1 + length / 110)
        : 2.5 + length / 110
  let { wish } = input
  if (typeof wish === 'object' && !Array.isArray(wish) && typeof wish.every === 'number')
    if (wish.every > 2 * (max - min)) {
      findings.push(tooFar(input.name, wish.every, look.percent === true))
      wish = undefined
    }
  let ticks: number[]
  let minor: number[] = []
  let step = Number.NaN
  if (Array.isArray(wish)) ticks = wish.slice(0, MOST_GIVEN)
  else if (typeof wish === 'object' && typeof wish.every === 'number') {
    const fits = (values: number[]) => !collide(values.map(make(min, max).map), () => texts(values), context)
    step = readableStep(wish.every, min, max, context, input.kind.name === 'linear' ? fits : () => true)
    if (step !== wish.every)
      findings.push(tooDense(input.name, wish.every, countEvery(min, max, wish.every), step || undefined))
    if (!(step > 0)) step = max - min || 1
    if (round.min) min = Math.floor(min / step + 1e-9) * step
    if (round.max) max = Math.ceil(max / step - 1e-9) * step
    ticks = ticksEvery(min, max, step).values
  } else if (input.kind.name === 'log') {
    if (round.min) min = neatEnd(min, false)
    if (round.max) max = neatEnd(max, true)
    const found = logTicks(min, max, wanted)
    const worth = (value: number) => !(look.whole || input.whole) || Number.isInteger(value)
    ticks = found.major.filter(worth)
    minor = found.minor.filter(worth)
  } else if (input.kind.name === 'linear') {
    const whole = (look.whole || input.whole) && max - min >= 1
    const enclose = round.min && round.max
    const legible = (values: number[]) => {
      const scale = make(Math.min(min, values[0]), Math.max(max, values[values.length - 1]))
      return collide(values.map(scale.map), () => texts(values), context) ? Number.NEGATIVE_INFINITY : 1
    }
    const found = chooseTicks({ min, max, wanted, enclose, whole, legible })
    ticks = found?.values ?? fewest(min, max, length)
    if (!found && whole) ticks = [...new Set([Math.ceil(min), Math.floor(max)])]
    // Around a single whole number there is no other tick than itself.
    if (input.whole && !whole) ticks = ticksEvery(min, max, 1).values
    step = found?.step ?? Number.NaN
    // Ends that may move are moved out to the ticks; where one is fixed, the other follows.
    if (found && round.max && ticks[ticks.length - 1] < max)
      ticks = [...ticks, Number((ticks[ticks.length - 1] + step).toPrecision(15))]
    if (found && round.min && ticks[0] > min) ticks = [Number((ticks[0] - step).toPrecision(15)), ...ticks]
    if (round.min) min = Math.min(min, ticks[0])
    if (round.max) max = Math.max(max, ticks[ticks.length - 1])
  } else {
    const found = bentTicks(context, wanted, min, max)
    ;[min, max, ticks] = [found.min, found.max, found.ticks]
    if (look.whole || input.whole) ticks = ticks.filter(Number.isInteger)
  }
  if (input.beyond && input.kind.allows(min)) [min, max] = stillWithRoom(context, input.beyond, min, max)
  const scale = make(min, max)
  const low = Math.min(min, max)
  const high = Math.max(min, max)
  ticks = ticks.filter(value => value >= low && value <= high && input.kind.allows(value))
  if (ticks.some(value => value > openFrom))
    ticks = [...ticks.filter(value => value < openFrom - step * 0.3), openFrom]
  if (input.kind.name !== 'linear' || Array.isArray(wish)) {
    const all = texts(ticks)
    ticks = keptApart(ticks, scale, all, context).map(i => ticks[i])
    if (Array.isArray(wish)) findings.push(...ticksLeftOut(input.name, wish.length, ticks.length))
  }
  if (input.minor && input.kind.name === 'linear' && step > 0) minor = minorBetween(ticks, step, low, high)
  if (input.minor === false) minor = []
  // Labels are written over all ticks that are shown, so that their decimals agree.
  const labels = texts(ticks)
  const thickness = level
    ? LABEL_GAP + context.font.size
    : LABEL_GAP + Math.max(0, ...labels.map(text => context.measure(inFigures(text), context.font)))
  return {
    scale,
    ticks,
    labelAt: ticks,
    minor,
    labels: labels.map(text => [text]),
    pictures: [],
    larger: [],
    turn: 0,
    thickness,
    findings,
  }
}

/** Ends of which one is less than so many times the other. */
const NEAR = 4

/** Ticks for root and signed-log scales: neat numbers, about evenly spaced as they are drawn. */
function bentTicks(
  { input, length }: AxisContext,
  wanted: number,
  least: number,
  greatest: number,
): { min: number; max: number; ticks: number[] } {
  const { kind, round } = input
  let [min, max] = [least, greatest]
  // Where ends are near to each other the scale is all but straight, and numbers of one figure are too few.
  if (min * max > 0 && Math.max(min / max, max / min) < NEAR) {
    const found = chooseTicks({ min, max, wanted, enclose: round.min && round.max })
    const ticks = found?.values ?? fewest(min, max, length)
    if (round.min) min = Math.min(min, ticks[0])
    if (round.max) max = Math.max(max, ticks[ticks.length - 1])
    return { min, max, ticks }
  }
  if (round.min) min = neatEnd(min, false)
  if (round.max) max = neatEnd(max, true)
  if (kind.name === 'signed log') return { min, max, ticks: signedPowers(min, max, wanted) }
  const a = kind.forward(min)
  const b = kind.forward(max)
  const count = Math.max(2, Math.min(Math.round(wanted) + 1, Math.floor(length / 24)))
  const values = new Set<number>()
  for (let i = 0; i <= count; i++) {
    const value = kind.backward(a + ((b - a) * i) / count)
    // Rounded to one, two or five of its own size, which keeps neighbours about evenly apart.
    const size = Math.abs(value)
    const near = size < (max - min) * 1e-6 ? 0 : Math.sign(value) * nearestNeat(size)
    if (near >= min && near <= max) values.add(near)
  }
  if (min <= 0 && max >= 0) values.add(0)
  return { min, max, ticks: [...values].sort((p, q) => p - q) }
}

/** Zero and powers of ten on both sides of it, every so many-th where all would be too many. */
function signedPowers(min: number, max: number, wanted: number): number[] {
  const reach = Math.max(1, Math.floor(Math.log10(Math.max(Math.abs(min), Math.abs(max), 1)) + 1e-9))
  const sides = (min < 0 ? 1 : 0) + (max > 0 ? 1 : 0)
  const every = Math.max(1, Math.ceil((reach * sides) / Math.max(2, wanted * 1.5)))
  const out = new Set<number>([0])
  for (let power = reach; power >= 1; power -= every) {
    out.add(10 ** power)
    out.add(-(10 ** power))
  }
  return [...out].filter(value => value >= min && value <= max).sort((a, b) => a - b)
}

function nearestNeat(size: number): number {
  const power = 10 ** Math.floor(Math.log10(size))
  return [1, 2, 5, 10].reduce(
    (best, lead) =>
      Math.abs(Math.log(lead * power) - Math.log(size)) < Math.abs(Math.log(best) - Math.log(size))
        ? lead * power
        : best,
    power,
  )
}

/** 1, 2 or 5 times a power of ten, at or below the value; for negative values, of the distance from zero upwards. */
export function floorLog(value: number): number {
  const size = Math.abs(value)
  const power = 10 ** Math.floor(Math.log10(size))
  const leads = value > 0 ? [5, 2, 1] : [1, 2, 5, 10]
  const lead =
    value > 0
      ? leads.find(l => l * power <= size * (1 + 1e-9))
      : leads.find(l => l * power >= size * (1 - 1e-9))
  return Math.sign(value) * (lead ?? 1) * power
}

/** An end moved outwards to 1, 2 or 5 times a power of ten, as far as there is such a number. */
function neatEnd(value: number, up: boolean): number {
  const neat = up ? -floorLog(-value) : floorLog(value)
  return neat !== 0 && Number.isFinite(neat) ? neat : value
}

/** Where not even two labels fit, the ends that matter most. */
function fewest(min: number, max: number, length: number): number[] {
  return length < 30 ? [min <= 0 && max >= 0 ? 0 : max] : [min, max]
}

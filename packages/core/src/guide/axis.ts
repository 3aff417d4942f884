import type { NumberLook } from '../scale/number-format.ts'
import { tickTexts } from '../scale/number-format.ts'
import type { PositionScale } from '../scale/scale.ts'
import { positionScale, type ScaleKind } from '../scale/scale.ts'
import { chooseTicks, logTicks, ticksEvery } from '../scale/ticks.ts'
import { cycleText } from '../scale/time-format.ts'
import { chooseTimeTicks, labelTimes, type TimeStep, timesEvery } from '../scale/time-ticks.ts'
import { addUnits, type Unit } from '../table/calendar.ts'
import type { Zone } from '../table/zone.ts'
import type { Font, Measure } from '../theme/measure.ts'
import { ellipsis, LINE, wrap } from './text.ts'

/** What an axis has to show and how. */
export interface AxisInput {
  name: string
  side: 'bottom' | 'left' | 'right' | 'top'
  kind: ScaleKind
  min: number
  max: number
  round: { min: boolean; max: boolean }
  reverse: boolean
  words: readonly string[]
  zone: Zone
  look: NumberLook
  /** Ticks asked for: about how many, which, or how far apart. */
  wish?: number | number[] | { every: number | TimeStep }
  /** The finest unit the values have: no ticks between days where there is one value a day. */
  unit?: Unit
  cycle?: string
  /** The widest a label beside the plot may be, in pixels. */
  labelRoom: number
  timeFormat?: Intl.DateTimeFormatOptions
}

/** An axis worked out for a length of pixels. */
export interface AxisLayout {
  scale: PositionScale
  ticks: number[]
  /** Where labels stand: at their ticks, but in the middle of the interval where ticks begin buckets. */
  labelAt: number[]
  minor: number[]
  /** Lines of text at each tick. */
  labels: string[][]
  /** The larger unit of time, at the ticks where it changes; empty texts elsewhere. */
  larger: string[]
  /** Degrees by which labels are turned. */
  turn: number
  /** Pixels between the plot and the far edge of the labels. */
  thickness: number
}

/** Room between plot and labels, in pixels. */
export const LABEL_GAP = 7
/** Least free space between neighbouring labels, in pixels. */
const APART = 10
const SLANT = -38

/** Chooses domain ends, ticks and labels for an axis whose plot spans `range` pixels. */
export function layoutAxis(
  input: AxisInput,
  range: readonly [number, number],
  font: Font,
  measure: Measure,
): AxisLayout {
  const level = input.side === 'bottom' || input.side === 'top'
  const length = Math.abs(range[1] - range[0])
  const flip = (pair: readonly [number, number]): readonly [number, number] =>
    input.reverse ? [pair[1], pair[0]] : pair
  const make = (min: number, max: number) =>
    positionScale({
      name: input.name,
      kind: input.kind,
      domain: [min, max],
      range: flip(range),
      words: input.words,
      zone: input.zone,
    })
  if (input.kind.name === 'category')
    return categoryAxis(input, make(input.min, input.max), level, font, measure)
  if (input.kind.name === 'time')
    return timeAxis(input, make(input.min, input.max), length, level, font, measure)
  return numberAxis(input, make, length, level, font, measure)
}

function numberAxis(
  input: AxisInput,
  make: (min: number, max: number) => PositionScale,
  length: number,
  level: boolean,
  font: Font,
  measure: Measure,
): AxisLayout {
  let { min, max } = input
  const { look, wish, round } = input
  const texts = (values: readonly number[]) => tickTexts(values, look)
  // A reader needs a few marks to measure by, and more only slowly as the axis grows.
  const wanted =
    typeof wish === 'number' ? Math.max(1, wish) : level ? Math.max(2, 1 + length / 110) : 2.5 + length / 110
  const legible = (low: number, high: number) => (values: number[]) => {
    const scale = make(Math.min(low, values[0]), Math.max(high, values[values.length - 1]))
    return collide(values.map(scale.map), texts(values), level, font, measure) ? Number.NEGATIVE_INFINITY : 1
  }
  let ticks: number[]
  let minor: number[] = []
  if (Array.isArray(wish)) ticks = wish
  else if (typeof wish === 'object' && typeof wish.every === 'number') {
    const step = wish.every
    if (round.min) min = Math.floor(min / step + 1e-9) * step
    if (round.max) max = Math.ceil(max / step - 1e-9) * step
    ticks = ticksEvery(min, max, step).values
  } else if (input.kind.name === 'log') {
    if (round.min) min = floorLog(min)
    if (round.max) max = -floorLog(-max)
    const found = logTicks(min, max, wanted)
    ticks = found.major
    minor = found.minor
  } else {
    const whole = look.whole && max - min >= 1
    // Ends that may move are moved out to the ticks; with one end fixed, ticks stay inside and the other end follows.
    const enclose = round.min && round.max
    const linear = input.kind.name === 'linear'
    const found = chooseTicks({
      min,
      max,
      wanted,
      enclose,
      whole,
      legible: linear ? legible(min, max) : undefined,
    })
    ticks = found?.values ?? fewest(min, max, length)
    if (found && enclose) {
      min = Math.min(min, ticks[0])
      max = Math.max(max, ticks[ticks.length - 1])
    } else if (found && round.max && ticks[ticks.length - 1] < max) {
      const next = ticks[ticks.length - 1] + found.step
      ticks = [...ticks, next]
      max = next
    } else if (found && round.min && ticks[0] > min) {
      const next = ticks[0] - found.step
      ticks = [next, ...ticks]
      min = next
    }
  }
  const scale = make(min, max)
  ticks = ticks.filter(
    value => value >= Math.min(min, max) && value <= Math.max(min, max) && input.kind.allows(value),
  )
  if (input.kind.name !== 'linear' || Array.isArray(wish))
    ticks = thinned(ticks, scale, texts(ticks), level, font, measure)
  const labels = texts(ticks)
  const thickness = level
    ? LABEL_GAP + font.size
    : LABEL_GAP + Math.max(0, ...labels.map(text => measure(text, font)))
  return {
    scale,
    ticks,
    labelAt: ticks,
    minor,
    labels: labels.map(text => [text]),
    larger: [],
    turn: 0,
    thickness,
  }
}

/** 1, 2 or 5 times a power of ten, at or below the value; for negative values, of the distance from zero upwards. */
function floorLog(value: number): number {
  const size = Math.abs(value)
  const power = 10 ** Math.floor(Math.log10(size))
  const leads = value > 0 ? [5, 2, 1] : [1, 2, 5, 10]
  const lead =
    value > 0
      ? leads.find(l => l * power <= size * (1 + 1e-9))
      : leads.find(l => l * power >= size * (1 - 1e-9))
  return Math.sign(value) * (lead ?? 1) * power
}

/** Where not even two labels fit, the ends that matter most. */
function fewest(min: number, max: number, length: number): number[] {
  return length < 30 ? [min <= 0 && max >= 0 ? 0 : max] : [min, max]
}

/** Whether any two neighbouring labels come too close. */
function collide(
  positions: number[],
  texts: string[],
  level: boolean,
  font: Font,
  measure: Measure,
): boolean {
  const extent = (text: string) => (level ? measure(text, font) + APART : font.size * LINE)
  for (let i = 1; i < positions.length; i++) {
    if ((extent(texts[i]) + extent(texts[i - 1])) / 2 > Math.abs(positions[i] - positions[i - 1])) return true
  }
  return false
}

/** Leaves out ticks whose labels would touch the one before. */
function thinned(
  ticks: number[],
  scale: PositionScale,
  texts: string[],
  level: boolean,
  font: Font,
  measure: Measure,
): number[] {
  const kept: number[] = []
  ticks.forEach((_, i) => {
    const last = kept.at(-1)
    if (
      last === undefined ||
      !collide([scale.map(ticks[last]), scale.map(ticks[i])], [texts[last], texts[i]], level, font, measure)
    )
      kept.push(i)
  })
  return kept.map(i => ticks[i])
}

function timeAxis(
  input: AxisInput,
  scale: PositionScale,
  length: number,
  level: boolean,
  font: Font,
  measure: Measure,
): AxisLayout {
  const { min, max, zone, look, wish, unit } = input
  const width = level ? (text: string) => measure(text, font) : () => font.size * LINE
  const most = typeof wish === 'number' ? wish : Math.max(2, Math.floor(length / (level ? 40 : 30)))
  const plain = input.timeFormat
  let ticks: number[]
  let labels: string[]
  let larger: string[] = []
  let stepUnit: Unit
  if (Array.isArray(wish) || (typeof wish === 'object' && typeof wish.every === 'object')) {
    const step: TimeStep = Array.isArray(wish)
      ? { unit: input.unit ?? 'day', count: 1 }
      : (wish.every as TimeStep)
    ticks = Array.isArray(wish)
      ? wish.filter(time => time >= min && time <= max)
      : timesEvery(step, min, max, zone)
    const options: Intl.DateTimeFormatOptions =
      plain ??
      (step.unit === 'month' || step.unit === 'quarter'
        ? { month: 'short' }
        : step.unit === 'year'
          ? { year: 'numeric' }
          : step.unit === 'day' || step.unit === 'week'
            ? { day: 'numeric' }
            : { hour: '2-digit', minute: '2-digit' })
    stepUnit = step.unit
    const written = labelTimes(ticks, step.unit, options, look.locale, zone)
    labels = written.labels
    larger = plain ? [] : written.larger
    const kept = new Set(thinned(ticks, scale, labels, level, font, measure))
    labels = labels.filter((_, i) => kept.has(ticks[i]))
    larger = larger.filter((_, i) => kept.has(ticks[i]))
    ticks = [...kept]
  } else {
    const found = chooseTimeTicks({
      min,
      // The end of the last bucket begins nothing that is shown.
      max: unit ? max - 1 : max,
      length,
      most,
      locale: look.locale,
      zone,
      measure: width,
      least: input.unit,
    })
    ticks = found.values
    stepUnit = found.step.unit
    labels = plain ? labelTimes(ticks, found.step.unit, plain, look.locale, zone).labels : found.labels
    larger = plain ? [] : found.larger
    if (plain) {
      const kept = new Set(thinned(ticks, scale, labels, level, font, measure))
      labels = labels.filter((_, i) => kept.has(ticks[i]))
      ticks = [...kept]
    }
  }
  const labelAt =
    unit && contains(unit, stepUnit) ? ticks.map(time => (time + addUnits(time, unit, 1, zone)) / 2) : ticks
  if (level) larger = spaced(larger, labelAt.map(scale.map), font, measure)
  else labels = labels.map((label, i) => (larger[i] ? `${label} ${larger[i]}` : label))
  const rows = level && larger.some(text => text !== '') ? 2 : 1
  const thickness = level
    ? LABEL_GAP + font.size + (rows - 1) * font.size * LINE
    : LABEL_GAP + Math.max(0, ...labels.map(text => measure(text, font)))
  return {
    scale,
    ticks,
    labelAt,
    minor: [],
    labels: labels.map(text => [text]),
    larger: level ? larger : [],
    turn: 0,
    thickness,
  }
}

/** Whether beginnings of the larger unit are always beginnings of the smaller. */
function contains(small: Unit, large: Unit): boolean {
  if (small === 'week') return large === 'week'
  const order: Unit[] = ['minute', 'hour', 'day', 'week', 'month', 'quarter', 'year']
  return (
    order.indexOf(small) >= 0 &&
    order.indexOf(small) <= order.indexOf(large) &&
    !(large === 'week' && small !== 'day' && small !== 'hour' && small !== 'minute')
  )
}

/** Where two names of larger units would touch, the first gives way: it names a unit that had begun before. */
function spaced(larger: string[], positions: number[], font: Font, measure: Measure): string[] {
  const out = [...larger]
  let next = -1
  for (let i = out.length - 1; i >= 0; i--) {
    if (out[i] === '') continue
    // Centred under their ticks, like the labels above them.
    const half = (at: number) => measure(out[at], font) / 2
    if (next >= 0 && positions[next] - positions[i] < half(i) + half(next) + APART) out[i] = ''
    else next = i
  }
  return out
}

function categoryAxis(
  input: AxisInput,
  scale: PositionScale,
  level: boolean,
  font: Font,
  measure: Measure,
): AxisLayout {
  const { words, look, cycle } = input
  const low = Math.max(0, Math.ceil(Math.min(...scale.domain)))
  const high = Math.min(words.length - 1, Math.floor(Math.max(...scale.domain)))
  const all = Array.from({ length: Math.max(0, high - low + 1) }, (_, i) => low + i)
  const name = (i: number, width: 'long' | 'short' | 'narrow' = 'short') =>
    cycle ? cycleText(cycle, Number(words[i]), look.locale, width) : words[i]
  const room = Math.abs(scale.factor)
  const base = { scale, minor: [], larger: [], turn: 0 }
  const at = (ticks: number[]) => ({ ticks, labelAt: ticks })
  if (!level) {
    const every = Math.max(1, Math.ceil((font.size * LINE) / Math.max(room, 1e-6)))
    const ticks = all.filter((_, i) => i % every === 0)
    const labels = ticks.map(i => [ellipsis(name(i), input.labelRoom, font, measure)])
    return {
      ...base,
      ...at(ticks),
      labels,
      thickness: LABEL_GAP + Math.max(0, ...labels.map(([text]) => measure(text, font))),
    }
  }
  const fits = (texts: string[][], gap: number) =>
    texts.every(lines => lines.every(text => measure(text, font) + gap <= room))
  const flat = all.map(i => [name(i)])
  if (fits(flat, APART)) return { ...base, ...at(all), labels: flat, thickness: LABEL_GAP + font.size }
  if (cycle) {
    const narrow = all.map(i => [name(i, 'narrow')])
    if (cycle !== 'hour of day' && fits(narrow, 4))
      return { ...base, ...at(all), labels: narrow, thickness: LABEL_GAP + font.size }
    return thinCategories(base, all, i => name(i), room, font, measure)
  }
  const wrapped = all.map(i => wrap(name(i), Math.max(20, room - APART), font, measure, 3))
  if (room > 34 && wrapped.every(lines => lines.every(text => !text.endsWith('…')))) {
    const rows = Math.max(1, ...wrapped.map(lines => lines.length))
    return {
      ...base,
      ...at(all),
      labels: wrapped,
      thickness: LABEL_GAP + font.size + (rows - 1) * font.size * LINE,
    }
  }
  const slant = (Math.abs(SLANT) * Math.PI) / 180
  if (room >= (font.size * LINE) / Math.sin(slant) / 1.5) {
    // Slanted labels reach down to the left; more than a hundred pixels would leave too little for the plot.
    const labels = all.map(i => [ellipsis(name(i), 110, font, measure)])
    const longest = Math.max(0, ...labels.map(([text]) => measure(text, font)))
    return {
      ...base,
      ...at(all),
      labels,
      turn: SLANT,
      thickness: LABEL_GAP + longest * Math.sin(slant) + font.size,
    }
  }
  return thinCategories(base, all, i => ellipsis(name(i), 120, font, measure), room, font, measure)
}

function thinCategories(
  base: Omit<AxisLayout, 'ticks' | 'labelAt' | 'labels' | 'thickness'>,
  all: number[],
  name: (i: number) => string,
  room: number,
  font: Font,
  measure: Measure,
): AxisLayout {
  const sample = all.length > 2000 ? all.filter((_, i) => i % Math.ceil(all.length / 2000) === 0) : all
  const widest = Math.max(1, ...sample.map(i => measure(name(i), font)))
  const every = Math.max(1, Math.ceil((widest + APART) / Math.max(room, 1e-6)))
  const ticks = all.filter((_, i) => i % every === 0)
  return {
    ...base,
    ticks,
    labelAt: ticks,
    labels: ticks.map(i => [name(i)]),
    thickness: LABEL_GAP + font.size,
  }
}

import type { Finding } from '../finding/error.ts'
import { chooseTimeTicks, countTimes, labelTimes, type TimeStep } from '../scale/time-ticks.ts'
import { addUnits, type Unit } from '../table/cells/calendar.ts'
import { inFigures } from '../theme/text-width.ts'
import { MOST_GIVEN, mostLabels, readableTimes, ticksLeftOut, tooDense, tooMany } from './asked-ticks.ts'
import { APART, type AxisContext, type AxisLayout, LABEL_GAP } from './axis-parts.ts'
import { LINE } from './text.ts'
import { collide, endsWithRoom, keptApart } from './tick-room.ts'

/** An axis of times: divisions of the calendar, with the larger unit named where it changes. */
export function timeAxis(context: AxisContext): AxisLayout {
  const { input, length, level, font, measure, make } = context
  const { zone, look, wish, unit } = input
  const [min, max] = endsWithRoom(context)
  const scale = make(min, max)
  const width = level ? (text: string) => measure(text, font) : () => font.size * LINE
  const room = mostLabels(context)
  const most =
    typeof wish === 'number'
      ? Math.max(1, Math.min(wish, room))
      : Math.max(2, Math.floor(length / (level ? 40 : 30)))
  const own = input.timeFormat
  // The end of the last bucket begins nothing that is shown.
  const end = unit && input.intervals ? max - 1 : max
  let ticks: number[]
  let stepUnit: Unit
  let labels: string[] | undefined
  let larger: string[] | undefined
  const findings: Finding[] = typeof wish === 'number' && wish > room ? [tooMany(input.name, wish, room)] : []
  const written = (times: number[], step: Unit) =>
    typeof own === 'function'
      ? { labels: times.map(time => own(new Date(time))), larger: [] }
      : labelTimes(times, step, own ?? usualLook(step), look.locale, zone)
  if (Array.isArray(wish)) {
    ticks = wish.slice(0, MOST_GIVEN).filter(time => time >= min && time <= max)
    stepUnit = unit ?? 'day'
  } else if (typeof wish === 'object' && typeof wish.every === 'object') {
    const asked = wish.every as TimeStep
    const found = readableTimes(
      asked,
      min,
      end,
      context,
      (times, { unit: by }) => !collide(times.map(scale.map), () => written(times, by).labels, context),
    )
    ticks = found.ticks
    stepUnit = found.step.unit
    if (found.step !== asked)
      findings.push(tooDense(input.name, asked, countTimes(asked, min, end), found.step))
  } else {
    const found = chooseTimeTicks({
      min,
      max: end,
      length,
      most,
      locale: look.locale,
      zone,
      measure: width,
      least: unit,
      write: own && ((times, step) => written(times, step).labels),
    })
    ticks = found.values
    stepUnit = found.step.unit
    labels = found.labels
    larger = found.larger
  }
  if (!labels || !larger) {
    const all = written(ticks, stepUnit)
    const kept = keptApart(ticks, scale, all.labels, context)
    labels = kept.map(i => all.labels[i])
    larger = own ? [] : kept.map(i => all.larger[i])
    ticks = kept.map(i => ticks[i])
    if (Array.isArray(wish)) findings.push(...ticksLeftOut(input.name, wish.length, ticks.length))
  }
  let labelAt =
    unit && input.intervals && contains(unit, stepUnit)
      ? ticks.map(time => (time + addUnits(time, unit, 1, zone)) / 2)
      : ticks
  // The name of a period whose middle is beyond the plot would stand beyond it, too.
  const inside = [...labelAt.keys()].filter(i => labelAt[i] >= min && labelAt[i] <= end)
  if (inside.length < ticks.length) {
    const texts = { labels, larger }
    const kept = <T>(list: readonly T[]) => inside.map(i => list[i])
    ticks = kept(ticks)
    labels = kept(texts.labels)
    larger = texts.larger.length > 0 ? kept(texts.larger) : []
    labelAt = kept(labelAt)
  }
  if (level) larger = spaced(larger, labelAt.map(scale.map), context)
  else labels = labels.map((label, i) => (larger?.[i] ? `${label} ${larger[i]}` : label))
  const rows = level && larger.some(text => text !== '') ? 2 : 1
  const thickness = level
    ? LABEL_GAP + font.size + (rows - 1) * font.size * LINE
    : LABEL_GAP + Math.max(0, ...labels.map(text => measure(inFigures(text), font)))
  return {
    scale,
    ticks,
    labelAt,
    minor: [],
    labels: labels.map(text => [text]),
    pictures: [],
    larger: level ? larger : [],
    turn: 0,
    thickness,
    findings,
  }
}

function usualLook(unit: Unit): Intl.DateTimeFormatOptions {
  if (unit === 'month' || unit === 'quarter') return { month: 'short' }
  if (unit === 'year') return { year: 'numeric' }
  return unit === 'day' || unit === 'week' ? { day: 'numeric' } : { hour: '2-digit', minute: '2-digit' }
}

const SIZES: Unit[] = ['minute', 'hour', 'day', 'week', 'month', 'quarter', 'year']

/** Whether beginnings of the larger unit are always beginnings of the smaller. Weeks fit into nothing larger. */
function contains(small: Unit, large: Unit): boolean {
  if (small === 'week' || large === 'week')
    return (
      small === large ||
      (large === 'week' && SIZES.indexOf(small) < SIZES.indexOf('week') && small !== 'week')
    )
  return SIZES.indexOf(small) >= 0 && SIZES.indexOf(small) <= SIZES.indexOf(large)
}

/** Where two names of larger units would touch, the first gives way: it names a unit that had begun before. */
function spaced(larger: string[], positions: number[], { font, measure }: AxisContext): string[] {
  const out = [...larger]
  const half = (at: number) => measure(out[at], { ...font, weight: 600 }) / 2
  let next = -1
  for (let i = out.length - 1; i >= 0; i--) {
    if (out[i] === '') continue
    if (next >= 0 && Math.abs(positions[next] - positions[i]) < half(i) + half(next) + APART) out[i] = ''
    else next = i
  }
  return out
}

import type { Finding } from '../finding/error.ts'
import { countEvery, ticksEvery } from '../scale/ticks.ts'
import { coarserSteps, countTimes, type TimeStep, timesEvery } from '../scale/time-ticks.ts'
import type { Unit } from '../table/cells/calendar.ts'
import type { AxisContext } from './axis-parts.ts'
import { LINE } from './text.ts'

/** Of a list of ticks no more are looked at: there is room for some dozens. */
export const MOST_GIVEN = 10_000

/** The least room of a label along its axis, in pixels: two digits, or a line of text. */
const roomOf = ({ level, font }: AxisContext): number => font.size * (level ? 1.6 : LINE)

/** How many labels there is room for at the most. */
export const mostLabels = (context: AxisContext): number =>
  Math.max(2, Math.floor(context.length / roomOf(context)))

/**
 * The asked interval, or the nearest longer one whose labels can be read. Which it will be is worked out from their
 * number before a single one is made. `fits`: whether the labels of these ticks keep apart.
 */
export function readableStep(
  step: number,
  min: number,
  max: number,
  context: AxisContext,
  fits: (ticks: number[]) => boolean,
): number {
  const most = mostLabels(context)
  const count = countEvery(min, max, step)
  if (!Number.isFinite(count)) return Number.NaN
  // By as many tens as are surely too many, then by the neat multiples between.
  const tens = Math.max(0, Math.floor(Math.log10(count / most)))
  for (let power = 10 ** tens; Number.isFinite(step * power); power *= 10)
    for (const lead of [1, 2, 5]) {
      const coarser = step * lead * power
      const ticks = countEvery(min, max, coarser)
      if (ticks <= 2 || (ticks <= most && fits(ticksEvery(min, max, coarser).values))) return coarser
    }
  return Number.NaN
}

/** The same for divisions of the calendar. */
export function readableTimes(
  step: TimeStep,
  min: number,
  max: number,
  context: AxisContext,
  fits: (ticks: number[], step: TimeStep) => boolean,
): { step: TimeStep; ticks: number[] } {
  const most = mostLabels(context)
  const { zone } = context.input
  let last: { step: TimeStep; ticks: number[] } | undefined
  for (const coarser of [step, ...coarserSteps(step)]) {
    if (countTimes(coarser, min, max) > most + 2) continue
    const found = { step: coarser, ticks: timesEvery(coarser, min, max, zone) }
    if (found.ticks.length <= most && fits(found.ticks, coarser)) return found
    if (found.ticks.length > 0) last = found
  }
  return last ?? { step, ticks: [] }
}

/** Least room between strong gridlines, in pixels: closer, they would be a grey ground. */
const EMPHASISED = 6

/** Where a unit of time begins often enough to be emphasised and seldom enough to be seen; a finding where it is not. */
export function strongLines(
  name: string,
  unit: Unit,
  [min, max]: readonly [number, number],
  length: number,
): { step: TimeStep; findings: Finding[] } {
  const asked: TimeStep = { unit, count: 1 }
  const most = Math.max(2, length / EMPHASISED)
  const count = countTimes(asked, min, max)
  if (count <= most) return { step: asked, findings: [] }
  const step = coarserSteps(asked).find(coarser => countTimes(coarser, min, max) <= most) ?? {
    unit: 'year',
    count: 1e6,
  }
  return { step, findings: [tooDense(name, asked, count, step, 'strongAt')] }
}

const spanText = ({ unit, count }: TimeStep) => (count === 1 ? unit : `${count} ${unit}s`)

/** Told where ticks were asked for closer together than they can be read. */
export function tooDense(
  name: string,
  asked: number | TimeStep,
  count: number,
  drawn: number | TimeStep | undefined,
  option: 'ticks' | 'strongAt' = 'ticks',
): Finding {
  const written = (step: number | TimeStep) => (typeof step === 'number' ? String(step) : spanText(step))
  const many = Number.isFinite(count) && count < 1e15 ? Math.round(count).toLocaleString('en') : 'too many'
  return {
    code: 'ticks-too-dense',
    message: `${option === 'ticks' ? 'Ticks' : 'Emphasised gridlines'} every ${written(asked)} on the axis "${name}" would be ${many}, more than there is room for${
      drawn === undefined ? '' : `; every ${written(drawn)} is drawn`
    }`,
    remedy: 'Ask for a longer interval, or show the chart larger.',
    path: `axes.${name}.${option}`,
  }
}

/** Told where ticks were asked for so far apart that there would be one at most. */
export const tooFar = (name: string, asked: number, percent: boolean): Finding => ({
  code: 'ticks-too-far',
  message: `Ticks every ${asked} on the axis "${name}" are farther apart than its values reach, and others are drawn`,
  remedy: percent
    ? 'Ask for a shorter interval: 0.1 stands for ten of a hundred.'
    : 'Ask for a shorter interval, or leave it out.',
  path: `axes.${name}.ticks`,
})

/** Told where there is no room for as many ticks as were asked for. */
export const tooMany = (name: string, asked: number, most: number): Finding => ({
  code: 'ticks-too-dense',
  message: `${asked.toLocaleString('en')} ticks were asked for on the axis "${name}", and there is room for ${most}`,
  remedy: 'Ask for fewer, or show the chart larger.',
  path: `axes.${name}.ticks`,
})

/** Told where some of the ticks that were asked for are left out. */
export function ticksLeftOut(name: string, asked: number, drawn: number): Finding[] {
  if (drawn >= asked) return []
  return [
    {
      code: 'ticks-left-out',
      message: `${drawn === 0 ? 'None' : `Only ${drawn.toLocaleString('en')}`} of the ${asked.toLocaleString('en')} ticks asked for on the axis "${name}" ${drawn === 1 ? 'is' : 'are'} drawn: others lie outside its ends or have no room`,
      remedy: 'Ask for fewer, inside the ends of the scale, or show the chart larger.',
      path: `axes.${name}.ticks`,
    },
  ]
}

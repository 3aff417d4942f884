import { isLying } from '../drawing/is-lying.ts'
import { arrangeOf } from '../resolve/looks.ts'
import type { Level } from '../resolve/model.ts'
import { Total, totalOf } from '../table/cells/total.ts'
import { percentileOf } from '../table/group/summarise.ts'
import { type Percentile, shareOfPercentile } from '../table/phrase/meaning.ts'
import type { Tongue } from '../words/tongue.ts'
import type { BoundDrawing } from './model.ts'

const LEVELS: Record<Exclude<Level, Percentile>, (values: Float64Array) => number> = {
  mean: values => totalOf(values) / values.length,
  median: values => percentileOf(values.sort(), 0.5),
  min: values => values.reduce((a, b) => Math.min(a, b)),
  max: values => values.reduce((a, b) => Math.max(a, b)),
}

/** The value at a level. */
function valueAt(level: Level, values: Float64Array): number {
  const share = shareOfPercentile(level)
  return share === undefined
    ? LEVELS[level as Exclude<Level, Percentile>](values)
    : percentileOf(values.sort(), share)
}

const NAMES = { mean: 'Mean', median: 'Median', min: 'Lowest', max: 'Highest' } as const

/** Puts a reference at the level of what the first drawing on its scale shows; stacks count as a whole. */
export function levelOf(bound: BoundDrawing, drawings: readonly BoundDrawing[]): void {
  const { level, against } = bound.drawing
  const base = drawings.find(
    drawn =>
      drawn && !drawn.drawing.kind.aside && !drawn.drawing.kind.parts && drawn.drawing.against === against,
  )
  if (!base || !level) return
  const lying = isLying(base.marks)
  const role = lying ? 'x' : 'y'
  const values = shownValues(base, role)
  const value = values.length > 0 ? valueAt(level, Float64Array.from(values)) : Number.NaN
  const type = base[role].cells.type === 'time' ? 'time' : 'number'
  const cells = { type, values: Float64Array.of(value) } as const
  bound[role] = { ...base[role], cells, ends: undefined }
  bound.marks[role] = { at: cells.values, sorted: true, measured: base.marks[role].measured }
}

export const levelName = (level: Level, tongue: Tongue): string =>
  level in NAMES ? tongue.say(NAMES[level as keyof typeof NAMES]) : level.toUpperCase()

/** A level has more digits than matter: four tell it. */
export const roundedLevel = (value: number): number => Number(value.toPrecision(4))

function shownValues({ drawing, marks }: BoundDrawing, role: 'x' | 'y'): number[] {
  const values = marks[role]
  const places = marks[role === 'x' ? 'y' : 'x']
  if (arrangeOf(drawing) !== 'stack' || !marks.seriesOf)
    return [...values.at].filter(value => value === value)
  const totals = new Map<number, Total>()
  for (let i = 0; i < marks.length; i++) {
    if (Number.isNaN(values.at[i])) continue
    const total = totals.get(places.at[i]) ?? new Total()
    total.add(values.at[i])
    totals.set(places.at[i], total)
  }
  return Array.from(totals.values(), ({ value }) => value)
}

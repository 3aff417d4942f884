import { isLying } from '../drawing/is-lying.ts'
import type { Composition } from '../pane/model.ts'
import { type Standing, walkOrder } from './walk.ts'

/** One step of a series that is heard. */
export interface Tone {
  /** 0 to 1: from the beginning of the plot to its end. */
  place: number
  /** 0 to 1: from the low end of the scale to the high one; undefined where there is no value. */
  level: number | undefined
  /** Whether values have passed zero since the step before. */
  crosses: boolean
}

/** More steps than these are heard as the means of neighbours. */
const MOST = 240

/** The values in view of the series at which a person stands, in their order, as what is heard of them. */
export function tonesOf({ panes }: Composition, { pane: p, drawing, mark }: Standing): Tone[] {
  const pane = panes[p]
  const bound = pane?.bound.drawings.find(drawn => drawn.drawing.index === drawing)
  if (!bound) return []
  const { marks } = bound
  const lying = isLying(marks)
  const [places, values] = lying ? [marks.y, marks.x] : [marks.x, marks.y]
  const along = pane.scales.get(lying ? bound.yScale : bound.xScale)
  const up = pane.scales.get(lying ? bound.xScale : bound.yScale)
  if (!up) return []
  const series = (i: number) => marks.seriesOf?.[i] ?? 0
  const own = Array.from(walkOrder(bound)).filter(i => series(i) === series(mark))
  const [low, high] = up.domain.map(up.kind.forward)
  const levelOf = (value: number) =>
    up.kind.allows(value)
      ? Math.max(0, Math.min(1, (up.kind.forward(value) - low) / (high - low)))
      : undefined
  const shareOf = (i: number, n: number) => {
    if (!along) return own.length > 1 ? n / (own.length - 1) : 0.5
    const [start, end] = along.range
    return (along.map(places.at[i]) - start) / (end - start)
  }
  const steps = own
    .map((i, n) => ({ place: shareOf(i, n), value: values.at[i] }))
    .filter(({ place }) => place >= -1e-9 && place <= 1 + 1e-9)
  const each = Math.max(1, Math.ceil(steps.length / MOST))
  const tones: Tone[] = []
  let before = Number.NaN
  for (let from = 0; from < steps.length; from += each) {
    const part = steps.slice(from, from + each)
    const present = part.map(({ value }) => value).filter(value => !Number.isNaN(value))
    const value = present.length > 0 ? present.reduce((a, b) => a + b) / present.length : Number.NaN
    tones.push({
      place: part.reduce((sum, { place }) => sum + place, 0) / part.length,
      level: Number.isNaN(value) ? undefined : levelOf(value),
      crosses: (before < 0 && value >= 0) || (before > 0 && value <= 0),
    })
    if (!Number.isNaN(value)) before = value
  }
  return tones
}

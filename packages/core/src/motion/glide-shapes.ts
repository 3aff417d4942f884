import { MIDDLE } from '../guide/text.ts'
import type { Discs, Rects, Segments, Texts } from '../scene/scene.ts'
import { type BatchAt, type GlideContext, mixed } from './blend.ts'
import { leave } from './enter-leave.ts'
import { figuresBetween } from './figures.ts'
import { keepInPlot } from './in-plot.ts'
import { givingWay, passesBetween } from './passing.ts'
import { picked } from './picked.ts'
import { matches } from './places.ts'
import { recoloring } from './recolor.ts'

/** The shapes of `old` that have no match any more, as a batch of their own. */
export function leavers<B extends Rects | Discs | Texts | Segments>(old: B, kept: Int32Array): BatchAt[] {
  const stays = new Uint8Array(old.keys.length)
  for (const i of kept) if (i >= 0) stays[i] = 1
  const gone: number[] = []
  for (let i = 0; i < stays.length; i++) if (!stays[i]) gone.push(i)
  return gone.length === 0 ? [] : [leave(picked(old, gone))]
}

export function glideDiscs(old: Discs, batch: Discs): BatchAt[] {
  const match = matches(batch.keys, old.keys)
  const count = match.length
  const startX = batch.x.slice()
  const startY = batch.y.slice()
  const startRadius = batch.radius.slice()
  const startAlpha = new Float32Array(count)
  for (let i = 0; i < count; i++) {
    const m = match[i]
    if (m < 0 || old.x[m] !== old.x[m] || old.y[m] !== old.y[m]) continue
    startX[i] = old.x[m]
    startY[i] = old.y[m]
    startRadius[i] = old.radius[m]
    startAlpha[i] = old.alpha ? old.alpha[m] : 1
  }
  const endAlpha = batch.alpha ?? new Float32Array(count).fill(1)
  const out = {
    x: new Float32Array(count),
    y: new Float32Array(count),
    radius: new Float32Array(count),
    alpha: new Float32Array(count),
  }
  const recolored = recoloring(old, batch, match)
  const step: BatchAt = (eased, time, each) => {
    mixed(startX, batch.x, eased, out.x, each)
    mixed(startY, batch.y, eased, out.y, each)
    mixed(startRadius, batch.radius, eased, out.radius, each)
    mixed(startAlpha, endAlpha, time, out.alpha)
    return { ...batch, ...recolored?.(time), ...out }
  }
  return [...leavers(old, match), step]
}

/** Where values of a guide stand on a scale of the other scene; NaN where there is no such scale. */
function along(
  batch: Segments | Texts,
  scene: GlideContext['from'],
): { axis: 'x' | 'y'; place: (value: number) => number } | undefined {
  const axis = batch.along?.x ? 'x' : 'y'
  const name = batch.along?.[axis]
  const scale = name === undefined ? undefined : scene.scales.get(name)
  return scale && { axis, place: scale.map }
}

export function glideTexts(old: Texts, batch: Texts, context: GlideContext): BatchAt[] {
  const { from, to, says } = context
  const match = matches(batch.keys, old.keys)
  const startX = batch.x.slice()
  const startY = batch.y.slice()
  const startAlpha = new Float32Array(match.length)
  const before = along(batch, from)
  for (let i = 0; i < match.length; i++) {
    const m = match[i]
    if (m >= 0) {
      startX[i] = old.x[m]
      startY[i] = old.y[m]
      startAlpha[i] = old.alpha ? old.alpha[m] : 1
    } else if (before && batch.at) {
      // A tick that is new comes from where the old scale would have had it.
      const pixel = before.place(batch.at[i])
      if (Number.isFinite(pixel))
        (before.axis === 'x' ? startX : startY)[i] =
          pixel +
          (before.axis === 'y'
            ? batch.y[i] - (to.scales.get(batch.along!.y!)?.map(batch.at[i]) ?? batch.y[i])
            : 0)
    }
  }
  const end = batch.alpha ?? new Float32Array(match.length).fill(1)
  const seen = seenOf(batch, context)
  const passes = passesBetween({ x: startX, y: startY }, batch)
  const words = batch.texts.map((text, i) =>
    says === 'before' && match[i] >= 0 ? old.texts[match[i]] : text,
  )
  const writers = batch.figures?.map((figures, i) => {
    const before = match[i] >= 0 ? old.figures?.[match[i]] : undefined
    return figures && before && figuresBetween(before, figures, says)
  })
  const step: BatchAt = (eased, time) => {
    const texts = writers ? words.map((text, i) => writers[i]?.(eased) ?? text) : words
    const x = mixed(startX, batch.x, eased)
    const y = mixed(startY, batch.y, eased)
    const alpha = mixed(startAlpha, end, time)
    return seen(givingWay({ ...batch, texts, x, y, alpha }, passes))
  }
  return [...leavers(old, match).map(gone => moving(gone, old, context)), step]
}

export function glideSegments(old: Segments, batch: Segments, context: GlideContext): BatchAt[] {
  const { from } = context
  const match = matches(batch.keys, old.keys)
  const names = ['x1', 'y1', 'x2', 'y2'] as const
  const start = { x1: batch.x1.slice(), y1: batch.y1.slice(), x2: batch.x2.slice(), y2: batch.y2.slice() }
  const startAlpha = new Float32Array(match.length)
  const before = along(batch, from)
  for (let i = 0; i < match.length; i++) {
    const m = match[i]
    if (m >= 0) {
      for (const name of names) start[name][i] = old[name][m]
      startAlpha[i] = old.alpha ? old.alpha[m] : 1
    } else if (before && batch.at) {
      const pixel = before.place(batch.at[i])
      if (!Number.isFinite(pixel)) continue
      start[before.axis === 'x' ? 'x1' : 'y1'][i] = pixel
      start[before.axis === 'x' ? 'x2' : 'y2'][i] = pixel
    }
  }
  const end = batch.alpha ?? new Float32Array(match.length).fill(1)
  const seen = seenOf(batch, context)
  const step: BatchAt = (eased, time) =>
    seen({
      ...batch,
      x1: mixed(start.x1, batch.x1, eased),
      y1: mixed(start.y1, batch.y1, eased),
      x2: mixed(start.x2, batch.x2, eased),
      y2: mixed(start.y2, batch.y2, eased),
      alpha: mixed(startAlpha, end, time),
    })
  return [...leavers(old, match).map(gone => moving(gone, old, context)), step]
}

/** What of a guide's ticks is seen on the way. Words that belong to no tick, such as titles, always are. */
function seenOf(batch: Segments | Texts, context: GlideContext): (batch: Segments | Texts) => typeof batch {
  const axis = batch.along?.x ? 'x' : 'y'
  const name = batch.along?.[axis]
  return name === undefined || !batch.at ? batch => batch : keepInPlot(context, axis, name)
}

/** Leaving ticks go where the new scale would have them. */
function moving(gone: BatchAt, old: Segments | Texts, context: GlideContext): BatchAt {
  const after = along(old, context.to)
  if (!after) return gone
  const seen = seenOf(old, context)
  return (eased, time) => {
    const batch = gone(eased, time) as Segments | Texts | undefined
    if (!batch?.at) return batch
    const shift = (values: Float32Array, keep: number) =>
      values.map((value, i) =>
        Number.isFinite(after.place(batch.at![i]))
          ? value + (after.place(batch.at![i]) - keep - value) * eased
          : value,
      )
    if (batch.kind === 'texts') {
      if (after.axis === 'x') return seen({ ...batch, x: shift(batch.x, 0) })
      // Labels stand a little below their tick's line; that distance stays.
      return seen({ ...batch, y: shift(batch.y, -batch.size * MIDDLE) })
    }
    return seen(
      after.axis === 'x'
        ? { ...batch, x1: shift(batch.x1, 0), x2: shift(batch.x2, 0) }
        : { ...batch, y1: shift(batch.y1, 0), y2: shift(batch.y2, 0) },
    )
  }
}

import type { Areas } from '../scene/scene.ts'
import { type BatchAt, faded, type GlideContext, mixed } from './blend.ts'

/** Areas with one name glide, vertex by vertex of the same place; those that are new or gone fade. */
export function glideAreas(old: Areas, batch: Areas, { from, to }: GlideContext): BatchAt[] {
  const [x, y] = [batch.along?.x, batch.along?.y].map(name =>
    name === undefined ? undefined : from.scales.get(name),
  )
  const same = x?.kind.name === to.scales.get(batch.along?.x ?? '')?.kind.name
  if (!x || !y || !same) return [leaving(old), (_, time) => faded(batch, time)]
  const start = { x: batch.x.slice(), top: batch.top.slice(), base: batch.base.slice() }
  const startAlpha = new Float32Array(batch.names.length)
  batch.names.forEach((name, area) => {
    const was = old.names.indexOf(name)
    startAlpha[area] = was < 0 ? 0 : (old.alpha?.[was] ?? 1)
    const known = new Map<number, number>()
    if (was >= 0) for (let i = old.starts[was]; i < old.starts[was + 1]; i++) known.set(old.atX[i], i)
    for (let i = batch.starts[area]; i < batch.starts[area + 1]; i++) {
      const match = known.get(batch.atX[i])
      start.x[i] = match === undefined ? x.map(batch.atX[i]) : old.x[match]
      start.top[i] = match === undefined ? y.map(batch.atTop[i]) : old.top[match]
      start.base[i] = match === undefined ? y.map(batch.atBase[i]) : old.base[match]
    }
  })
  const end = batch.alpha ?? new Float32Array(batch.names.length).fill(1)
  const gone = old.names.some(name => !batch.names.includes(name))
  const step: BatchAt = (eased, time) => ({
    ...batch,
    x: mixed(start.x, batch.x, eased),
    top: mixed(start.top, batch.top, eased),
    base: mixed(start.base, batch.base, eased),
    alpha: mixed(startAlpha, end, time),
  })
  return gone ? [leaving(old), step] : [step]
}

const leaving =
  (old: Areas): BatchAt =>
  (_, time) =>
    time >= 0.5 ? undefined : faded(old, 1 - time * 2)

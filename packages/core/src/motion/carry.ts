import type { Batch, Scene } from '../scene/scene.ts'
import { matches } from './places.ts'

/** Numbers of shapes that move, by kind of batch. */
const MOVING: Partial<Record<Batch['kind'], readonly string[]>> = {
  rects: ['x', 'y', 'width', 'height'],
  discs: ['x', 'y', 'radius'],
  wedges: ['from', 'to', 'inner', 'outer'],
  texts: ['x', 'y'],
  segments: ['x1', 'y1', 'x2', 'y2'],
  lines: ['x', 'y'],
}

type Arrays = Record<string, Float32Array>

/**
 * Lets shapes keep the speed they have: `at` gives the picture of a motion at a time, and their speed is that from `now`
 * over the next milliseconds. The returned function moves the shapes of a scene on by that speed for some milliseconds.
 */
export function carrying(
  at: (time: number) => Scene,
  now: number,
  ahead: number,
): (scene: Scene, time: number) => Scene {
  // Pictures of one motion share their arrays, so the later one is copied before the present one is drawn up again.
  const later = at(now + ahead).batches.map(copied)
  const present = at(now)
  const speeds = new Map<string, { keys: (string | number)[]; speed: Arrays }>()
  for (const batch of present.batches) {
    const names = MOVING[batch.kind]
    const place = later.findIndex(other => other.kind === batch.kind && other.id === batch.id)
    if (!names || place < 0) continue
    // A batch and those of its shapes that leave have one name; they come in the same order in both scenes.
    const [other] = later.splice(place, 1)
    const count = batch.keys.length
    if (other.keys.length !== count || count === 0) continue
    const speed: Arrays = {}
    for (const name of names) {
      const a = (batch as unknown as Arrays)[name]
      const b = (other as unknown as Arrays)[name]
      if (a.length === count && b.length === count) speed[name] = a.map((value, i) => (b[i] - value) / ahead)
    }
    const name = `${batch.kind} ${batch.id}`
    const known = speeds.get(name)
    if (!known) speeds.set(name, { keys: Array.from(batch.keys), speed })
    else {
      known.keys.push(...Array.from(batch.keys))
      for (const part of Object.keys(speed))
        known.speed[part] = Float32Array.of(...known.speed[part], ...speed[part])
    }
  }
  if (speeds.size === 0) return scene => scene
  const known = new Map<string, Int32Array>()
  return (scene, time) => {
    if (time === 0) return scene
    const batches = scene.batches.map(batch => {
      const name = `${batch.kind} ${batch.id}`
      const found = speeds.get(name)
      if (!found) return batch
      let match = known.get(name)
      if (match?.length !== batch.keys.length) {
        match = matches(batch.keys, found.keys)
        known.set(name, match)
      }
      return moved(batch, found.speed, match, time)
    })
    return { ...scene, batches }
  }
}

function copied(batch: Batch): Batch {
  const out: Record<string, unknown> = { ...batch }
  for (const [name, value] of Object.entries(batch))
    if (value instanceof Float32Array) out[name] = value.slice()
  return out as unknown as Batch
}

function moved(batch: Batch, speed: Arrays, match: Int32Array, time: number): Batch {
  const out: Arrays = {}
  for (const [name, values] of Object.entries(speed)) {
    const own = (batch as unknown as Arrays)[name]
    if (own.length !== match.length) continue
    out[name] = own.map((value, i) => (match[i] < 0 ? value : value + values[match[i]] * time))
    // No spring may turn a length inside out.
    if (name === 'width' || name === 'height' || name === 'radius')
      for (let i = 0; i < out[name].length; i++) if (out[name][i] < 0) out[name][i] = 0
  }
  return { ...batch, ...out } as Batch
}

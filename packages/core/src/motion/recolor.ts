import type { Batch } from '../scene/scene.ts'
import { blend } from '../theme/contrast.ts'

/** The colours of shapes on the way from those they had to those they get; undefined where all stay as they are. */
export function recoloring(
  old: Batch,
  batch: Batch,
  match: Int32Array,
): ((t: number) => Pick<Batch, 'colors' | 'color'>) | undefined {
  const pairs = new Map<string, number>()
  const list: [string, string][] = []
  const color = new Uint16Array(match.length)
  let differs = false
  for (let i = 0; i < match.length; i++) {
    const to = batch.colors[batch.color[i]]
    const from = match[i] < 0 ? to : old.colors[old.color[match[i]]]
    if (from !== to) differs = true
    const name = `${from} ${to}`
    let at = pairs.get(name)
    if (at === undefined) {
      // More pairs than can be pointed to would be a rainbow; then colours just change.
      if (list.length >= 4096) return undefined
      at = list.push([from, to]) - 1
      pairs.set(name, at)
    }
    color[i] = at
  }
  if (!differs) return undefined
  return t => ({
    colors: list.map(([from, to]) => (from === to ? to : blend(from, to, Math.max(0, Math.min(1, t))))),
    color,
  })
}

import type { Description, Scene } from '@dapplo/core'
import type { SettingPath } from '@dapplo/core/sentence'

/** Which part of a description the words at a place of its picture come from; undefined where there are none. */
export function wordAt(
  scene: Scene,
  description: Description,
  x: number,
  y: number,
): SettingPath | undefined {
  for (const batch of scene.batches) {
    if (batch.kind !== 'texts') continue
    for (let i = 0; i < batch.texts.length; i++) {
      const reach = batch.texts[i].length * 4 + 4
      if (Math.abs(batch.y[i] - y) > 10 || Math.abs(batch.x[i] - x) > reach * 2) continue
      for (const key of ['title', 'subtitle', 'caption', 'source'] as const)
        if (description[key] === batch.texts[i]) return [key]
      const axis = /^(?:axis|ticks|labels?)[ /](x|y)/.exec(batch.id)?.[1]
      if (axis) return [axis]
      if (/legend/.test(batch.id) && description.color !== undefined) return ['color']
    }
  }
  return undefined
}

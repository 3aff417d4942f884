import type { Description, Scene } from '@dapplo/core'
import type { SettingPath } from '@dapplo/core/sentence'

/** What words in a picture are about: a part of the description, a scale, or a category's colour. */
export type About =
  | { is: 'part'; path: SettingPath }
  | { is: 'scale'; scale: string }
  | { is: 'category'; name: string }

const WIDE = 0.58
const NEAR = 4

/** What the words at a place of a picture are about; undefined where there are none, or none that a person chooses. */
export function aboutAt(scene: Scene, description: Description, x: number, y: number): About | undefined {
  // What lies on top is meant.
  for (const batch of [...scene.batches].reverse()) {
    if (batch.kind !== 'texts' || batch.turn !== 0) continue
    const at = batch.texts.findIndex((text, i) => {
      const width = text.length * batch.size * WIDE
      const left = batch.x[i] - { start: 0, middle: width / 2, end: width }[batch.anchor]
      return (
        x >= left - NEAR &&
        x <= left + width + NEAR &&
        y <= batch.y[i] + NEAR &&
        y >= batch.y[i] - batch.size - NEAR
      )
    })
    if (at < 0) continue
    const { id } = batch
    const text = batch.whole?.[at] ?? batch.texts[at]
    for (const key of ['title', 'subtitle', 'caption', 'source'] as const)
      if (description[key] === text) return { is: 'part', path: [key] }
    const labels = /^axis ([^/]+)\//.exec(id)?.[1]
    if (labels) return { is: 'scale', scale: labels }
    if (id.startsWith('axis title')) return { is: 'part', path: [/ x$/.test(id) ? 'x' : 'y'] }
    if (id.startsWith('legend')) return { is: 'category', name: text }
    if (/^drawing \d+\/labels/.test(id)) return { is: 'part', path: ['label'] }
  }
  return undefined
}

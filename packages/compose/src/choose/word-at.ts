import type { Scene } from '@dapplo/core'
import { type Drawn, isSpreadData, type SettingPath } from '@dapplo/core/sentence'

/** What words in a picture are about: a part of the description, a scale, or a category's colour; and of which chart. */
export type About = { chart: number | undefined } & (
  | { is: 'part'; path: SettingPath }
  | { is: 'scale'; scale: string; text: string }
  | { is: 'category'; name: string }
)

const WIDE = 0.58
const NEAR = 4

/** What the words at a place of a picture are about; undefined where there are none, or none that a person chooses. */
export function aboutAt(scene: Scene, drawn: Drawn, x: number, y: number): About | undefined {
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
    const [, pane, id] = /^(?:(\d+)\/)?(.*)$/.exec(batch.id)!
    const text = batch.whole?.[at] ?? batch.texts[at]
    const chart = isSpreadData(drawn) && pane !== undefined ? Number(pane) : undefined
    const around = chart === undefined ? drawn : (drawn as { spread: readonly Drawn[] }).spread[chart]
    for (const key of ['title', 'subtitle', 'caption', 'source'] as const)
      if (around[key] === text) return { is: 'part', path: [key], chart }
    const scale = /^axis ([^/]+)\//.exec(id)?.[1]
    if (scale) return { is: 'scale', scale, text, chart }
    if (id.startsWith('axis title')) return { is: 'part', path: [/ x$/.test(id) ? 'x' : 'y'], chart }
    if (id.startsWith('legend')) return { is: 'category', name: text, chart }
    if (/^drawing \d+\/labels/.test(id)) return { is: 'part', path: ['label'], chart }
  }
  return undefined
}

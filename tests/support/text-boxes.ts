import type { Scene, Texts } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'

export interface TextBox {
  text: string
  left: number
  right: number
  top: number
  bottom: number
}

/** The box of every text of a scene, in pixels; turned texts are left out. */
export function textBoxes(scene: Scene): TextBox[] {
  return scene.batches
    .filter((batch): batch is Texts => batch.kind === 'texts' && batch.turn === 0)
    .flatMap(batch =>
      batch.texts.map((text, i) => {
        const width = measureInter(text, batch)
        const left = batch.x[i] - (batch.anchor === 'end' ? width : batch.anchor === 'middle' ? width / 2 : 0)
        return {
          text,
          left,
          right: left + width,
          top: batch.y[i] - batch.size * 0.75,
          bottom: batch.y[i] + batch.size * 0.2,
        }
      }),
    )
}

/** Pairs of texts that touch, as `"a" touches "b"`. */
export function touching(boxes: readonly TextBox[]): string[] {
  return boxes.flatMap((a, i) =>
    boxes
      .slice(0, i)
      .filter(
        b =>
          !(
            a.right <= b.left + 0.5 ||
            b.right <= a.left + 0.5 ||
            a.bottom <= b.top + 0.5 ||
            b.bottom <= a.top + 0.5
          ),
      )
      .map(b => `"${a.text}" touches "${b.text}"`),
  )
}

// The boxes of words in scenes, in plain JavaScript: the command for the corpus runs without a build.
import { measureInter } from '@dapplo/core/inter'

/** The box of every level text, in pixels, with its batch and its place in it; turned texts are left out. */
export const textBoxes = scene =>
  scene.batches
    .filter(batch => batch.kind === 'texts' && batch.turn === 0)
    .flatMap(batch =>
      batch.texts.map((text, shape) => {
        const width = measureInter(text, batch)
        const left =
          batch.x[shape] - (batch.anchor === 'end' ? width : batch.anchor === 'middle' ? width / 2 : 0)
        const baseline = batch.y[shape]
        const [top, bottom] = [baseline - batch.size * 0.75, baseline + batch.size * 0.2]
        return { text, batch, shape, left, right: left + width, top, bottom }
      }),
    )

const apart = (a, b) =>
  a.right <= b.left + 0.5 || b.right <= a.left + 0.5 || a.bottom <= b.top + 0.5 || b.bottom <= a.top + 0.5

/** Pairs of texts that touch, as `"a" touches "b"`. */
export const touching = boxes =>
  boxes.flatMap((a, i) =>
    boxes
      .slice(0, i)
      .filter(b => !apart(a, b))
      .map(b => `"${a.text}" touches "${b.text}"`),
  )

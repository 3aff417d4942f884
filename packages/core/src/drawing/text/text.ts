import { kind } from '../../describe/kind.ts'
import type { Discs } from '../../scene/scene.ts'
import { paintOf } from '../paint-of.ts'
import { moveToSlots } from '../slots.ts'

/** Words at places of the plot, moved only as far as it takes for none to overlap. What they say is the role `label`. */
export const text = kind({
  name: 'text',
  looks: ['arrange'],
  arrange: 'overlap',
  arranges: ['side', 'overlap'],
  styles: ['color'],
  roles: { x: 'position', y: 'position', color: 'category', series: 'category' },
  swatch: 'disc',
  reads: 'point',
  scattered: true,
  aside: true,
  labelled: true,
  draw({ id, marks, x, y, style, slots }) {
    const place = (scale: typeof x, value: number) =>
      scale.kind.allows(value) ? scale.map(value) : Number.NaN
    // Places without a size: labels stand on them.
    const places: Discs = {
      kind: 'discs',
      id: `${id}/text`,
      part: 'data',
      clip: true,
      keys: Array.from({ length: marks.length }, (_, i) => marks.keyOf(i)),
      rows: marks.rowsOf,
      ...paintOf(marks, style),
      along: { x: x.name, y: y.name },
      x: Float32Array.from(marks.x.at, value => place(x, value)),
      y: Float32Array.from(marks.y.at, value => place(y, value)),
      radius: new Float32Array(marks.length),
    }
    if (slots) moveToSlots(slots, marks, { x, y }, places)
    return [places]
  },
})

import type { Drawing } from '../../describe/description.ts'
import { kind } from '../../describe/kind.ts'
import type { DrawInput, Marks } from '../../describe/model.ts'
import type { Wedges } from '../../scene/scene.ts'
import { isRest } from '../../table/group/top.ts'
import { alphaOf, paintOf } from '../paint-of.ts'

const TURN = Math.PI * 2

/** Slices of a whole, clockwise from twelve o'clock; with a hole, a ring. What is zero, negative or missing has no slice. */
export const pie = kind<Pick<Drawing<any>, 'hollow' | 'values'>>({
  name: 'pie',
  looks: ['hollow', 'values'],
  styles: ['color', 'opacity'],
  roles: { x: 'optional position', y: 'optional position', color: 'category', series: 'category' },
  swatch: 'rect',
  parts: true,
  reads: 'slice',
  labelled: true,
  draw({ id, marks, plot, style, theme, labelRoom, order: wish, options }) {
    const order = slicesOf(marks, wish)
    const count = order.length
    const radius = Math.max(4, Math.min(plot.width / 2 - labelRoom.x, plot.height / 2 - labelRoom.y))
    const total = order.reduce((sum, mark) => sum + marks.y.at[mark], 0)
    const from = new Float32Array(count)
    const to = new Float32Array(count)
    let sum = 0
    order.forEach((mark, i) => {
      from[i] = (sum / total) * TURN
      sum += marks.y.at[mark]
      to[i] = (sum / total) * TURN
    })
    const paint = paintOf(marks, style)
    const wedges: Wedges = {
      kind: 'wedges',
      id: `${id}/pie`,
      part: 'data',
      clip: false,
      keys: order.map(mark => marks.keyOf(mark)),
      rows: i => marks.rowsOf(order[i]),
      colors: paint.colors,
      hatched: paint.hatched,
      color: Uint16Array.from(order, mark => paint.color[mark]),
      alpha: alphaOf(style.opacity ?? 1, count),
      x: new Float32Array(count).fill(plot.x + plot.width / 2),
      y: new Float32Array(count).fill(plot.y + plot.height / 2),
      from,
      to,
      inner: new Float32Array(count).fill(radius * Math.max(0, Math.min(0.95, options.hollow ?? 0))),
      outer: new Float32Array(count).fill(radius),
      ring: { color: theme.background, width: count > 1 ? 1.5 : 0 },
    }
    return [wedges]
  },
})

/** The marks that have a slice, in the order in which slices stand: the largest first unless told otherwise, the rest last. */
function slicesOf({ y, series, seriesOf, length }: Marks, wish: DrawInput['order']): number[] {
  const out: number[] = []
  for (let mark = 0; mark < length; mark++) if (y.at[mark] > 0 && Number.isFinite(y.at[mark])) out.push(mark)
  const own = (mark: number) => (seriesOf ? seriesOf[mark] : 0)
  const rest = (mark: number) => Number(isRest(series[own(mark)].key))
  return out.sort(
    (a, b) =>
      rest(a) - rest(b) ||
      (wish === 'given'
        ? own(a) - own(b)
        : wish === 'name'
          ? series[own(a)].name.localeCompare(series[own(b)].name)
          : y.at[b] - y.at[a]),
  )
}

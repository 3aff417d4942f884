// A picture as a person has it before reading: shapes with their places and looks, and words. From SVG alone.

export interface Box {
  x0: number
  y0: number
  x1: number
  y1: number
}
interface Look {
  /** The plot that it is clipped by, counted from 0 in order of appearance; undefined for what stands around. */
  plot: number | undefined
  opacity: number
}
export type Shape =
  | (Look & {
      kind: 'text'
      text: string
      whole?: string
      x: number
      y: number
      size: number
      anchor: string
      turn: number
      fill: string
    })
  | (Look & { kind: 'disc'; x: number; y: number; r: number; fill: string })
  | (Look & { kind: 'filled'; points: [number, number][]; box: Box; fill: string; isBox: boolean })
  | (Look & { kind: 'stroke'; points: [number, number][]; width: number; dash: string; stroke: string })
export interface Picture {
  width: number
  height: number
  background: string | undefined
  title: string
  description: string
  plots: Box[]
  shapes: Shape[]
}

const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" }
const plain = (text: string) =>
  text.replace(/&(#x?[\da-f]+|\w+);/gi, (_, name: string) =>
    name[0] === '#'
      ? String.fromCodePoint(Number(name[1] === 'x' ? `0${name.slice(1)}` : name.slice(1)))
      : (ENTITIES[name] ?? ''),
  )

/** Half a stroke beyond the plot is not cut, so the frame that cuts is larger than the plot by this much. */
const BEYOND = 4

export function readSvg(svg: string): Picture {
  const picture: Picture = {
    width: 0,
    height: 0,
    background: undefined,
    title: '',
    description: '',
    plots: [],
    shapes: [],
  }
  const stack: Record<string, string>[] = [{}]
  let plot: number | undefined
  let text: (Shape & { kind: 'text' }) | undefined
  for (const [, closing, name, rest, words] of svg.matchAll(/<(\/?)([\w-]+)((?:[^>"]|"[^"]*")*)>([^<]*)/g)) {
    const now = stack[stack.length - 1]
    if (closing) {
      if (name === 'svg') plot = undefined
      if (name === 'text' && text) {
        picture.shapes.push(text)
        text = undefined
      }
      stack.pop()
      // Words of a text may follow its title.
      if (text && name === 'title') text.text += plain(words)
      continue
    }
    const own = Object.fromEntries(
      [...rest.matchAll(/([\w:-]+)="([^"]*)"/g)].map(([, key, value]) => [key, plain(value)]),
    )
    const all = { ...now, ...own }
    const look: Look = {
      plot,
      opacity: Number(all['fill-opacity'] ?? 1) * Number(all['stroke-opacity'] ?? 1),
    }
    const at = (key: string) => Number(own[key] ?? 0)
    if (name === 'svg' && picture.width === 0)
      Object.assign(picture, { width: at('width'), height: at('height') })
    else if (name === 'svg') {
      const box = {
        x0: at('x') + BEYOND,
        y0: at('y') + BEYOND,
        x1: at('x') + at('width') - BEYOND,
        y1: at('y') + at('height') - BEYOND,
      }
      plot = picture.plots.findIndex(one => Math.abs(one.x0 - box.x0) + Math.abs(one.y0 - box.y0) < 0.1)
      if (plot < 0) plot = picture.plots.push(box) - 1
    } else if (name === 'title' && text) text.whole = plain(words)
    else if (name === 'title') picture.title = plain(words)
    else if (name === 'desc') picture.description = plain(words)
    else if (name === 'rect' && own.width === '100%') picture.background = own.fill
    else if (name === 'rect') {
      const box = { x0: at('x'), y0: at('y'), x1: at('x') + at('width'), y1: at('y') + at('height') }
      picture.shapes.push({ ...look, kind: 'filled', box, points: [], fill: all.fill, isBox: true })
    } else if (name === 'circle')
      picture.shapes.push({ ...look, kind: 'disc', x: at('cx'), y: at('cy'), r: at('r'), fill: all.fill })
    else if (name === 'path') {
      const points = pointsOf(own.d ?? '')
      if (all.fill !== undefined && all.fill !== 'none')
        picture.shapes.push({
          ...look,
          kind: 'filled',
          points,
          box: boxOf(points),
          fill: all.fill,
          isBox: /[VH]/.test(own.d),
        })
      else
        picture.shapes.push({
          ...look,
          kind: 'stroke',
          points,
          width: Number(all['stroke-width'] ?? 1),
          dash: all['stroke-dasharray'] ?? '',
          stroke: all.stroke,
        })
    } else if (name === 'text')
      text = {
        ...look,
        kind: 'text',
        text: plain(words),
        x: at('x'),
        y: at('y'),
        size: Number(all['font-size']),
        anchor: all['text-anchor'] ?? 'start',
        turn: Number(/rotate\(([-\d.]+)/.exec(own.transform ?? '')?.[1] ?? 0),
        fill: all.fill,
      }
    if (!rest.trim().endsWith('/')) stack.push(inherited(all))
  }
  return picture
}

const INHERITED = [
  'fill',
  'stroke',
  'fill-opacity',
  'stroke-opacity',
  'stroke-width',
  'stroke-dasharray',
  'font-size',
  'text-anchor',
]
const inherited = (all: Record<string, string>) =>
  Object.fromEntries(INHERITED.filter(key => key in all).map(key => [key, all[key]]))

/** The corners that a path goes through; where a piece of it is missing, a corner that is no number. */
function pointsOf(d: string): [number, number][] {
  const out: [number, number][] = []
  let [x, y] = [0, 0]
  for (const [, letter, numbers] of d.matchAll(/([MLHVAC])([^A-Za-z]*)/g)) {
    const n = (numbers.match(/-?[\d.]+(?:e-?\d+)?/g) ?? []).map(Number)
    const width = { M: 2, L: 2, H: 1, V: 1, A: 7, C: 6 }[letter]!
    for (let i = 0; i < n.length; i += width) {
      if (letter === 'M' && out.length > 0) out.push([Number.NaN, Number.NaN])
      if (letter === 'H') x = n[i]
      else if (letter === 'V') y = n[i]
      else [x, y] = [n[i + width - 2], n[i + width - 1]]
      out.push([x, y])
    }
  }
  return out
}

function boxOf(points: readonly [number, number][]): Box {
  const there = points.filter(([x]) => x === x)
  const [xs, ys] = [there.map(([x]) => x), there.map(([, y]) => y)]
  return { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) }
}

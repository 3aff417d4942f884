import type { PositionScale } from '../scale/scale.ts'
import type { Lines, Scene } from '../scene/scene.ts'
import { type BatchAt, faded, type GlideContext } from './blend.ts'

/** A line on its way: vertices of both pictures, each with where it comes from and where it goes. */
interface Route {
  fromX: number[]
  fromY: number[]
  toX: number[]
  toY: number[]
  atX: number[]
  atY: number[]
}

/** Lines with one name glide; points that are new come out of the old line, points that go sink into the new one. */
export function glideLines(old: Lines, batch: Lines, context: GlideContext): BatchAt[] {
  const scaleOf = (scene: Scene, axis: 'x' | 'y'): PositionScale | undefined => {
    const name = batch.along?.[axis]
    return name === undefined ? undefined : scene.scales.get(name)
  }
  const before = { x: scaleOf(context.from, 'x'), y: scaleOf(context.from, 'y') }
  const after = { x: scaleOf(context.to, 'x'), y: scaleOf(context.to, 'y') }
  const whole = !(before.x && before.y && after.x && after.y)
  const oldNames = new Map(old.names.map((name, i) => [name, i]))
  const routes: Route[] = []
  const fresh: number[] = []
  const shown: number[] = []
  batch.names.forEach((name, line) => {
    const was = oldNames.get(name)
    // Strokes of guides stand on no scale: they move as they are.
    if (was !== undefined && whole && sizeOf(old, was) === sizeOf(batch, line)) {
      shown.push(line)
      routes.push(strokeOf(old, was, batch, line))
      return
    }
    if (was === undefined || whole) {
      fresh.push(line)
      return
    }
    shown.push(line)
    // While a chart plays, a line grows out of its end; else what is new is where it belongs at once.
    const grows = context.says === 'before'
    routes.push(routeOf(old, was, batch, line, before as Placing, after as Placing, grows))
  })
  const steps: BatchAt[] = []
  const gone = old.names.map((_, i) => i).filter(i => !batch.names.includes(old.names[i]))
  if (gone.length > 0 && !whole) {
    const leaving = pickLines(old, gone)
    steps.push((_, time) => (time >= 0.5 ? undefined : faded(leaving, 1 - time * 2)))
  }
  if (routes.length > 0) steps.push(blend(batch, shown, routes))
  if (fresh.length > 0) {
    const entering = pickLines(batch, fresh)
    steps.push((_, time) => faded(entering, time))
  }
  return steps
}

const sizeOf = ({ starts }: Lines, line: number): number => starts[line + 1] - starts[line]

/** A stroke of as many vertices before and after. */
function strokeOf(old: Lines, was: number, batch: Lines, line: number): Route {
  const part = <A extends Float32Array | Float64Array>(array: A, { starts }: Lines, at: number): number[] =>
    Array.from(array.subarray(starts[at], starts[at + 1]))
  return {
    fromX: part(old.x, old, was),
    fromY: part(old.y, old, was),
    toX: part(batch.x, batch, line),
    toY: part(batch.y, batch, line),
    atX: part(batch.atX, batch, line),
    atY: part(batch.atY, batch, line),
  }
}

interface Placing {
  x: PositionScale
  y: PositionScale
}

function routeOf(
  old: Lines,
  was: number,
  batch: Lines,
  line: number,
  before: Placing,
  after: Placing,
  grows: boolean,
): Route {
  const route: Route = { fromX: [], fromY: [], toX: [], toY: [], atX: [], atY: [] }
  const push = (fx: number, fy: number, tx: number, ty: number, ax: number, ay: number) => {
    route.fromX.push(fx)
    route.fromY.push(fy)
    route.toX.push(tx)
    route.toY.push(ty)
    route.atX.push(ax)
    route.atY.push(ay)
  }
  let a = old.starts[was]
  let b = batch.starts[line]
  const aEnd = old.starts[was + 1]
  const bEnd = batch.starts[line + 1]
  const thinned = old.keys.length === 0 || batch.keys.length === 0
  const translate = categoryTranslation(before.x, after.x)
  if (thinned || translate === null) {
    // Vertices that stand for stretches of rows have no counterparts; the scales alone carry the line over.
    for (; b < bEnd; b++)
      push(
        before.x.map(batch.atX[b]),
        before.y.map(batch.atY[b]),
        batch.x[b],
        batch.y[b],
        batch.atX[b],
        batch.atY[b],
      )
    return route
  }
  const oldLine = { x: old.x, y: old.y, at: old.atX, start: a, end: aEnd, map: translate }
  const newLine = {
    x: batch.x,
    y: batch.y,
    at: batch.atX,
    start: b,
    end: bEnd,
    map: (value: number) => value,
  }
  while (a < aEnd || b < bEnd) {
    const atA = a < aEnd ? translate(old.atX[a]) : Number.POSITIVE_INFINITY
    const atB = b < bEnd ? batch.atX[b] : Number.POSITIVE_INFINITY
    if (atA !== atA) {
      a++
      continue
    }
    if (atA === atB) {
      push(old.x[a], old.y[a], batch.x[b], batch.y[b], atB, batch.atY[b])
      a++
      b++
    } else if (atB < atA) {
      const end =
        grows && a >= aEnd && aEnd > oldLine.start ? { x: old.x[aEnd - 1], y: old.y[aEnd - 1] } : undefined
      const from = onLine(oldLine, atB) ?? end
      push(
        from?.x ?? before.x.map(atB),
        from?.y ?? before.y.map(batch.atY[b]),
        batch.x[b],
        batch.y[b],
        atB,
        batch.atY[b],
      )
      b++
    } else {
      const to = onLine(newLine, atA)
      push(old.x[a], old.y[a], to?.x ?? after.x.map(atA), to?.y ?? after.y.map(old.atY[a]), atA, old.atY[a])
      a++
    }
  }
  return route
}

/** Turns places on one category scale into places on another; the same for other scales; null where kinds differ. */
function categoryTranslation(
  before: PositionScale,
  after: PositionScale,
): ((value: number) => number) | null {
  if (before.kind.name !== after.kind.name) return null
  if (after.kind.name !== 'category' || sameWords(before.words, after.words)) return value => value
  const index = new Map(after.words.map((word, i) => [word, i]))
  const order = before.words.map(word => index.get(word) ?? Number.NaN)
  // Where the order itself changed, vertices would have to cross each other: the line is carried by its scales instead.
  const kept = order.filter(at => !Number.isNaN(at))
  return kept.every((at, i) => i === 0 || at > kept[i - 1]) ? value => order[value] : null
}

const sameWords = (a: readonly string[], b: readonly string[]) =>
  a.length === b.length && a.every((word, i) => word === b[i])

interface LinePart {
  x: Float32Array
  y: Float32Array
  at: Float64Array
  start: number
  end: number
  map: (value: number) => number
}

/** Where a line passes a place between two of its vertices; undefined outside its ends and in gaps. */
function onLine(
  { x, y, at, start, end, map }: LinePart,
  place: number,
): { x: number; y: number } | undefined {
  let low = start
  let high = end
  while (low < high) {
    const middle = (low + high) >>> 1
    if (map(at[middle]) < place) low = middle + 1
    else high = middle
  }
  if (low <= start || low >= end) return undefined
  const left = map(at[low - 1])
  const right = map(at[low])
  const t = (place - left) / (right - left)
  const py = y[low - 1] + (y[low] - y[low - 1]) * t
  return Number.isNaN(py) || Number.isNaN(t)
    ? undefined
    : { x: x[low - 1] + (x[low] - x[low - 1]) * t, y: py }
}

function blend(batch: Lines, shown: number[], routes: Route[]): BatchAt {
  const starts = new Uint32Array(routes.length + 1)
  routes.forEach((route, i) => {
    starts[i + 1] = starts[i] + route.toX.length
  })
  const count = starts[routes.length]
  const join = (name: keyof Route) => {
    const all = new Float64Array(count)
    routes.forEach((route, i) => {
      all.set(route[name], starts[i])
    })
    return all
  }
  const [fromX, fromY, toX, toY] = [join('fromX'), join('fromY'), join('toX'), join('toY')]
  const base = { ...pickLooks(batch, shown), starts, atX: join('atX'), atY: join('atY'), rows: undefined }
  // Vertices have no keys in flight, but they are matched by place, so a new motion can start from any moment.
  const keys = batch.keys.length > 0 ? Array.from(base.atX) : []
  return eased => {
    const x = new Float32Array(count)
    const y = new Float32Array(count)
    for (let i = 0; i < count; i++) {
      x[i] = fromX[i] + (toX[i] - fromX[i]) * eased
      // A value that was missing or goes missing stands where it can be seen.
      const fy = fromY[i] === fromY[i] ? fromY[i] : toY[i]
      y[i] = toY[i] === toY[i] ? fy + (toY[i] - fy) * eased : toY[i]
    }
    return { ...base, keys, x, y }
  }
}

function pickLooks(batch: Lines, which: number[]): Lines {
  return {
    ...batch,
    names: which.map(i => batch.names[i]),
    color: Uint16Array.from(which, i => batch.color[i]),
    width: Float32Array.from(which, i => batch.width[i]),
    dash: which.map(i => batch.dash[i]),
    alpha: batch.alpha && Float32Array.from(which, i => batch.alpha![i]),
  }
}

function pickLines(batch: Lines, which: number[]): Lines {
  const starts = new Uint32Array(which.length + 1)
  which.forEach((line, i) => {
    starts[i + 1] = starts[i] + batch.starts[line + 1] - batch.starts[line]
  })
  const pick = <A extends Float32Array | Float64Array>(values: A, out: A): A => {
    which.forEach((line, i) => {
      out.set(values.subarray(batch.starts[line], batch.starts[line + 1]), starts[i])
    })
    return out
  }
  const count = starts[which.length]
  const keys =
    batch.keys.length === 0
      ? []
      : which.flatMap(line =>
          Array.from(
            { length: batch.starts[line + 1] - batch.starts[line] },
            (_, i) => batch.keys[batch.starts[line] + i],
          ),
        )
  return {
    ...pickLooks(batch, which),
    keys,
    rows: undefined,
    starts,
    x: pick(batch.x, new Float32Array(count)),
    y: pick(batch.y, new Float32Array(count)),
    atX: pick(batch.atX, new Float64Array(count)),
    atY: pick(batch.atY, new Float64Array(count)),
  }
}

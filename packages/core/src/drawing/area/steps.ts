import type { Between, Marks } from '../../describe/model.ts'
import type { Vertex } from './pile.ts'

/** A value that holds from one place to another. */
interface Held {
  start: number
  end: number
  value: number
  mark: number
}

/** How steps are piled: each series from `zero`, on each other, or on each other up to the whole. */
export interface Piling {
  stacks: boolean
  share: boolean
  zero: number
}

/**
 * Bands that hold their values in steps, each piled on those before it wherever both hold one: from one place at which
 * any of them steps to the next, all of them are level.
 */
export function steppedBands(marks: Marks, between: Between, { stacks, share, zero }: Piling): Vertex[][] {
  const all = heldValues(marks, between)
  const next = all.map(() => 0)
  const bands = all.map((): Vertex[] => [])
  for (const [from, to] of levels(all)) {
    let [up, down] = [zero, zero]
    const here: { band: Vertex[]; top: number; base: number; mark: number }[] = []
    all.forEach((list, s) => {
      while (next[s] < list.length && list[next[s]].end < to) next[s]++
      // Where a value holds for no time it is seen at its place, before what follows.
      const instant = from === to && list[next[s] + 1]?.end === to
      const held = list[next[s] + Number(instant)]
      if (!held || held.start > from) return
      const { value, mark } = held
      const base = stacks ? (value < 0 ? down : up) : zero
      const top = Number.isNaN(value) ? Number.NaN : stacks ? base + value : value
      if (stacks && value < 0) down = top
      else if (stacks && value >= 0) up = top
      here.push({ band: bands[s], top, base: Number.isNaN(value) ? Number.NaN : base, mark })
    })
    const whole = share ? up - down : 1
    const of = (value: number) => (whole === 0 ? value * 0 : value / whole)
    for (const { band, top, base, mark } of here)
      for (const x of from === to ? [from] : [from, to]) band.push({ x, top: of(top), base: of(base), mark })
  }
  return bands
}

/** The values of each series in the order of their places, with how far they hold. */
function heldValues(marks: Marks, between: Between): Held[][] {
  const all = marks.series.map((): Held[] => [])
  for (let mark = 0; mark < marks.length; mark++) {
    const x = marks.x.at[mark]
    if (!Number.isNaN(x))
      all[marks.seriesOf?.[mark] ?? 0].push({ start: x, end: x, value: marks.y.at[mark], mark })
  }
  const { from, to } = marks.x
  for (const list of all) {
    list.sort((a, b) => a.start - b.start)
    const places = list.map(({ start }) => start)
    list.forEach((held, i) => {
      const before = places[Math.max(0, i - 1)]
      const after = places[Math.min(places.length - 1, i + 1)]
      if (from && to) [held.start, held.end] = [from[held.mark], to[held.mark]]
      else if (between === 'hold') held.end = after
      else if (between === 'hold next') held.start = before
      else [held.start, held.end] = [(before + held.start) / 2, (held.end + after) / 2]
    })
  }
  return all
}

/** The stretches over which no series steps, in order; those without breadth are values that hold for no time. */
function levels(all: readonly Held[][]): [number, number][] {
  const edges = new Set<number>()
  const instants = new Set<number>()
  for (const { start, end } of all.flat()) {
    edges.add(start)
    edges.add(end)
    if (start === end) instants.add(start)
  }
  const sorted = [...edges].sort((a, b) => a - b)
  return sorted.flatMap((edge, i): [number, number][] => [
    ...(instants.has(edge) ? [[edge, edge] as [number, number]] : []),
    ...(i + 1 < sorted.length ? [[edge, sorted[i + 1]] as [number, number]] : []),
  ])
}

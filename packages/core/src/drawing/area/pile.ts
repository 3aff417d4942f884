import type { Marks } from '../../describe/model.ts'

/** A place of a band, in data units; `mark` is -1 where the band has no value of its own. */
export interface Vertex {
  x: number
  top: number
  base: number
  mark: number
}

/** Places times series beyond which bands are piled only where they have values. */
const MOST = 4_000_000

/**
 * Bands of series whose places differ, piled up at the places of all of them: between two of its own values a band is as
 * high as the straight line between them. Where a band begins or ends, those on it step, so no band ever covers another.
 * Undefined where all series have the same places, each once, and nothing needs to be worked out in between.
 */
export function piled(marks: Marks, share: boolean): Vertex[][] | undefined {
  if (marks.series.length < 2) return undefined
  const own = ownPlaces(marks)
  if (!own) return undefined
  const places = placesOf(own)
  if (places.length * own.length > MOST) return undefined
  const up = new Float64Array(places.length)
  const down = new Float64Array(places.length)
  const bands = own.map(list => {
    const band: (Vertex & { place: number })[] = []
    let next = 0
    places.forEach(({ x, right }, place) => {
      while (next < list.length && list[next].x < x) next++
      const found = heightAt(list, next, x, right)
      if (!found) return
      const pile = found.value < 0 ? down : up
      const base = pile[place]
      pile[place] += Number.isNaN(found.value) ? 0 : found.value
      const missing = Number.isNaN(found.value)
      band.push({
        x,
        place,
        mark: found.mark,
        base: missing ? Number.NaN : base,
        top: missing ? Number.NaN : pile[place],
      })
    })
    return band
  })
  if (share)
    for (const band of bands)
      for (const vertex of band) {
        const total = up[vertex.place] - down[vertex.place]
        vertex.base = total === 0 ? 0 : vertex.base / total
        vertex.top = total === 0 ? 0 : vertex.top / total
      }
  return bands
}

interface Own {
  x: number
  value: number
  mark: number
}

/** The values of each series by place; undefined where piling them place by place says all, or a place has two values. */
function ownPlaces(marks: Marks): Own[][] | undefined {
  const all = marks.series.map((): Own[] => [])
  for (let mark = 0; mark < marks.length; mark++) {
    const x = marks.x.at[mark]
    if (!Number.isNaN(x)) all[marks.seriesOf?.[mark] ?? 0].push({ x, value: marks.y.at[mark], mark })
  }
  for (const list of all) {
    list.sort((a, b) => a.x - b.x)
    if (list.some(({ x }, i) => i > 0 && list[i - 1].x === x)) return undefined
  }
  const [first] = all
  const alike = all.every(list => list.length === first.length && list.every(({ x }, i) => x === first[i].x))
  return alike ? undefined : all
}

/** A place, or one side of it: what is to be seen coming from the left, or from the right. */
interface PlaceSide {
  x: number
  right: boolean | undefined
}

/** The places of all series, in order; twice, once for each side, where a band begins or ends. */
function placesOf(own: readonly Own[][]): PlaceSide[] {
  const edges = new Set<number>()
  const all = new Set<number>()
  for (const list of own) {
    list.forEach(({ x, value }, i) => {
      all.add(x)
      const alone = i === 0 || i === list.length - 1
      if (alone || Number.isNaN(value) || Number.isNaN(list[i - 1].value) || Number.isNaN(list[i + 1].value))
        edges.add(x)
    })
  }
  return [...all]
    .sort((a, b) => a - b)
    .flatMap((x): PlaceSide[] =>
      edges.has(x)
        ? [
            { x, right: false },
            { x, right: true },
          ]
        : [{ x, right: undefined }],
    )
}

/** How high a band is at a place; NaN where its value there is missing, undefined where it has none on this side. */
function heightAt(
  list: readonly Own[],
  next: number,
  x: number,
  right: boolean | undefined,
): { value: number; mark: number } | undefined {
  const after = list[next]
  const before = list[next - 1]
  if (after?.x === x) {
    const beyond = right ? list[next + 1] : before
    // A lonely value, and one beside a gap, is seen from the side where the band goes on.
    const ends = right !== undefined && (beyond === undefined || Number.isNaN(beyond.value))
    if (ends && list.length > 1 && !Number.isNaN(after.value)) return undefined
    return { value: after.value, mark: after.mark }
  }
  if (!before || !after || Number.isNaN(before.value + after.value)) return undefined
  const share = (x - before.x) / (after.x - before.x)
  return { value: before.value + (after.value - before.value) * share, mark: -1 }
}

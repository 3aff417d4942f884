import type { Batch, Discs, Lines, Scene } from '../scene/scene.ts'
import type { Chart } from '../view/chart.ts'
import type { View } from '../view/view.ts'

/** How faint a trail is, and how large its points are as shares of those that leave it. */
const FAINT = 0.35
const SMALL = 0.45
/** The width of a trail, in pixels. */
const WIDTH = 1.5

/** Whether a chart's lines run along what it is played through, so that they grow with it. */
export function growsAlong({ resolved }: Chart): boolean {
  const through = resolved.throughMeaning
  return resolved.drawings.some(({ kind, roles }) => {
    const x = roles.get('x')
    const joined = kind.name === 'line' || kind.name === 'area'
    return joined && x && through && 'column' in x && 'column' in through && x.column === through.column
  })
}

/** By period: its rows, and those of all before it. */
export function soFar(periods: readonly { rows: Int32Array }[]): Int32Array[] {
  const all = new Int32Array(periods.reduce((sum, { rows }) => sum + rows.length, 0))
  let count = 0
  return periods.map(({ rows }) => {
    all.set(rows, count)
    count += rows.length
    return all.subarray(0, count)
  })
}

/** Where the points of a played chart have been. */
export class Trail {
  private readonly view: (period: number) => View
  private kept: { scenes: readonly Scene[]; batches: Map<string, Past> } | undefined

  /** `view`: of a period, by its number. */
  constructor(view: (period: number) => View) {
    this.view = view
  }

  /** A scene with the trails of its points behind them, up to a period. */
  behind(scene: Scene, index: number): Scene {
    if (index === 0 && !scene.batches.some(isTrailed)) return scene
    const past = this.pastAt(index)
    const batches = scene.batches.flatMap((batch): Batch[] => {
      const own = isTrailed(batch) ? past.get(batch.id) : undefined
      return own ? [...trailsOf(batch as Discs, own), batch] : [batch]
    })
    return { ...scene, batches }
  }

  /** By batch and by point: where it stood in each period up to one, worked out once while those pictures stay. */
  private pastAt(index: number): Map<string, Past> {
    const scenes = Array.from({ length: index + 1 }, (_, period) => this.view(period).scene)
    const { kept } = this
    if (kept && kept.scenes.length === scenes.length && scenes.every((scene, i) => scene === kept.scenes[i]))
      return kept.batches
    const batches = new Map<string, Past>()
    for (const scene of scenes)
      for (const batch of scene.batches) {
        if (!isTrailed(batch)) continue
        const past: Past = batches.get(batch.id) ?? new Map()
        batches.set(batch.id, past)
        for (let i = 0; i < batch.keys.length; i++) {
          const places = past.get(batch.keys[i]) ?? []
          past.set(batch.keys[i], places)
          if (!Number.isNaN(batch.x[i] + batch.y[i])) places.push([batch.x[i], batch.y[i], batch.radius[i]])
        }
      }
    this.kept = { scenes, batches }
    return batches
  }
}

/** By point: its places and radii in pixels, the oldest first. */
type Past = Map<string | number, [x: number, y: number, radius: number][]>

const isTrailed = (batch: Batch): batch is Discs =>
  batch.kind === 'discs' && batch.part === 'data' && batch.keys.length > 0

/** A line from the places of each point to where it is now, and a small point at each of those places. */
function trailsOf(batch: Discs, past: Past): (Lines | Discs)[] {
  const lines = Array.from(batch.keys, (key, i) => ({
    i,
    places: [...(past.get(key) ?? []), [batch.x[i], batch.y[i], batch.radius[i]] as const],
  })).filter(({ places }) => places.length > 1)
  if (lines.length === 0) return []
  const starts = new Uint32Array(lines.length + 1)
  lines.forEach(({ places }, line) => {
    starts[line + 1] = starts[line] + places.length
  })
  const all = lines.flatMap(({ places }) => places)
  const before = lines.flatMap(({ i, places }) => places.slice(0, -1).map(place => ({ i, place })))
  const { colors, color, clip, pane } = batch
  const shared = { part: 'guide' as const, clip, pane, colors }
  return [
    {
      ...shared,
      kind: 'lines',
      id: `${batch.id}/trail`,
      names: lines.map(({ i }) => String(batch.keys[i])),
      keys: [],
      color: Uint16Array.from(lines, ({ i }) => color[i]),
      alpha: new Float32Array(lines.length).fill(FAINT),
      starts,
      x: Float32Array.from(all, ([x]) => x),
      y: Float32Array.from(all, ([, y]) => y),
      atX: new Float64Array(all.length),
      atY: new Float64Array(all.length),
      width: new Float32Array(lines.length).fill(WIDTH),
      dash: lines.map(() => []),
    },
    {
      ...shared,
      kind: 'discs',
      id: `${batch.id}/past`,
      keys: [],
      color: Uint16Array.from(before, ({ i }) => color[i]),
      alpha: new Float32Array(before.length).fill(FAINT),
      x: Float32Array.from(before, ({ place: [x] }) => x),
      y: Float32Array.from(before, ({ place: [, y] }) => y),
      radius: Float32Array.from(before, ({ place: [, , radius] }) => Math.max(1.5, radius * SMALL)),
    },
  ]
}

import type { FarAnswer, FarMeasure, FarTest } from './model.ts'

/** A stretch of values that is selected. */
export type Between = FarTest & { is: 'between'; from: number; last: number }

/** Cells along values that are dragged. */
export interface Side {
  min: number
  max: number
  count: number
}

/** The groups of a question by where the dragged values lie. */
export interface Cube {
  /** One or two; of one, the second has a single cell. */
  sides: Side[]
  groups: number
  /** What each group has in common. */
  keys: FarAnswer['columns']
  /** By measure, of each group what all cells before a corner come to: of a box only its corners are looked at. */
  before: Float64Array[]
}

/** A cube from the groups that an engine answers with: after the values of groups come the cells, then the measures. */
export function cubeFrom(
  { columns, length }: FarAnswer,
  keys: number,
  sides: Side[],
  measures: readonly FarMeasure[],
): Cube {
  const known = new Map<string, number>()
  const firsts: number[] = []
  const groupOf = new Int32Array(length)
  for (let row = 0; row < length; row++) {
    let name = ''
    for (let k = 0; k < keys; k++) name += `${columns[k][row]}\u001f`
    let group = known.get(name)
    if (group === undefined) {
      group = firsts.push(row) - 1
      known.set(name, group)
    }
    groupOf[row] = group
  }
  // Without anything to group by, there is one group, also of no rows.
  const groups = keys === 0 ? 1 : firsts.length
  const [across, up] = [sides[0].count, sides[1]?.count ?? 1]
  const [cellX, cellY] = [columns[keys] as Float64Array, sides[1] && (columns[keys + 1] as Float64Array)]
  const wide = up + 1
  const own = (across + 1) * wide
  const before = measures.map((measure, m) => {
    const values = columns[keys + sides.length + m] as Float64Array
    if (isPlace(measure)) return leastOf(values, groupOf, groups)
    const sums = new Float64Array(groups * own)
    for (let row = 0; row < length; row++) {
      // A missing value is in no cell.
      const [x, y] = [cellX[row], cellY ? cellY[row] : 0]
      if (!(x >= 0 && x < across && y >= 0 && y < up)) continue
      sums[groupOf[row] * own + (x + 1) * wide + y + 1] += values[row] || 0
    }
    for (let group = 0; group < groups; group++)
      for (let x = 1; x <= across; x++)
        for (let y = 1; y <= up; y++) {
          const at = group * own + x * wide + y
          sums[at] += sums[at - 1] + sums[at - wide] - sums[at - wide - 1]
        }
    return sums
  })
  return {
    sides,
    groups,
    keys: columns
      .slice(0, keys)
      .map(values =>
        Array.isArray(values)
          ? firsts.map(row => values[row])
          : Float64Array.from(firsts, row => values[row]),
      ),
    before,
  }
}

/** Where a group begins in the order of the table: of all its rows, so that groups keep their order while a person drags. */
function leastOf(values: Float64Array, groupOf: Int32Array, groups: number): Float64Array {
  const out = new Float64Array(groups).fill(Number.POSITIVE_INFINITY)
  for (let row = 0; row < values.length; row++)
    if (values[row] < out[groupOf[row]]) out[groupOf[row]] = values[row]
  return out
}

/** Where values lie between the corners of cells, in cells. */
function endsIn({ min, max, count }: Side, { from, last }: Between): [low: number, high: number] {
  // Of one value alone the cell is that value.
  if (min === max) return from <= min && last >= max ? [0, 1] : [0, 0]
  const place = (value: number) => Math.max(0, Math.min(1, (value - min) / (max - min))) * count
  return [place(from), Math.max(place(from), place(last))]
}

/** The groups of what is selected: cells at its edges count as far as they lie in it. Groups without a row are none. */
export function addedUp(cube: Cube, moving: readonly Between[], measures: readonly FarMeasure[]): FarAnswer {
  const { groups, sides } = cube
  const [left, right] = endsIn(sides[0], moving[0])
  const [low, high] = sides[1] ? endsIn(sides[1], moving[1]) : [0, 1]
  const wide = (sides[1]?.count ?? 1) + 1
  const own = (sides[0].count + 1) * wide
  // Where the four corners lie is the same for every group: between which cells, and how near to each.
  const corners = [
    [right, high, 1],
    [left, high, -1],
    [right, low, -1],
    [left, low, 1],
  ].flatMap(([x, y, sign]) => {
    const [i, j] = [Math.min(Math.floor(x), sides[0].count - 1), Math.min(Math.floor(y), wide - 2)]
    const [a, b] = [x - i, y - j]
    const at = i * wide + j
    return [
      [at, sign * (1 - a) * (1 - b)],
      [at + 1, sign * (1 - a) * b],
      [at + wide, sign * a * (1 - b)],
      [at + wide + 1, sign * a * b],
    ]
  })
  const places = Int32Array.from(corners, ([at]) => at)
  const shares = Float64Array.from(corners, ([, share]) => share)
  const values = measures.map((measure, m) => {
    const sums = cube.before[m]
    if (isPlace(measure)) return sums
    const out = new Float64Array(groups)
    for (let group = 0; group < groups; group++) {
      let sum = 0
      for (let i = 0; i < places.length; i++) sum += shares[i] * sums[group * own + places[i]]
      out[group] = sum
    }
    return out
  })
  const [counts] = values
  const kept: number[] = []
  for (let group = 0; group < groups; group++)
    if (cube.keys.length === 0 || counts[group] > SOME) kept.push(group)
  return {
    length: kept.length,
    columns: [
      ...cube.keys.map(list =>
        Array.isArray(list) ? kept.map(group => list[group]) : Float64Array.from(kept, group => list[group]),
      ),
      ...values.map(list => Float64Array.from(kept, group => list[group])),
    ],
  }
}

/** Less than this of a row is what is left of taking sums from each other. */
const SOME = 1e-6

const isPlace = (measure: FarMeasure): boolean => measure.how === 'min' && measure.of.is === 'place'

/** Measures that can be added up from parts, and how they lead back to what was asked; undefined where one cannot. */
export function additive(
  measures: readonly FarMeasure[],
): { asked: FarMeasure[]; written: (answer: FarAnswer) => FarAnswer } | undefined {
  // How many rows there are says which groups there are.
  const asked: FarMeasure[] = [{ how: 'count' }]
  const place = (measure: FarMeasure) => asked.push(measure) - 1
  const read: ((columns: Float64Array[], group: number) => number)[] = []
  for (const measure of measures) {
    if (isPlace(measure)) {
      const at = place(measure)
      read.push((columns, group) => columns[at][group])
      continue
    }
    switch (measure.how) {
      case 'count':
      case 'present': {
        const at = measure.how === 'count' ? 0 : place(measure)
        // Rows are counted whole.
        read.push((columns, group) => Math.round(columns[at][group]))
        break
      }
      case 'squares': {
        const at = place(measure)
        read.push((columns, group) => columns[at][group])
        break
      }
      case 'sum':
      case 'mean': {
        const at = place({ how: 'sum', of: measure.of })
        const present = place({ how: 'present', of: measure.of })
        const { how } = measure
        read.push((columns, group) => {
          const rows = columns[present][group]
          // A group without a value is missing, not zero.
          return rows < SOME ? Number.NaN : columns[at][group] / (how === 'mean' ? rows : 1)
        })
        break
      }
      default:
        return undefined
    }
  }
  return {
    asked,
    written: ({ columns, length }) => {
      const keys = columns.length - asked.length
      const values = columns.slice(keys) as Float64Array[]
      return {
        length,
        columns: [
          ...columns.slice(0, keys),
          ...read.map(own => Float64Array.from({ length }, (_, group) => own(values, group))),
        ],
      }
    },
  }
}

import { together } from './conditions.ts'
import { addedUp, additive, type Between, type Cube, cubeFrom } from './cube.ts'
import { cellsOver } from './gathered/cells.ts'
import type { FarAnswer, FarQuestion, FarTest } from './model.ts'

type Groups = FarQuestion & { ask: 'groups' }

/** A cube may have so many groups, the empty ones counted: more would take longer to come than a drag lasts. */
const MOST = 600_000
/** Cells along one side of a cube: as fine as the pixels of a usual chart, and so coarse that their parts still tell. */
const FINEST = 1024
const COARSEST = 32
/** Questions whose cubes are kept: those of the charts beside the one in which a person drags. */
const REMEMBERED = 16
/** Milliseconds without another step after which a drag rests. */
const RESTS = 300

/** A question whose selection moves. */
interface Moving {
  bounds: (readonly [from: number, last: number])[]
  /** Which of them have moved in this drag. */
  moves: Set<number>
  drag: number
  /** The cube, by the bounds that stand still. */
  cube?: { still: string; coming: Promise<Cube | undefined>; found?: Cube | 'none' }
}

/**
 * While a person drags a box, each frame asks the same with other ends. The groups of all of them are asked for once, by cells
 * as fine as pixels, and added up here; once the drag rests, the exact values are asked for.
 */
export class Cubes {
  private readonly known = new Map<string, Moving>()
  private readonly ask: (question: FarQuestion) => Promise<FarAnswer>
  private readonly rested: () => void
  private timer: unknown
  /** Goes up with every drag that has come to rest: the next may be of another box. */
  private drag = 0

  /** `rested`: told when exact values are to be asked for. */
  constructor(ask: (question: FarQuestion) => Promise<FarAnswer>, rested: () => void) {
    this.ask = ask
    this.rested = rested
  }

  forget(): void {
    this.known.clear()
  }

  /**
   * What a question comes to, as near as cells are fine, where its selection is being dragged: at once, or when its cube has
   * come; undefined where it must be asked.
   */
  answer(
    question: FarQuestion,
    selection: FarTest | undefined,
  ): FarAnswer | Promise<FarAnswer | undefined> | undefined {
    const boxes = selection && boxesIn(selection)
    if (question.ask !== 'groups' || !boxes || question.largest !== undefined) return undefined
    const parts = additive(question.measures)
    const base = parts && { ...question, where: without(question.where, boxes) }
    if (!base) return undefined
    const key = JSON.stringify([base, boxes.map(({ value }) => value)])
    const bounds = boxes.map(({ from, last }) => [from, last] as const)
    const before = this.known.get(key)
    const own: Moving = before ?? { bounds, moves: new Set(), drag: this.drag }
    this.known.delete(key)
    this.known.set(key, own)
    if (this.known.size > REMEMBERED) this.known.delete(this.known.keys().next().value!)
    const stepped = bounds.flatMap(([from, last], i) =>
      own.bounds[i][0] === from && own.bounds[i][1] === last ? [] : [i],
    )
    own.bounds = bounds
    if (own.drag !== this.drag) {
      own.moves.clear()
      own.drag = this.drag
    }
    for (const i of stepped) own.moves.add(i)
    // At rest, and where a selection has only just begun.
    if (own.moves.size === 0) return undefined
    this.rest()
    const still = JSON.stringify(boxes.filter((_, i) => !own.moves.has(i)))
    const moving = boxes.filter((_, i) => own.moves.has(i))
    if (moving.length > 2) return undefined
    const written = (cube: Cube) => parts.written(addedUp(cube, moving, parts.asked))
    if (own.cube?.still !== still) {
      const where = together([base.where, ...boxes.filter((_, i) => !own.moves.has(i))])
      const plain: Groups = { ...question, where }
      own.cube = {
        still,
        coming: this.cubeOf({ ...plain, measures: parts.asked }, moving, plain).catch(() => undefined),
      }
      const cube = own.cube
      cube.coming.then(found => {
        cube.found = found ?? 'none'
      })
    }
    const { found, coming } = own.cube
    if (found === 'none') return undefined
    // To ask for each step meanwhile would only keep the engine from it.
    return found ? written(found) : coming.then(cube => cube && written(cube))
  }

  private rest(): void {
    const timers = globalThis as unknown as {
      setTimeout(run: () => void, milliseconds: number): unknown
      clearTimeout(timer: unknown): void
    }
    timers.clearTimeout(this.timer)
    this.timer = timers.setTimeout(() => {
      this.drag++
      this.rested()
    }, RESTS)
  }

  /** `plain`: the question without what moves, as it was asked before anything was selected: its answer is known, as a rule. */
  private async cubeOf(
    question: Groups,
    moving: readonly Between[],
    plain: Groups,
  ): Promise<Cube | undefined> {
    const { by } = question
    const [{ length }, reach] = await Promise.all([
      this.ask(plain),
      this.ask({
        ...question,
        by: [],
        measures: moving.flatMap(({ value }) => [
          { how: 'min' as const, of: value },
          { how: 'max' as const, of: value },
        ]),
        most: 1,
      }),
    ])
    const cells = Math.min(FINEST, Math.floor((MOST / Math.max(1, length)) ** (1 / moving.length)))
    if (cells < COARSEST) return undefined
    const ends = moving.map((_, i) => [0, 1].map(end => Number(reach.columns[2 * i + end][0])))
    // No row is left that has a value.
    if (!ends.every(([min, max]) => min <= max)) return undefined
    const sides = moving.map(({ value }, i) => cellsOver(value, [ends[i][0], ends[i][1]], cells))
    if (!sides.every(side => side.is === 'cell')) return undefined
    const answer = await this.ask({ ...question, by: [...by, ...sides], most: MOST * 2 })
    return cubeFrom(
      answer,
      by.length,
      ends.map(([min, max]) => ({ min, max, count: min < max ? cells : 1 })),
      question.measures,
    )
  }
}

/** The stretches of values that a selection holds; undefined where it is told in something else as well. */
function boxesIn(selection: FarTest): Between[] | undefined {
  const out: Between[] = []
  const open: FarTest[] = [selection]
  for (let test = open.pop(); test; test = open.pop()) {
    if (test.is === 'all') open.push(...[...test.tests].reverse())
    else if (
      test.is === 'between' &&
      test.value.is === 'column' &&
      typeof test.from === 'number' &&
      typeof test.last === 'number'
    )
      out.push(test as Between)
    else return undefined
  }
  return out.length > 0 ? out : undefined
}

/** A test without some of the tests that it is made of. */
function without(test: FarTest | undefined, gone: readonly FarTest[]): FarTest | undefined {
  if (!test || gone.includes(test)) return undefined
  return test.is === 'all' ? together(test.tests.map(one => without(one, gone))) : test
}

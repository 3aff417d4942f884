import { roleTexts } from '../bind/values.ts'
import type { Frame, State } from '../describe/frame.ts'
import { DapploError } from '../finding/error.ts'
import { partPath } from '../finding/part-path.ts'
import { type Between, between } from '../motion/between.ts'
import type { Composition } from '../pane/model.ts'
import type { Scene } from '../scene/scene.ts'
import { addUnits } from '../table/cells/calendar.ts'
import { type Answer, answeredElsewhere, ask } from '../table/group/question.ts'
import type { Shaped } from '../table/group/shape.ts'
import { type Meaning, wholeKey } from '../table/phrase/meaning.ts'
import type { Chart } from '../view/chart.ts'
import { joinedEnds, type ScaleEnds } from '../view/fits.ts'
import { View } from '../view/view.ts'
import { momentBetween } from './moment.ts'
import { growsAlong, soFar, Trail } from './trail.ts'

/** One period of what is played through: its rows, and where on the way it lies. */
export interface Period {
  words: string
  /** 0 for the first; periods without rows in between leave room. */
  place: number
  /** Its rows in the chart's table. */
  rows: Int32Array
}

/** Periods without rows are not waited through for longer than this many. */
const LONGEST_GAP = 100

/** More periods than these are an animation nobody sits through. */
const MOST = 2000

/** Of rows that are elsewhere each period is a question. */
const MOST_FAR = 400

/** Labels keep their sides through so many periods at a time: a jump to a late one composes no more than these. */
const TOGETHER = 24

/**
 * A chart that is played through a column: a view for each period, and pictures for every place in between. Scales keep
 * the ends that all periods need, unless a scale is told not to be `fixed`; categories keep their places unless ranked.
 */
export class Playback {
  readonly periods: readonly Period[]
  /** The place of the last period. */
  readonly length: number
  private readonly views: View[]
  private readonly holds: boolean
  private readonly trail: Trail | undefined
  private readonly sided: boolean[] = []
  private pair: { from: Scene; to: Scene; motion: Between } | undefined

  constructor(chart: Chart, state: State, frame: Frame) {
    const { throughMeaning } = chart.resolved
    if (!throughMeaning)
      throw new DapploError(
        'bad-description',
        'A chart without "through" cannot be played',
        'through',
        'Name the column to play through, such as through: "year".',
      )
    const shaped = askPeriods(chart, throughMeaning)
    if (!areHere(shaped))
      throw new DapploError(
        'not-here',
        `The periods of ${chart.table.title} are not here yet, so they cannot be played`,
        'through',
        'Wait for them first: await ready(chart). In a page, mountWhenReady shows the chart then.',
      )
    this.periods = periodsOf(shaped, frame.locale ?? 'en')
    if (answeredElsewhere(chart.table) && this.periods.length > MOST_FAR)
      throw new DapploError(
        'too-many-periods',
        `${this.periods.length} periods are too many to be asked for one by one`,
        'through',
        `Play through longer ones, such as "month of …", or choose ${MOST_FAR} of them with where.`,
      )
    this.length = this.periods.at(-1)?.place ?? 0
    this.holds = chart.resolved.description.scales?.through?.missing === 'hold'
    const keeps = chart.resolved.description.scales?.through?.keeps === true
    const grows = keeps && growsAlong(chart)
    const steady = this.withPlaces(chart, state, frame)
    const shown = grows ? soFar(this.periods) : this.periods.map(({ rows }) => rows)
    this.views = shown.map(rows => {
      const view = new View(steady, state, frame)
      view.only.value = { table: chart.table, rows }
      return view
    })
    this.shareEnds(steady)
    // Lines have what was in themselves.
    this.trail = keeps && !grows ? new Trail(period => this.view(period)!) : undefined
  }

  /** Ends when the values of all periods are here. */
  async settled(): Promise<void> {
    await Promise.all(this.views.map(view => view.settled()))
  }

  /** The view of the period that is reached at a place. */
  viewAt(place: number): View | undefined {
    return this.view(this.indexAt(place))
  }

  /** The number of the period that is reached at a place. */
  indexAt(place: number): number {
    let index = 0
    while (index + 1 < this.periods.length && this.periods[index + 1].place <= place + 1e-9) index++
    return index
  }

  /** The picture at a place: that of a period, or on the way to the next. */
  sceneAt(place: number): Scene | undefined {
    const { now, next, share } = this.between(place)
    if (!now || !next || share === 0) return now && this.withTrail(now.scene, place)
    // By the very pictures: a change in any table, or a selection elsewhere, makes others of them.
    if (this.pair?.from !== now.scene || this.pair.to !== next.scene)
      this.pair = { from: now.scene, to: next.scene, motion: between(now.scene, next.scene, 'before') }
    // What is named is the period that has been reached, not the one that comes.
    const { title, description } = now.scene
    return this.withTrail({ ...this.pair.motion(share, share), title, description }, place)
  }

  /**
   * The view of a period, whose labels stand on the sides that they had in the period before, where they have room. The
   * periods before it are composed first, so that a picture is the same however a person came to it.
   */
  private view(index: number): View | undefined {
    const view: View | undefined = this.views[index]
    for (let i = index - (index % TOGETHER); view && i <= index; i++) {
      if (this.sided[i]) continue
      if (i % TOGETHER > 0) this.views[i].standLike(this.views[i - 1])
      void this.views[i].composition.peek()
      this.sided[i] = true
    }
    return view
  }

  private withTrail(scene: Scene, place: number): Scene {
    return this.trail?.behind(scene, this.indexAt(place)) ?? scene
  }

  /** What that picture is read back from. */
  compositionAt(place: number): Composition | undefined {
    const { now, next, share } = this.between(place)
    const scene = this.sceneAt(place)
    if (!now || !next || !scene || share === 0) return now?.composition.value
    return momentBetween(now.composition.value, next.composition.value, scene, () => share, true)
  }

  /** The periods on both sides of a place, and how far it is on the way. */
  private between(place: number): { now: View | undefined; next: View | undefined; share: number } {
    const index = this.indexAt(place)
    const now = this.view(index)
    // Composed only where it is on its way: that is, always but at the very place of a period.
    const next = now && this.views[index + 1]
    if (!now || !next) return { now, next, share: 0 }
    const [from, to] = [this.periods[index].place, this.periods[index + 1].place]
    // A gap is bridged by one long glide, or the old picture is held until the last step of it.
    const start = this.holds ? to - 1 : from
    const share = Math.max(0, Math.min(1, (place - start) / (to - start)))
    return { now, next: share > 0 ? this.view(index + 1) : next, share }
  }

  /** The chart with the categories of all periods, where their order does not follow the values. */
  private withPlaces(chart: Chart, state: State, frame: Frame): Chart {
    const description = chart.resolved.description
    const moves =
      description.order === 'ranked' ||
      description.top !== undefined ||
      chart.resolved.drawings.some(drawing => drawing.order === 'ranked' || drawing.top)
    if (moves) return chart
    const { scales } = new View(chart, state, frame).composition.value.panes[0].bound
    const fixed: Record<string, { domain: string[] }> = {}
    for (const [name, { type, words }] of scales) {
      const own = description.scales?.[name]
      if (type === 'text' && words.length > 0 && !own?.domain && own?.order !== 'ranked')
        fixed[name] = { domain: words }
    }
    return Object.keys(fixed).length > 0 ? chart.with({ scales: fixed }) : chart
  }

  private shareEnds(chart: Chart): void {
    const ends = new Map<string, ScaleEnds>()
    for (const view of this.views) {
      for (const [name, own] of view.ends.value) {
        if (chart.resolved.description.scales?.[name]?.fixed === false) continue
        const known = ends.get(name)
        ends.set(name, known ? joinedEnds([known, own]) : own)
      }
    }
    for (const view of this.views) view.outer.value = ends
  }
}

/**
 * Asks which periods there are among the rows that are drawn, once for each set of conditions: each row's own, or, where rows
 * are elsewhere, each with what stands for its rows.
 */
export function askPeriods({ table, resolved }: Chart, through: Meaning): Answer[] {
  const roles = new Map<string, Meaning>([['through', through]])
  const elsewhere = answeredElsewhere(table)
  if (elsewhere) roles.set('rows', { is: 'summary', how: 'count' })
  const drawn = resolved.drawings.filter(drawing => drawing.table === table && !drawing.kind.aside)
  const apart = new Map(drawn.map(drawing => [wholeKey([drawing.where]), drawing]))
  // What stands for rows elsewhere is known to one answer alone.
  if (apart.size === 0 || (elsewhere && apart.size > 1)) return [ask(table, { roles })]
  return Array.from(apart.values(), ({ where, path }) =>
    ask(table, { roles, where, path: partPath(path, 'where') }),
  )
}

const areHere = (answers: Answer[]): answers is Shaped[] => answers.every(answer => !('then' in answer))

/** The periods in order: of time, of number, or of first appearance for texts that are no numbers. */
function periodsOf(answers: readonly Shaped[], locale: string): Period[] {
  const found = new Map<number, { words: string; rows: number[] }>()
  for (const shaped of answers) {
    const values = shaped.roles.get('through')!
    const { cells } = values
    const text = roleTexts(values, locale)
    for (let mark = 0; mark < shaped.length; mark++) {
      const key = cells.type === 'text' ? cells.codes[mark] : cells.values[mark]
      if (Number.isNaN(key) || (cells.type === 'text' && key < 0)) continue
      const period = found.get(key)
      const row = shaped.rowsOf(mark)[0]
      if (period) period.rows.push(row)
      else found.set(key, { words: text(mark), rows: [row] })
    }
  }
  // Answers about one table write its words in one code.
  const { cells, meaning, zone } = answers[0].roles.get('through')!
  const numeric =
    cells.type === 'text' && [...found.keys()].every(code => Number.isFinite(Number(cells.words[code])))
  const numberOf = (key: number) => (cells.type === 'text' && numeric ? Number(cells.words[key]) : key)
  const keys = [...found.keys()].sort((a, b) => numberOf(a) - numberOf(b)).slice(0, MOST)
  const unit = meaning.is === 'bucket' ? meaning.unit : undefined
  let place = 0
  return keys.map((key, i) => {
    if (i > 0) {
      const before = numberOf(keys[i - 1])
      if (unit) {
        const start = place
        for (let time = before; time < key - 1 && place - start < LONGEST_GAP; place++)
          time = addUnits(time, unit, 1, zone)
      } else if ((numeric || cells.type === 'number') && keys.length > 2) place += gap(keys.map(numberOf), i)
      else place++
    }
    const { words, rows } = found.get(key)!
    // Two drawings may show the same row.
    const once = answers.length > 1 ? [...new Set(rows)].sort((a, b) => a - b) : rows
    return { words, place, rows: Int32Array.from(once) }
  })
}

/** How many steps lie between a number and the one before it, where steps are alike: 2 where one is missing. */
function gap(values: readonly number[], i: number): number {
  let least = Number.POSITIVE_INFINITY
  for (let k = 1; k < values.length; k++) least = Math.min(least, values[k] - values[k - 1])
  const steps = (values[i] - values[i - 1]) / least
  return Number.isInteger(Math.round(steps * 1000) / 1000) && steps <= 50 ? Math.round(steps) : 1
}

import { computed, type ReadonlySignal, type Signal, signal } from '@preact/signals-core'
import { type Asked, askAll, askHeading, type RowFilter } from '../bind/questions.ts'
import type { State } from '../describe/frame.ts'
import type { Finding } from '../finding/error.ts'
import { noAnswer } from '../finding/no-answer.ts'
import { type Answer, answeredElsewhere, type OnItsWay, unanswered } from '../table/group/question.ts'
import type { Shaped } from '../table/group/shape.ts'
import type { Tongue } from '../words/tongue.ts'
import type { Chart } from './chart.ts'
import { chartsOf, speakerOf, tablesOf } from './charts.ts'
import type { Spread } from './spread.ts'

/** What can be shown at a moment. */
export interface Answered {
  /** The chart that was answered: for as long as the values of another are on their way, the one before. */
  shown: Chart | Spread
  /** For each of its charts the answers to its drawings, and to the holes of its heading where they are there. */
  charts: { drawings: Asked<Shaped>[]; heading: (Shaped | undefined)[][] }[]
  /** The same for the heading of the chart that is split into these. */
  heading: (Shaped | undefined)[][]
  /** Whether answers are on their way. */
  waiting: boolean
  /** What newer answers failed with. */
  findings: Finding[]
}

/** What is asked for a picture. */
interface Questions {
  shown: Chart | Spread
  charts: { drawings: Asked[]; heading: Answer[][] }[]
  heading: Answer[][]
}

const answersOf = ({ charts, heading }: Questions): Answer[] => [
  ...charts.flatMap(({ drawings, heading }) => [...drawings.map(({ answer }) => answer), ...heading.flat()]),
  ...heading.flat(),
]

/** An answer that has come, or has failed. */
type Arrival = { shaped: Shaped } | { error: unknown }

/**
 * Asks the tables of a chart, and keeps what they answered last: while newer answers are on their way the old picture
 * stays, and before the first ones there is a picture without marks that says so.
 */
export class Answers {
  /** What can be shown; follows what is asked, and what arrives. */
  readonly now: ReadonlySignal<Answered>
  /** Goes up with every answer that arrives after it was asked for. */
  readonly arrived: Signal<number> = signal(0)
  private readonly arrivals = new WeakMap<Promise<Shaped>, Arrival>()
  private readonly pending = new Set<Promise<Shaped>>()
  /** What is asked, the newest last. */
  private sets: Questions[] = []
  private waitedFor = new Set<OnItsWay>()
  private last: Answered | undefined

  constructor(
    shown: ReadonlySignal<Chart | Spread>,
    tongue: ReadonlySignal<Tongue>,
    filterFor: (chart: Chart) => RowFilter | undefined,
    zoom: ReadonlySignal<State['zoom']>,
  ) {
    // Asked anew when a table, a selection or the description changes, but not because an answer arrives.
    const asked = computed(() => {
      const tables = tablesOf(shown.value)
      for (const table of tables) table.version.value
      // A zoom asks anew only where rows are elsewhere: they may be nearer to be seen now.
      const inView = tables.some(answeredElsewhere) ? zoom.value : undefined
      const speaker = speakerOf(shown.value)
      return {
        shown: shown.value,
        heading: speaker
          ? askHeading(
              speaker.resolved,
              speaker.table,
              tongue.value,
              filterFor(speaker)?.(speaker.table),
              speaker.parts.following,
            )
          : [],
        charts: chartsOf(shown.value).map(chart => {
          const { resolved, table, parts } = chart
          const filter = filterFor(chart)
          return {
            drawings: askAll(resolved, tongue.value, filter, parts.following, inView),
            heading: askHeading(resolved, table, tongue.value, filter?.(table), parts.following),
          }
        }),
      }
    })
    this.now = computed(() => {
      const questions = asked.value
      this.follow(questions)
      return this.answered(questions)
    })
  }

  private answered(questions: Questions): Answered {
    const { now, lacking } = this.read(questions)
    if (lacking > 0) {
      const overtaken = this.overtaken()
      if (overtaken) this.last = overtaken
      if (this.last) return { ...this.last, waiting: now.waiting, findings: now.findings }
    } else {
      this.last = now
      if (this.sets.length > 1) {
        this.sets = [questions]
        this.hold()
      }
    }
    return now
  }

  private read({ shown, charts, heading }: Questions): { now: Answered; lacking: number } {
    const findings: Finding[] = []
    let lacking = 0
    let waiting = false
    const read = (answer: Answer): Arrival | undefined => {
      const arrival = this.arrivalOf(answer)
      if (!arrival) waiting = true
      if (!arrival || 'error' in arrival) lacking++
      return arrival
    }
    const filled = (holes: Answer[][]) =>
      holes.map(list =>
        list.map(answer => {
          const arrival = read(answer)
          return arrival && 'shaped' in arrival ? arrival.shaped : undefined
        }),
      )
    const answers = charts.map(({ drawings, heading }) => ({
      drawings: drawings.map(ask => {
        const { drawing, question, answer } = ask
        const arrival = read(answer)
        if (arrival && 'shaped' in arrival) return { ...ask, answer: arrival.shaped }
        if (arrival) findings.push(noAnswer(drawing.table.title, arrival.error, drawing.path))
        return { ...ask, answer: unanswered(drawing.table, question, arrival ? 'failed' : 'on its way') }
      }),
      heading: filled(heading),
    }))
    const headingOfAll = filled(heading)
    return { now: { shown, charts: answers, heading: headingOfAll, waiting, findings }, lacking }
  }

  /**
   * What is asked now, and what was asked before and is still on its way: while a person drags, each frame asks anew, and
   * answers that come in between are shown. Of what is neither the first nor the newest nobody waits for the answer.
   */
  private follow(questions: Questions): void {
    if (this.sets[this.sets.length - 1] === questions) return
    this.sets.push(questions)
    if (this.sets.length > 2) this.sets.splice(1, this.sets.length - 2)
    this.hold()
  }

  private hold(): void {
    const wanted = new Set(this.sets.flatMap(answersOf).filter(answer => 'then' in answer))
    for (const answer of wanted) if (!this.waitedFor.has(answer)) answer.hold?.()
    for (const answer of this.waitedFor) if (!wanted.has(answer)) answer.release?.()
    this.waitedFor = wanted
  }

  /** What was asked before the newest, and has been answered by now. */
  private overtaken(): Answered | undefined {
    const [first] = this.sets
    if (this.sets.length < 2 || !answersOf(first).every(answer => this.hasCome(answer))) return undefined
    const answered = this.read(first)
    this.sets.shift()
    this.hold()
    return answered.now
  }

  private hasCome(answer: Answer): boolean {
    const arrival = this.arrivalOf(answer)
    return arrival !== undefined && 'shaped' in arrival
  }

  private arrivalOf(answer: Answer): Arrival | undefined {
    if (!('then' in answer)) return { shaped: answer }
    void this.arrived.value
    const known = this.arrivals.get(answer)
    if (known || this.pending.has(answer)) return known
    this.pending.add(answer)
    const arrive = (arrival: Arrival) => {
      this.pending.delete(answer)
      this.arrivals.set(answer, arrival)
      this.arrived.value++
    }
    answer.then(
      shaped => arrive({ shaped }),
      error => arrive({ error }),
    )
    return undefined
  }
}

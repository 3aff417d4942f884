import { DapploError } from '../../finding/error.ts'
import type { TableColumn } from '../cells/column.ts'
import { type Conditions, testOf } from '../group/where.ts'
import { titleOf } from '../live/beginning.ts'
import type { TableOptions } from '../live/model.ts'
import type { RowTest } from '../live/selection.ts'
import { type MarkValues, Table } from '../live/table.ts'
import { type Meaning, meaningKey } from '../phrase/meaning.ts'
import { readPhrase } from '../phrase/phrase.ts'
import { Intake } from '../read/intake.ts'
import type { Report } from '../read/report.ts'
import { type AnswerData, answerData } from './answer-data.ts'
import { columnsOf, FarColumn } from './far-column.ts'
import { anyOf, boxMask, type Known, knownOf, MarkNumbers, tester } from './meets.ts'
import type { FarAnswer, FarColumnFacts, FarEngine, FarTableFacts, FarTest } from './model.ts'

/** What a far table is told beside its name in the engine. */
export interface FarTableOptions<R = any> extends TableOptions<R> {
  /**
   * At most so many rows are fetched for a drawing that shows each of them, and at most so many groups. Default 50,000.
   * Lines and points beyond it are drawn from what the engine gathers of all rows.
   */
  most?: number
}

/** Which rows are fetched. */
export interface FetchOptions {
  where?: Conditions
  /** Only rows that are in all of these selections, as `state.selected` has them. */
  selections?: readonly ArrayLike<number>[]
  /** Default the first. */
  after?: number
  /** Default 1,000. */
  most?: number
}

/** A table as it was asked: what it is made of, and what its engine answered. Plain data, for files. */
export interface Frozen {
  facts: FarTableFacts
  /** Questions as JSON, with their answers. */
  answers: [question: string, answer: AnswerData][]
}

/** What asks an engine about one table. */
interface Asks<R> {
  fetch(options: FetchOptions): Promise<R[]>
  /** What has been answered by now, by the JSON of its question. */
  answers(): Iterable<[question: string, answer: FarAnswer]>
  /** What is known of the rows no longer holds. */
  forget(): void
}

const NOTHING_KNOWN: Known = new Map()

/** A table whose rows stay in an engine. Charts on it are described as on any other; what they show is asked for. */
export class FarTable<R = any> extends Table<R> {
  readonly engine: FarEngine
  /** What the engine calls it. */
  readonly farName: string
  readonly most: number
  /** Whether its rows have an order that stays. */
  ordered: boolean
  /** Columns that cannot be drawn, with their types in the engine's own words. */
  readonly undrawable: ReadonlyMap<string, string>
  /** What asks its engine, and keeps the answers. */
  asks: Asks<R> | undefined
  private count: number
  private readonly made: FarColumnFacts[]
  private readonly markRows = new Map<string, number>()
  private readonly markTests: { test: FarTest; known: Known }[] = []
  private readonly selections = new WeakMap<object, RowTest>()
  private readonly markNumbers = new MarkNumbers(this.markTests)

  constructor(engine: FarEngine, farName: string, facts: FarTableFacts, options: FarTableOptions<R>) {
    const told = { name: farName, ...options }
    const title = titleOf(told.name)
    const report: Report = { rows: facts.rows, columns: [], findings: [...(facts.findings ?? [])] }
    const intake = new Intake(report, title, options.columns ?? {}, options.timeZone)
    const columns = columnsOf(facts, told, title)
    super({ names: [], columns: [] }, told, { columns, intake, report, rows: 0 })
    this.engine = engine
    this.farName = farName
    this.most = options.most ?? 50_000
    this.ordered = facts.ordered
    this.count = facts.rows
    this.made = facts.columns
    this.undrawable = new Map(
      facts.columns.filter(({ type }) => !type).map(({ name, given }) => [name, given]),
    )
  }

  /** How many rows it had when it was last described. */
  override get length(): number {
    return this.count
  }

  /**
   * Marks stand for rows that are not here: each has a row of its own by which it is selected, and which knows what rows it
   * stands for. `key`: what the mark is recognised by; `more`: what else is known of its rows.
   */
  markRow(key: string | number, test: FarTest | undefined, more: readonly FarTest[] = []): number {
    const name = JSON.stringify([key, test])
    let row = this.markRows.get(name)
    if (row === undefined) {
      row =
        this.markTests.push({ test: test ?? { is: 'all', tests: [] }, known: knownOf([test, ...more]) }) - 1
      this.markRows.set(name, row)
    }
    return row
  }

  /** The rows that marks stand for, by the rows of the marks. */
  rowsOfMarks(rows: ArrayLike<number>): FarTest {
    return anyOf(Array.from(rows, row => this.markTests[row]?.test).filter(test => test !== undefined))
  }

  override marksMeeting(
    all: readonly (MarkValues | undefined)[],
    conditions: object,
    path: string,
  ): (mark: number) => boolean {
    const tests = Object.entries(conditions as Conditions).map(([phrase, condition]) => {
      const key = meaningKey(readPhrase(phrase, this, path))
      const values = all.find(values => values && meaningKey(values.meaning as Meaning) === key)
      if (values) return testOf(values.cells, condition, values.zone, path)
      throw new DapploError(
        'rows-elsewhere',
        `"${phrase}" chooses among rows of ${this.title}, which are elsewhere, and no role is bound to it`,
        path,
        'Choose by what the chart is bound to, or bind it to a role.',
      )
    })
    return mark => tests.every(test => test(mark))
  }

  override meetingAll(lists: readonly ArrayLike<number>[]): RowTest | undefined {
    const tests = lists.map(serials => this.selectionTest(serials))
    if (tests.length === 0) return undefined
    const far: FarTest = { is: 'all', tests: tests.map(test => test.far as FarTest) }
    return Object.assign((row: number) => tests.every(test => test(row)), { far })
  }

  /** Whether marks stand for rows that are meant: those that may do so pass. */
  override selectionTest(serials: ArrayLike<number>): RowTest {
    const known = this.selections.get(serials)
    if (known) return known
    const far = this.rowsOfMarks(serials)
    const mask = boxMask(
      far,
      value => this.markNumbers.of(value),
      () => this.places,
    )
    const may = tester(far)
    const test: RowTest = mask
      ? Object.defineProperty((row: number) => mask()[row] === 1, 'mask', { get: mask })
      : (row: number) => may(this.markTests[row]?.known ?? NOTHING_KNOWN) !== false
    test.far = far
    this.selections.set(serials, test)
    return test
  }

  override rowStandingFor(test: unknown): number {
    return this.markRow('outline', test as FarTest)
  }

  override selectedElsewhere(lists: readonly ArrayLike<number>[]): Promise<R[]> {
    return this.fetch({ selections: lists, most: this.most })
  }

  /** Rows as records: those that meet conditions, in the order of the table, so many after so many. */
  async fetch(options: FetchOptions = {}): Promise<R[]> {
    return this.asks?.fetch(options) ?? []
  }

  override get places(): number {
    return this.markTests.length
  }
  override serialOf(row: number): number {
    return row
  }
  override rowOfSerial(serial: number): number {
    return serial
  }
  override get serialsAreRows(): boolean {
    return true
  }

  /** What it is made of, as it was last described. */
  get facts(): FarTableFacts {
    return { name: this.farName, columns: this.made, rows: this.count, ordered: this.ordered }
  }

  override needColumn(name: string, path: string): TableColumn {
    // The table looks for its key before it is whole.
    const given = (this.undrawable as ReadonlyMap<string, string> | undefined)?.get(name)
    if (given !== undefined)
      throw new DapploError(
        'undrawable-column',
        `Column "${name}" of ${this.title} is of the type ${given}, which cannot be drawn`,
        path,
        'Make a view that gives it as a number, a time or text.',
      )
    return super.needColumn(name, path)
  }

  /** Asks the engine anew for all that charts show: rows there may have changed. The old picture stays meanwhile. */
  override async refresh(): Promise<void> {
    const facts = await this.engine.describe(this.farName)
    this.count = facts.rows
    this.ordered = facts.ordered
    for (const name of this.names) {
      const now = facts.columns.find(column => column.name === name)
      const before = this.column(name)!
      if (now?.type === undefined || (now.type !== before.type && !(before as FarColumn).as))
        throw new DapploError(
          'changed-columns',
          now
            ? `Column "${name}" of ${this.title} was ${before.type} and is ${now.given} now`
            : `Column "${name}" of ${this.title} is gone`,
          '',
          'Make the table anew, and the charts on it.',
        )
      if (before instanceof FarColumn) before.known = undefined
    }
    this.asks?.forget()
    this.version.value++
  }

  /** Refreshes whenever the engine says that rows have changed; and every so many milliseconds, where told. */
  follow(options: { every?: number; failed?: (error: unknown) => void } = {}): () => void {
    const renew = () => {
      this.refresh().catch(options.failed ?? (() => {}))
    }
    const ends = [this.engine.watch?.(this.farName, renew)].filter(end => end !== undefined)
    if (options.every !== undefined) {
      const timers = globalThis as unknown as Timers
      const timer = timers.setInterval(renew, Math.max(100, options.every))
      ends.push(() => timers.clearInterval(timer))
    }
    return () => {
      for (const end of ends) end()
    }
  }

  /** What was asked of it so far, to be written down. */
  frozen(): Frozen {
    return {
      facts: this.facts,
      answers: [...(this.asks?.answers() ?? [])].map(([question, answer]) => [question, answerData(answer)]),
    }
  }

  override rowsInTime(indexes: ArrayLike<number>): Promise<R[]> {
    return this.selectedElsewhere([indexes])
  }

  override row(): never {
    return this.notHere('row')
  }
  override rows(): never {
    return this.notHere('rows')
  }
  override append(): never {
    return this.elsewhere('append')
  }
  override put(): never {
    return this.elsewhere('put')
  }
  override remove(): never {
    return this.elsewhere('remove')
  }
  override replace(): never {
    return this.elsewhere('replace')
  }

  private notHere(call: string): never {
    throw new DapploError(
      'rows-elsewhere',
      `"${call}" gives rows that are here, and those of ${this.title} are in an engine`,
      '',
      'Fetch them: await table.fetch({ where: { … }, most: 100 }).',
    )
  }

  private elsewhere(call: string): never {
    throw new DapploError(
      'rows-elsewhere',
      `"${call}" changes rows here, and those of ${this.title} are in an engine`,
      '',
      'Change them there, and call refresh().',
    )
  }
}

/** What every host of JavaScript has. */
interface Timers {
  setInterval(run: () => void, milliseconds: number): unknown
  clearInterval(timer: unknown): void
}

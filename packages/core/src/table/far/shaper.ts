import type { Finding } from '../../finding/error.ts'
import { type Answer, answeredBy, keepsSome, leadingMark, type Question } from '../group/question.ts'
import type { Shaped } from '../group/shape.ts'
import { isMeasure, wholeKey } from '../phrase/meaning.ts'
import { farTest, together } from './conditions.ts'
import { Cubes } from './cubes.ts'
import { FarFacts } from './facts.ts'
import { FarTable, type FarTableOptions, type FetchOptions } from './far-table.ts'
import { gathered } from './gathered/gathered.ts'
import { askGroups, type FarContext, groupingOf } from './groups.ts'
import { Kept } from './kept.ts'
import type { FarAnswer, FarEngine, FarQuestion, FarTableFacts, FarTest } from './model.ts'
import { fetchedRows, rowParts } from './rows.ts'

/**
 * A table whose rows stay in an engine, by its name there. Charts on it are described as on any other; what they show is
 * worked out there, and only that travels.
 */
export async function farTable<R = any>(
  engine: FarEngine,
  name: string,
  options: FarTableOptions<NoInfer<R>> = {},
): Promise<FarTable<R>> {
  return describedTable(engine, name, await engine.describe(name), options)
}

/** The same, where it is known what the table is made of. */
export function describedTable<R = any>(
  engine: FarEngine,
  name: string,
  facts: FarTableFacts,
  options: FarTableOptions<NoInfer<R>> = {},
): FarTable<R> {
  const table = new FarTable<R>(engine, name, facts, options)
  const asker = new Asker(table)
  table.asks = asker
  answeredBy(table, (_, question) => asker.answer(question))
  return table
}

/** Asks an engine: equal questions once, and nothing that is known already. */
class Asker {
  private readonly table: FarTable
  private readonly facts: FarFacts
  private readonly shapes = new Kept<Shaped>(({ length, roles }) => (length + 1) * (roles.size + 1))
  private readonly cubes: Cubes
  private readonly raw = new Kept<FarAnswer>(({ length, columns }) => (length + 1) * (columns.length + 1))

  constructor(table: FarTable) {
    this.table = table
    this.facts = new FarFacts(table, question => this.ask(question, () => {}))
    this.cubes = new Cubes(
      question => this.ask(question, () => {}),
      () => {
        // What has been shown on the way is asked for exactly.
        table.version.value++
      },
    )
  }

  answers(): Iterable<[question: string, answer: FarAnswer]> {
    return this.raw.entries()
  }

  forget(): void {
    this.facts.forget()
    this.cubes.forget()
    this.shapes.forget()
    this.raw.forget()
  }

  answer(question: Question): Answer {
    const { roles, where, path, test, order, shareOf, other, top, among, gathers } = question
    const view = this.table.engine.frozen ? undefined : question.view
    const only = test?.far
    const key = wholeKey([
      [...roles],
      where,
      order,
      shareOf,
      other,
      top,
      only,
      gathers,
      gathers && view,
      gathers && question.logs,
      among && [
        among.leader,
        among.drawn.map(own => [[...own.roles], own.where, own.top, own.other, own.test?.far]),
      ],
    ])
    return this.shapes.find(key, (began, passing) => {
      let partial: string | undefined
      const context: FarContext = {
        table: this.table,
        facts: this.facts,
        ask: async asked => {
          const near = await this.cubes.answer(asked, only as FarTest | undefined)
          if (near) {
            passing()
            return near
          }
          const answer = await this.ask(asked, began)
          partial ??= answer.partial
          return answer
        },
      }
      return shaped(context, { ...question, view }, path ?? 'where').then(marks =>
        partial === undefined
          ? marks
          : { ...marks, findings: [...(marks.findings ?? []), partOnly(this.table.title, partial)] },
      )
    })
  }

  async fetch({ where, selections = [], after, most = 1000 }: FetchOptions): Promise<any[]> {
    const { table, facts } = this
    const values = await Promise.all(table.names.map(name => facts.value(name)))
    const test = together([
      await farTest(table, where, 'where', facts),
      ...selections.map(serials => table.rowsOfMarks(serials)),
    ])
    const { answer } = table.engine.ask({
      ask: 'rows',
      table: table.farName,
      where: test,
      values,
      most,
      after,
    })
    const { columns, length } = await answer
    return Array.from({ length }, (_, i) =>
      Object.fromEntries(
        table.names.map((name, c) => {
          const value = columns[c][i]
          if (value === null || value !== value) return [name, null]
          if (table.column(name)!.type === 'time') return [name, new Date(value as number)]
          return [name, typeof value === 'number' ? asWritten(value) : value]
        }),
      ),
    )
  }

  private ask(question: FarQuestion, began: (cancel: () => void) => void): Promise<FarAnswer> {
    const found = this.raw.find(JSON.stringify(question), own => {
      const asking = this.table.engine.ask(question)
      own(() => asking.cancel())
      return asking.answer
    })
    if (!('then' in found)) return Promise.resolve(found)
    found.hold?.()
    began(() => found.release?.())
    return found
  }
}

async function shaped(context: FarContext, question: Question, path: string): Promise<Shaped> {
  const { table, facts } = context
  const own = await farTest(table, question.where, path, facts)
  const among = question.among && (await amongTest(context, question.among))
  const where = together([own, farOf(question.test), among])
  if ([...question.roles.values()].some(isMeasure)) return askGroups(context, question, where)
  const many = await gathered(context, question, where)
  if (many) return many
  const parts = await rowParts(context, question, where)
  return fetchedRows(context, parts, parts.grouping.where)
}

/** Says that an answer is of a part of the rows. */
const partOnly = (title: string, why: string): Finding => ({
  code: 'partial-answer',
  message: `The values of ${title} are of a part of its rows: ${why}`,
  remedy: 'See to the part that is missing, and refresh the table.',
  path: '',
})

/** The rows that marks of other questions stand for. */
async function amongTest(
  context: FarContext,
  { drawn, leader }: NonNullable<Question['among']>,
): Promise<FarTest | undefined> {
  const whereOf = async (question: Question) =>
    together([
      await farTest(context.table, question.where, question.path ?? 'where', context.facts),
      farOf(question.test),
    ])
  if (leader !== undefined) {
    const [first] = drawn
    const marks = await shaped(context, first, first.path ?? 'where')
    const lead = leadingMark(marks, leader)
    return context.table.rowsOfMarks(lead === undefined ? [] : marks.rowsOf(lead))
  }
  const tests = await Promise.all(
    drawn.map(async question => {
      const where = await whereOf(question)
      if (!keepsSome(question)) return where
      const grouped = [...question.roles.values()].some(isMeasure)
      const grouping = grouped
        ? await groupingOf(context, question, where)
        : (await rowParts(context, question, where)).grouping
      return grouping.where
    }),
  )
  return tests.some(test => test === undefined) ? undefined : { is: 'any', tests: tests.map(test => test!) }
}

/** A number that was kept in single precision, with the digits that it was written with. */
function asWritten(value: number): number {
  if (Math.fround(value) !== value) return value
  const short = Number(value.toPrecision(7))
  return Math.fround(short) === value ? short : value
}

/** A selection elsewhere, as conditions. */
const farOf = (test: Question['test']) => test?.far as FarTest | undefined

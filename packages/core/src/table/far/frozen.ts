import { DapploError } from '../../finding/error.ts'
import { answerFrom } from './answer-data.ts'
import type { FarTable, FarTableOptions, Frozen } from './far-table.ts'
import type { FarEngine } from './model.ts'
import { describedTable } from './shaper.ts'

/**
 * A table that gives again what an engine once answered. `beyond`: an engine that is asked for all else; without one, there
 * is nothing else.
 */
export function frozenTable(
  name: string,
  { facts, answers }: Frozen,
  options: FarTableOptions = {},
  beyond?: FarEngine,
): FarTable {
  const known = new Map(answers)
  let fresh = true
  const engine: FarEngine = {
    frozen: beyond === undefined,
    describe(table) {
      // Whoever asks for it again wants to know what it is by now.
      fresh = beyond === undefined
      return beyond?.describe(table) ?? Promise.resolve(facts)
    },
    ask(question) {
      const found = fresh ? known.get(JSON.stringify(question)) : undefined
      if (found) return { answer: Promise.resolve(answerFrom(found)), cancel() {} }
      return beyond?.ask(question) ?? { answer: Promise.reject(notHere(name)), cancel() {} }
    },
  }
  return describedTable(engine, facts.name ?? name, facts, { name, ...options })
}

const notHere = (name: string): DapploError =>
  new DapploError(
    'frozen',
    `The page has the values of ${JSON.stringify(name)} that it was written with, and no others`,
    '',
    'Open the chart where its database can be asked.',
  )

import type { IncomingMessage, ServerResponse } from 'node:http'
import { DapploError } from '@dapplo/core'
import { answerData, type FarEngine, type FarQuestion, type FarTableFacts } from '@dapplo/core/far'
import * as v from 'valibot'
import { engineError } from '../errors.ts'
import { columnsIn, questionSchema, tooDeep } from './question-schema.ts'

/** What an endpoint lets out, and how much it does at once. */
export interface EndpointOptions {
  /** The tables that may be asked about, and of each the columns that may be seen; `true` for all of them. */
  tables: Record<string, true | readonly string[]>
  /** Milliseconds that a question may take. Default 30,000. */
  patience?: number
  /** Most rows or groups of an answer. Default 4,000,000. */
  most?: number
  /** How many questions are asked at once; others wait. Default 4. */
  atOnce?: number
  /** How many may wait. Default 64. */
  waiting?: number
}

/** Questions larger than this are refused. */
const LARGEST_QUESTION = 4_000_000

/**
 * Answers the questions of pages about rows that stay in an engine, for any HTTP server of Node. It takes questions that a
 * chart asks, not SQL: each is checked, and nothing is asked of tables and columns that are not let out.
 */
export function farEndpoint(engine: FarEngine, options: EndpointOptions) {
  const { tables, patience = 30_000, most = 4_000_000, atOnce = 4, waiting = 64 } = options
  const turns: (() => void)[] = []
  let running = 0
  const turn = async () => {
    if (running >= atOnce) {
      if (turns.length >= waiting)
        throw new DapploError('busy', 'Too many questions are waiting', '', 'Ask again in a moment.')
      await new Promise<void>(done => turns.push(done))
    }
    running++
  }
  const next = () => {
    running--
    turns.shift()?.()
  }

  return async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const send = (status: number, content: unknown) => {
      if (response.destroyed || response.headersSent) return
      response
        .writeHead(status, {
          'content-type': 'application/json; charset=utf-8',
          'cache-control': 'no-store',
          'x-content-type-options': 'nosniff',
        })
        .end(JSON.stringify(content))
    }
    try {
      if (request.method !== 'POST') throw refused('Questions come by POST')
      if (!/^application\/json\b/.test(request.headers['content-type'] ?? ''))
        throw refused('Questions come as application/json')
      const asked = parsed(await bodyOf(request))
      if ('describe' in asked) {
        send(200, {
          facts: letOut(asked.describe, await engine.describe(nameIn(asked.describe, tables)), tables),
        })
        return
      }
      const question = checked(asked.question, tables, most)
      let gone = false
      response.once('close', () => {
        gone = true
      })
      await turn()
      try {
        // Whoever closed the connection while others had their turn does not wait any more.
        if (gone) return
        const asking = engine.ask(question)
        let late = false
        const timer = setTimeout(() => {
          late = true
          asking.cancel()
        }, patience)
        response.once('close', () => asking.cancel())
        const found = await asking.answer
          .catch(error => {
            throw late
              ? new DapploError('too-slow', 'The question took too long', '', 'Ask for less.')
              : error
          })
          .finally(() => clearTimeout(timer))
        send(200, answerData(found))
      } finally {
        next()
      }
    } catch (error) {
      const { code, message, hint } = engineError('The database', error)
      send(code === 'refused' ? 400 : code === 'busy' ? 503 : 502, { error: { code, message, hint } })
    }
  }
}

const refused = (message: string) =>
  new DapploError('refused', message, '', 'Ask with a chart over a table of this endpoint.')

async function bodyOf(request: IncomingMessage): Promise<string> {
  const parts: Buffer[] = []
  let size = 0
  for await (const part of request) {
    size += (part as Buffer).length
    if (size > LARGEST_QUESTION) throw refused('The question is too large')
    parts.push(part as Buffer)
  }
  return Buffer.concat(parts).toString('utf8')
}

function parsed(text: string): { describe: unknown } | { question: unknown } {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch {
    throw refused('The question is no JSON')
  }
  if (data === null || typeof data !== 'object' || tooDeep(data)) throw refused('This is no question')
  if ('describe' in data) return { describe: data.describe }
  if ('question' in data) return { question: data.question }
  throw refused('This is no question')
}

function nameIn(name: unknown, tables: EndpointOptions['tables']): string {
  if (typeof name !== 'string' || !Object.hasOwn(tables, name)) throw refused('There is no such table here')
  return name
}

/** What is known of a table, without the columns that are not let out. */
function letOut(name: unknown, facts: FarTableFacts, tables: EndpointOptions['tables']): FarTableFacts {
  const own = tables[name as string]
  return own === true
    ? facts
    : { ...facts, columns: facts.columns.filter(column => own.includes(column.name)) }
}

function checked(asked: unknown, tables: EndpointOptions['tables'], most: number): FarQuestion {
  const found = v.safeParse(questionSchema, asked)
  if (!found.success) throw refused('This is no question that a chart asks')
  const question = found.output
  const columns = tables[nameIn(question.table, tables)]
  for (const column of columnsIn(question))
    if (columns !== true && !columns.includes(column))
      throw refused(`There is no column ${JSON.stringify(column.slice(0, 100))} here`)
  return { ...question, most: Math.min(question.most, most) }
}

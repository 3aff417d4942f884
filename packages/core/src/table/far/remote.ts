import { DapploError } from '../../finding/error.ts'
import { type AnswerData, answerFrom } from './answer-data.ts'
import type { FarAnswer, FarEngine, FarTableFacts } from './model.ts'

/** What is needed of `fetch`, which pages and programs have. */
interface Fetching {
  fetch(
    address: string,
    options: {
      method: string
      headers: Record<string, string>
      body: string
      signal: unknown
    },
  ): Promise<{ ok: boolean; status: number; json(): Promise<unknown> }>
  AbortController: new () => { signal: unknown; abort(): void }
}

/** What an endpoint says. */
interface Said extends Partial<AnswerData> {
  facts?: FarTableFacts
  error?: { code: string; message: string; hint: string }
}

/**
 * An engine that is asked through an endpoint, as a page asks a database that it cannot reach itself. `headers`: what goes
 * with each question, such as who asks.
 */
export function remoteEngine(
  address: string,
  { headers = {} }: { headers?: Record<string, string> } = {},
): FarEngine {
  const { fetch, AbortController: Controller } = globalThis as unknown as Fetching
  const say = async (content: object, signal: unknown): Promise<Said> => {
    let response: Awaited<ReturnType<Fetching['fetch']>>
    try {
      response = await fetch(address, {
        method: 'POST',
        headers: { 'content-type': 'application/json', ...headers },
        body: JSON.stringify(content),
        signal,
      })
    } catch {
      throw new DapploError(
        'no-connection',
        'What answers for the database cannot be reached',
        '',
        'See whether there is a network, and try again.',
      )
    }
    const said = (await response.json().catch(() => ({}))) as Said
    if (said.error) throw new DapploError(said.error.code, said.error.message, '', said.error.hint)
    if (!response.ok)
      throw new DapploError(
        'engine-failed',
        `What answers for the database says ${response.status}`,
        '',
        'See whether the address is right.',
      )
    return said
  }
  return {
    async describe(table) {
      const { facts } = await say({ describe: table }, undefined)
      if (!facts) throw noEndpoint(address)
      return facts
    },
    ask(question) {
      const control = new Controller()
      const answer = say({ question }, control.signal).then(({ length, columns, partial }): FarAnswer => {
        if (length === undefined || !columns) throw noEndpoint(address)
        return answerFrom({ length, columns, ...(partial === undefined ? {} : { partial }) })
      })
      return { answer, cancel: () => control.abort() }
    },
  }
}

const noEndpoint = (address: string): DapploError =>
  new DapploError(
    'engine-failed',
    `What stands at ${address} does not answer questions of charts`,
    '',
    'Name the address of an endpoint made with farEndpoint().',
  )

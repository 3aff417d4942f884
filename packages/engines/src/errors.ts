import { DapploError } from '@dapplo/core'
import type { FarColumnFacts, FarQuestion } from '@dapplo/core/far'
import { suggest } from '@dapplo/core/internal'

/** What is written in an address before an at sign is nobody's business. */
export const withoutSecrets = (text: string): string =>
  text
    .replace(/([a-z][a-z0-9+.-]*:\/\/)[^\s/@]*@/gi, '$1…@')
    .replace(/(password|pwd|secret|token|key)(\s*[=:]\s*)(?:'[^']*'|"[^"]*"|[^\s;,&]+)/gi, '$1$2…')

/** What an engine failed with, in one sentence, and without anything that is secret. */
export function engineError(engine: string, error: unknown): DapploError {
  if (error instanceof DapploError) return error
  const { code, message = String(error) } = (error ?? {}) as { code?: string; message?: string }
  const first = withoutSecrets(String(message)).split('\n')[0].slice(0, 240)
  if (code === 'ECONNREFUSED' || code === 'ENOTFOUND' || code === 'ECONNRESET' || code === 'EHOSTUNREACH')
    return new DapploError(
      'no-connection',
      `${engine} cannot be reached: ${code === 'ENOTFOUND' ? 'there is no such host' : 'nothing answers there'}`,
      '',
      'See whether it runs, and whether its address is right.',
    )
  if (code === '28P01' || code === '28000')
    return new DapploError(
      'no-rights',
      `${engine} does not let this user in`,
      '',
      'See whether the name of the user and the password are right.',
    )
  if (code === '42501' || /permission denied|not enough privileges/i.test(message))
    return new DapploError(
      'no-rights',
      `${engine} does not let this user read there: ${first}`,
      '',
      'Grant the user the right to read the table.',
    )
  if (code === '57014' || (error as Error)?.name === 'AbortError')
    return new DapploError('given-up', `${engine} was asked to stop, or took too long`, '', 'Ask again.')
  return new DapploError('engine-failed', `${engine} could not answer: ${first}`, '', 'See what it says.')
}

export function unknownTable(name: string, tables: readonly string[]): DapploError {
  return new DapploError(
    'unknown-table',
    `There is no table ${JSON.stringify(name)}`,
    'table',
    suggest(name, tables, 'Tables') || 'The database has no tables that this user can see.',
  )
}

/** The column that is to put rows in order, if one is named. */
export function orderIn(
  columns: readonly FarColumnFacts[],
  order: string | undefined,
  table: string,
): FarColumnFacts | undefined {
  const found = columns.find(({ name }) => name === order)
  if (found || order === undefined) return found
  throw new DapploError(
    'unknown-column',
    `There is no column ${JSON.stringify(order)} to put the rows of ${JSON.stringify(table)} in order`,
    `tables.${table}.order`,
    `Columns: ${columns
      .map(({ name }) => name)
      .slice(0, 12)
      .join(', ')}.`,
  )
}

/** An answer that would be more than anybody can look at. */
export const tooLarge = (question: FarQuestion): DapploError =>
  question.ask === 'groups'
    ? new DapploError(
        'too-many-groups',
        `There are more than ${question.most.toLocaleString('en')} groups, too many to be drawn`,
        '',
        'Group by fewer values, such as "month of" instead of "hour of", or keep the largest with top.',
      )
    : new DapploError(
        'too-many-rows',
        `There are more than ${question.most.toLocaleString('en')} rows, too many to be drawn one by one`,
        '',
        'Sum them up, as with "sum of …", or choose fewer with where.',
      )

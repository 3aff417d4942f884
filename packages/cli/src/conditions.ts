import { DapploError } from '@dapplo/node'

/** Says how conditions that are written as comparisons, such as "delay > 5", are written here. */
export function needConditions(text: string): void {
  if (/^\s*\{/.test(text)) return
  throw new DapploError(
    'bad-flag',
    `"${text}" is no JSON object of conditions`,
    '--where',
    `Write ${meant(text) ?? `it as in --where '{"route": "Tern Point"}'`}.`,
  )
}

function meant(text: string): string | undefined {
  const found = /^(.*?)(==?|!=|<>|>=|<=|>|<)(.*)$/.exec(text)
  if (!found) return undefined
  const [column, sign, word] = found.map(part => part.trim()).slice(1)
  if (column === '' || word === '') return undefined
  const bare = word.replace(/^(["'])(.*)\1$/, '$2')
  const value = bare === word && Number.isFinite(Number(word)) ? Number(word) : bare
  const condition = sign.startsWith('=')
    ? value
    : sign === '!=' || sign === '<>'
      ? { not: value }
      : sign.startsWith('>')
        ? { from: value }
        : { until: value }
  const bound = sign === '>' || sign === '<=' ? '; "from" is included, "until" is not' : ''
  return `--where '${JSON.stringify({ [column]: condition })}'${bound}`
}

import type { Table } from '@dapplo/core'
import type { ColumnFacts, Voice } from '@dapplo/core/sentence'
import { element } from './elements.ts'

/** The data at hand: what each column is, found by typing. */
export function columnList(
  place: HTMLDetailsElement,
  table: Table,
  facts: readonly ColumnFacts[],
  say: (words: string, holes?: Readonly<Record<string, string>>) => string,
  voice: Voice,
  files: boolean,
): void {
  const find = element('input', 'find', '', {
    type: 'text',
    'aria-label': say('Find a column'),
    placeholder: say('Find a column'),
  })
  const list = element('ul')
  const write = (value: number, time: boolean) =>
    time ? new Date(value).toISOString().slice(0, 10) : voice.value(value)
  const lines = facts.map(({ name, is, min, max, distinct }) => {
    const cells = table.column(name)?.cells
    if (is === 'nothing' && distinct === 0) return say('{name}: nothing', { name })
    if (cells?.type === 'text')
      return say('{name}: {count} names, such as {names}', {
        name,
        count: voice.value(distinct),
        names: voice.list(cells.words.slice(0, 3)),
      })
    const time = cells?.type === 'time'
    return say(time ? '{name}: times from {min} to {max}' : '{name}: numbers from {min} to {max}', {
      name,
      min: write(min, time),
      max: write(max, time),
    })
  })
  const fill = () =>
    list.replaceChildren(
      ...lines
        .filter(line => line.toLocaleLowerCase().includes(find.value.toLocaleLowerCase()))
        .slice(0, 300)
        .map(line => element('li', '', line)),
    )
  find.addEventListener('input', fill)
  fill()
  place.replaceChildren(
    element('summary', '', `${say('Columns')} (${facts.length})`),
    ...(facts.length > 8 ? [find] : []),
    list,
  )
  if (files) place.append(element('p', '', say('Drop a CSV file here to use it.')))
}

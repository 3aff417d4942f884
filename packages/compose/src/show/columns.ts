import type { ColumnLook, Table, TableLook } from '@dapplo/core'
import { answeredElsewhere } from '@dapplo/core/internal'
import type { Voice } from '@dapplo/core/sentence'
import { element } from './elements.ts'

/** Rows and columns that are shown of a table. */
const ROWS = 5
const COLUMNS = 12
/** Columns that are listed; more are found by typing. */
const LISTED = 300

type Say = (words: string, holes?: Readonly<Record<string, string>>) => string

/** The words for what a column may be read as. */
const TYPES = { number: 'numbers', time: 'times', text: 'names' } as const
type Type = keyof typeof TYPES

/**
 * The data at hand: what each column is and what looks odd in it, found by typing, and the first rows. `retype`: reads a
 * column as something else, where a person may say so.
 */
export function columnList(
  place: HTMLDetailsElement,
  { table, look }: { table: Table; look: TableLook },
  voice: Voice,
  retype?: (column: string, type: Type) => void,
): void {
  const say: Say = voice.text
  const find = element('input', 'find', '', {
    type: 'text',
    'aria-label': say('Find a column'),
    placeholder: say('Find a column'),
  })
  const list = element('ul')
  const lines = look.columns.map(column => ({ column, words: lineOf(column, voice) }))
  const fill = () => {
    const wanted = find.value.toLocaleLowerCase()
    const fitting = lines.filter(({ words }) => words.toLocaleLowerCase().includes(wanted))
    list.replaceChildren(
      ...fitting.slice(0, LISTED).map(({ column, words }) => {
        const line = element('li', '', words)
        if (retype) line.append(' ', typeChoice(column, say, retype))
        return line
      }),
    )
  }
  find.addEventListener('input', fill)
  fill()
  place.replaceChildren(
    element('summary', '', `${say('Columns')} (${look.columns.length})`),
    ...(look.columns.length > 8 ? [find] : []),
    list,
    ...(table.length > 0 && !answeredElsewhere(table) ? [firstRows(table, look, say)] : []),
  )
}

/** What a column is read as, to be corrected. */
function typeChoice(
  { name, type }: ColumnLook,
  say: Say,
  retype: (column: string, type: Type) => void,
): HTMLElement {
  const choice = element('select', '', '', {
    'aria-label': say('Read {name} as', { name }),
    'data-column': name,
  })
  for (const [own, words] of Object.entries(TYPES)) {
    const option = element('option', '', say(words), { value: own })
    option.selected = own === type
    choice.append(option)
  }
  choice.addEventListener('change', () => retype(name, choice.value as Type))
  return choice
}

function lineOf({ name, type, distinct, min, max, commonest = [], odd }: ColumnLook, voice: Voice): string {
  const say = voice.text
  const write = (end: number | string | undefined) =>
    typeof end === 'number' ? voice.value(end) : (end ?? '')
  const what =
    distinct === 0
      ? say('{name}: nothing', { name })
      : type === 'text'
        ? say('{name}: {count} names, such as {names}', {
            name,
            count: voice.value(distinct),
            names: voice.list(commonest.slice(0, 3).map(([one]) => one)),
          })
        : say(type === 'time' ? '{name}: times from {min} to {max}' : '{name}: numbers from {min} to {max}', {
            name,
            min: write(min),
            max: write(max),
          })
  return odd.length === 0 ? what : `${what} (${odd.join('; ')})`
}

function firstRows(table: Table, { columns }: TableLook, say: Say): HTMLElement {
  const names = columns.slice(0, COLUMNS).map(({ name }) => name)
  const around = element('div', 'rows', '', {
    role: 'region',
    'aria-label': say('The first rows'),
    tabindex: '0',
  })
  const shown = element('table')
  const head = element('tr')
  head.append(...names.map(name => element('th', '', name, { scope: 'col' })))
  shown.append(element('caption', '', say('The first rows')), head)
  for (let row = 0; row < Math.min(ROWS, table.length); row++) {
    const record = table.row(row) as Record<string, unknown>
    const line = element('tr')
    line.append(...names.map(name => element('td', '', written(record[name]))))
    shown.append(line)
  }
  around.append(shown)
  return around
}

const written = (value: unknown): string =>
  value === null || value === undefined
    ? ''
    : value instanceof Date
      ? value
          .toISOString()
          .replace(/T00:00:00\.000Z$|:00\.000Z$|\.000Z$/, '')
          .replace('T', ' ')
      : String(value)

import { type ColumnTypes, type Composed, chartFrom, compose, type Drawn, germanWords } from '@dapplo/compose'
import { type Description, type Table, table } from 'dapplo'
import { piers, sailings, targets, tickets, vessels } from './tables.ts'
import { panel, theme } from './theme.ts'

/** Tables unlike those of the company: a composer must get along with them as well. */
const odd = {
  many: table(
    Array.from({ length: 40 }, (_, i) =>
      Object.fromEntries(
        Array.from({ length: 300 }, (_, c) => [
          `sum of column ${c} `.repeat(c % 50 === 0 ? 12 : 1).trim(),
          (i * (c + 7)) % 23,
        ]),
      ),
    ),
    { name: 'many' },
  ),
  none: table<{ pier: string; boarded: number }>([], { name: 'none' }),
  one: table([{ pier: 'Tern Point', boarded: 12 }], { name: 'one' }),
}
const tables = { sailings, piers, vessels, targets, tickets, ...odd }

const asked = new URLSearchParams(location.search)
const wanted = (asked.get('table') ?? 'sailings') as keyof typeof tables
const first: Description = {
  draw: 'bar',
  x: 'month of departed',
  y: 'sum of passengers',
  color: 'route',
  arrange: 'stack',
}
const german = asked.get('lang') === 'de'
if (german) document.documentElement.lang = 'de'

declare global {
  interface Window {
    composer: Composed
    /** The description after each step. */
    steps: Drawn[]
    /** What columns are read as, once a person has corrected it. */
    types: ColumnTypes
    /** What a script on this page composes with. */
    composing: {
      compose: typeof compose
      chartFrom: typeof chartFrom
      tables: Record<string, Table<any>>
      germanWords: typeof germanWords
    }
  }
}
window.steps = []
window.composing = { compose, chartFrom, tables, germanWords }
window.composer = compose(panel('wide'), {
  tables: tables[wanted],
  chart: asked.has('begin') ? undefined : first,
  theme,
  ...(german ? { locale: 'de', words: germanWords } : {}),
  allow: { files: true },
  onChange: description => window.steps.push(description),
  onDone: description => window.steps.push(description),
  onTypes: types => {
    window.types = types
  },
})

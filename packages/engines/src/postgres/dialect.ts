import { Civil } from '../sql/civil.ts'
import type { Dialect, Writer } from '../sql/dialect.ts'
import { digitsOf, numberText } from '../sql/number-text.ts'

const FLOATS = new Set(['double precision', 'real', 'numeric'])
/** Its own calendar is worked out in decimals, several times as slow. */
const civil = new Civil((a, b) => `(${a} / ${b})`)
const milliseconds = (time: string) => `CAST(floor(extract(epoch FROM ${time}) * 1000) AS bigint)`

/** What PostgreSQL writes in its own way. */
export const postgresDialect: Dialect = {
  name: 'postgres',
  writer: () => new PostgresWriter(),
  fence: ' OFFSET 0',
  no: 'false',
  quote: name => `"${name.replaceAll('"', '""')}"`,
  number: (column, given) =>
    FLOATS.has(given)
      ? `(CASE WHEN abs(${column}) <= 1e300 THEN CAST(${column} AS double precision) END)`
      : `CAST(${column} AS double precision)`,
  summed: column => `CAST(${column} AS double precision)`,
  trusted: column => `CAST(${column} AS double precision)`,
  time: column => `(CASE WHEN isfinite(${column}) THEN ${milliseconds(column)} END)`,
  text: column => `nullif(CAST(${column} AS text), '')`,
  numberIn: column =>
    `(CASE WHEN ${column} ~ '^\\s*[-+]?(\\d+\\.?\\d*|\\.\\d+)([eE][-+]?\\d{1,2})?\\s*$' THEN CAST(${column} AS double precision) END)`,
  textOf: column => `CAST(${column} AS text)`,
  floorDivide: (number, by) =>
    `CAST(floor(CAST(${number} AS double precision) / ${numberText(by)}) AS bigint)`,
  floor: number => `floor(${number})`,
  log10: number => `log(${number})`,
  asNumber: expression => `CAST(${expression} AS double precision)`,
  cell: number => `CAST(floor(${number}) AS smallint)`,
  bucket: (milliseconds, unit, named) => civil.bucket(milliseconds, unit, named),
  storedBucket: (column, given, unit) => {
    const day = `(CAST(${column} AS date) - DATE '1970-01-01')`
    if (given !== 'timestamp without time zone' && given !== 'date') return undefined
    const finite = (bucket: string) => `(CASE WHEN isfinite(${column}) THEN ${bucket} END)`
    if (unit === 'day') return finite(day)
    return unit === 'week' ? finite(`CAST(floor((${day} + 3) / 7.0) AS integer)`) : undefined
  },
  part: (milliseconds, part, named) => civil.part(milliseconds, part, named),
  sum: number => `sum(${number})`,
  mean: number => `avg(${number})`,
  distinct: value => `count(DISTINCT ${value})`,
  quantile: (number, share) => `percentile_cont(${numberText(share)}) WITHIN GROUP (ORDER BY ${number})`,
  valueAt: (which, value, by) =>
    `(array_agg(${value} ORDER BY ${by}${which === 'least' ? '' : ' DESC'}) FILTER (WHERE ${value} IS NOT NULL AND ${by} IS NOT NULL))[1]`,
  textOrder: text => `${text} COLLATE "C"`,
  groupBy: place => String(place + 1),
  everySo: (place, every) => (place === undefined ? '1 = 1' : `CAST(${place} AS bigint) % ${every} = 0`),
  storedTime: (column, given, milliseconds, writer) =>
    Number.isInteger(milliseconds) && Math.abs(milliseconds) < 1e14 && given !== 'date'
      ? {
          column,
          value: `CAST(${writer.text(new Date(milliseconds).toISOString().replace('Z', given === 'timestamp with time zone' ? '+00' : ''))} AS ${given === 'timestamp with time zone' ? 'timestamptz' : 'timestamp'})`,
        }
      : undefined,
}

/** Texts are parameters; a text with a zero in it is none that PostgreSQL can have. */
class PostgresWriter implements Writer {
  readonly values: string[] = []

  text(value: string): string {
    if (value.includes('\0')) return 'CAST(NULL AS text)'
    return `CAST($${this.values.push(value)} AS text)`
  }

  number(value: number): string {
    return Number.isInteger(value) ? numberText(value) : `CAST('${digitsOf(value)}' AS double precision)`
  }
}

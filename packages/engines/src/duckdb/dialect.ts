import type { FarBucket } from '@dapplo/core/far'
import type { Dialect, Writer } from '../sql/dialect.ts'
import { digitsOf, numberText } from '../sql/number-text.ts'

const FLOATS = new Set(['DOUBLE', 'FLOAT'])

/** What DuckDB writes in its own way. */
export const duckdbDialect: Dialect = {
  name: 'duckdb',
  writer: () => new DuckdbWriter(),
  fence: '',
  no: 'false',
  quote: name => `"${name.replaceAll('"', '""')}"`,
  number: (column, given) =>
    FLOATS.has(given)
      ? `(CASE WHEN abs(${column}) <= 1e300 THEN CAST(${column} AS DOUBLE) END)`
      : `CAST(${column} AS DOUBLE)`,
  summed: column => column,
  trusted: column => `CAST(${column} AS DOUBLE)`,
  time: (column, given) =>
    given === 'TIMESTAMP' || given === 'TIMESTAMP WITH TIME ZONE'
      ? `(CASE WHEN isfinite(${column}) THEN epoch_ms(${column}) END)`
      : `(CASE WHEN isfinite(CAST(${column} AS TIMESTAMP)) THEN epoch_ms(CAST(${column} AS TIMESTAMP)) END)`,
  text: (column, given) =>
    given === 'VARCHAR' ? `nullif(${column}, '')` : `nullif(CAST(${column} AS VARCHAR), '')`,
  numberIn: column => finite(`TRY_CAST(trim(${column}) AS DOUBLE)`),
  textOf: (column, given) =>
    FLOATS.has(given)
      ? `(CASE WHEN ${column} = floor(${column}) AND abs(${column}) < 1e15 THEN CAST(CAST(${column} AS BIGINT) AS VARCHAR) ELSE CAST(${column} AS VARCHAR) END)`
      : `CAST(${column} AS VARCHAR)`,
  floorDivide: (number, by) => `CAST(floor(${number} / ${numberText(by)}.0) AS BIGINT)`,
  floor: number => `floor(${number})`,
  log10: number => `log10(${number})`,
  asNumber: expression => `CAST(${expression} AS DOUBLE)`,
  cell: number => `CAST(floor(${number}) AS SMALLINT)`,
  bucket: (milliseconds, unit) => bucketOf(`make_timestamp_ms(${milliseconds})`, unit),
  storedBucket: (column, given, unit) =>
    given === 'TIMESTAMP' || given === 'DATE' ? bucketOf(column, unit) : undefined,
  part: (milliseconds, part) => {
    const time = `make_timestamp_ms(${milliseconds})`
    switch (part) {
      case 'hour':
        return `hour(${time})`
      case 'weekday':
        return `isodow(${time})`
      case 'day':
        return `day(${time})`
      case 'day of year':
        return `dayofyear(${time})`
      case 'month':
        return `month(${time})`
    }
  },
  sum: number => `sum(${number})`,
  mean: number => `avg(${number})`,
  distinct: value => `count(DISTINCT ${value})`,
  quantile: (number, share) => `quantile_cont(${number}, ${numberText(share)})`,
  valueAt: (which, value, by) => `${which === 'least' ? 'arg_min' : 'arg_max'}(${value}, ${by})`,
  textOrder: text => text,
  // Measured over 10,000,000 rows: four questions take 0.7 of their time as one, and half of it where rows are chosen.
  groupingSets: true,
  groupBy: place => String(place + 1),
  everySo: (place, every) => (place === undefined ? '1 = 1' : `(${place}) % ${every} = 0`),
  storedTime: (column, given, milliseconds) =>
    Number.isSafeInteger(milliseconds * 1000) && (given === 'TIMESTAMP' || given === 'DATE')
      ? { column, value: `make_timestamp(${milliseconds * 1000})` }
      : undefined,
}

/** Texts are parameters; numbers stand in the statement, where the planner sees them. */
class DuckdbWriter implements Writer {
  readonly values: (string | number)[] = []

  text(value: string): string {
    return `$${this.values.push(value)}`
  }

  number(value: number): string {
    return Number.isInteger(value) ? numberText(value) : `CAST('${digitsOf(value)}' AS DOUBLE)`
  }
}

const finite = (number: string) => `(CASE WHEN abs(${number}) <= 1e300 THEN ${number} END)`

/** The number of a bucket; NULL for what lies beyond all calendars. */
function bucketOf(time: string, unit: FarBucket): string {
  const day = `date_diff('day', TIMESTAMP '1970-01-01', ${time})`
  switch (unit) {
    case 'day':
      return day
    case 'week':
      return `CAST(floor((${day} + 3) / 7.0) AS BIGINT)`
    case 'month':
      return `(year(${time}) * 12 + month(${time}) - 23641)`
    case 'quarter':
      return `(year(${time}) * 4 + quarter(${time}) - 7881)`
    case 'year':
      return `(year(${time}) - 1970)`
  }
}

import { Civil } from '../sql/civil.ts'
import type { Dialect, Writer } from '../sql/dialect.ts'
import { numberText } from '../sql/number-text.ts'

/** A type without what may be missing in it. */
export const innerType = (given: string): string => {
  const inner = /^(?:Nullable|LowCardinality)\((.*)\)$/.exec(given)
  return inner ? innerType(inner[1]) : given
}

const civil = new Civil((a, b) => `intDiv(${a}, ${b})`)

/**
 * What ClickHouse writes in its own way, as servers of 2018 know it already: no parameters, no windows, no interpolated
 * quantiles, and a calendar that begins in 1970, so that days are counted in whole numbers.
 */
export const clickhouseDialect: Dialect = {
  name: 'clickhouse',
  writer: () => new ClickhouseWriter(),
  fence: '',
  no: '0',
  quote: name => `\`${escaped(name, '`')}\``,
  number: (column, given) =>
    innerType(given).startsWith('Float')
      ? `if(abs(${column}) <= 1e300, toFloat64(${column}), NULL)`
      : `toFloat64(${column})`,
  summed: (column, given) => clickhouseDialect.number(column, given),
  trusted: (column, given) => clickhouseDialect.number(column, given),
  time: (column, given) => {
    const own = innerType(given)
    if (own === 'Date') return `(toInt64(${column}) * 86400000)`
    if (own.startsWith('DateTime64')) return `toUnixTimestamp64Milli(${column})`
    return `(toInt64(toUInt32(${column})) * 1000)`
  },
  text: column => `nullIf(toString(${column}), '')`,
  numberIn: column => `toFloat64OrNull(toString(${column}))`,
  textOf: column => `toString(${column})`,
  floorDivide: (number, by) => `toInt64(floor(${number} / ${numberText(by)}))`,
  floor: number => `floor(${number})`,
  log10: number => `log10(${number})`,
  asNumber: expression => `toFloat64(${expression})`,
  cell: number => `toInt32(floor(${number}))`,
  bucket: (milliseconds, unit, named) => civil.bucket(milliseconds, unit, named),
  part: (milliseconds, part, named) => civil.part(milliseconds, part, named),
  // Where no value is there, there is no sum: with columns that may miss values it is NULL by itself.
  sum: number => `if(count(${number}) = 0, NULL, sum(${number}))`,
  mean: number => `avg(${number})`,
  distinct: value => `if(count(${value}) = 0, 0, uniqExact(${value}))`,
  quantile: (number, share) => {
    const sorted = `arraySort(groupArray(${number}))`
    const at = `(toFloat64(length(${sorted})) - 1) * ${numberText(share)}`
    const below = `toUInt64(floor(${at}) + 1)`
    const low = `${sorted}[${below}]`
    const high = `${sorted}[least(${below} + 1, toUInt64(length(${sorted})))]`
    return `if(count(${number}) = 0, NULL, ${low} + (${high} - ${low}) * (${at} - floor(${at})))`
  },
  valueAt: (which, value, by) =>
    `if(countIf(isNotNull(${value}) AND isNotNull(${by})) = 0, NULL, ${which === 'least' ? 'argMin' : 'argMax'}(${value}, ${by}))`,
  textOrder: text => text,
  groupBy: place => `\`c${place}\``,
  everySo: (place, every) => (place === undefined ? '1 = 1' : `toInt64(${place}) % ${every} = 0`),
}

const ESCAPES: Record<string, string> = { '\0': '\\0', '\n': '\\n', '\r': '\\r', '\t': '\\t', '\\': '\\\\' }

/** A text between quotes: the quote, the backslash and what cannot be seen are written by an escape each. */
const escaped = (text: string, quote: string): string =>
  text.replace(/[\0\n\r\t\\'`"]/g, sign => ESCAPES[sign] ?? (sign === quote ? `\\${sign}` : sign))

/** The encoder: every value of a question goes through it, by its type. */
class ClickhouseWriter implements Writer {
  readonly values: (string | number)[] = []

  text(value: string): string {
    return `'${escaped(value, "'")}'`
  }

  number(value: number): string {
    return Number.isInteger(value) ? numberText(value) : `toFloat64(${numberText(value)})`
  }
}

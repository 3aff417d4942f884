import { LARGEST } from '../../finding/check-tree.ts'
import { FARTHEST } from '../cells/calendar.ts'
import type { Cells } from '../cells/cells.ts'
import { Dictionary } from '../cells/cells.ts'
import type { Column } from '../cells/options.ts'
import type { DateStyle, NumberStyle, Reader } from '../cells/reader.ts'
import { utc, zoneOf } from '../cells/zone.ts'
import { isSlashed, readDate, readIso, slashedStyle } from './date-text.ts'
import { isBlank, isCode, isMissingText, numberStyle, readPlain, readStyled } from './number-text.ts'
import type { ColumnReport } from './report.ts'

/** At most this share of a text column's cells may be unreadable for it still to be taken as numbers or dates. */
const TOLERATED = 0.1
/** About so many values are looked at to find out what a column holds. */
export const SAMPLE = 500
const DECIMAL = { 'decimal comma': ',', 'decimal point': '.' } as const

/** Settles how to read a column: by the type asked for, else by its values, else by what its texts look like. */
export function chooseReader(
  raw: readonly unknown[],
  option: Column | undefined,
  zoneName: string | undefined,
): { reader: Reader; how: 'given' | 'guessed'; guess: string; unsettled?: string } {
  const zone = zoneOf(option?.timeZone ?? zoneName, 'timeZone')
  const reader: Reader = { type: 'text', numbers: undefined, dates: 'iso', dateOnly: false, zone }
  const texts: string[] = []
  let numbers = 0
  let times = 0
  let others = 0
  // A spread sample keeps a guess about a million rows cheap; every cell is still read, and counted when unreadable.
  const step = Math.max(1, Math.floor(raw.length / SAMPLE))
  for (let start = 0; start < step && texts.length + numbers + times + others === 0; start++) {
    for (let i = start; i < raw.length; i += step) {
      const value = raw[i]
      if (isBlank(value)) continue
      if (typeof value === 'string') {
        const text = value.trim()
        if (!isMissingText(text)) texts.push(text)
      } else if (typeof value === 'number' || typeof value === 'bigint') numbers++
      else if (value instanceof Date) times++
      else others++
    }
  }
  let unsettled: string | undefined
  const settle = (type: Reader['type'], how: 'given' | 'guessed', guess = '') => ({
    reader: { ...reader, type },
    how,
    guess,
    unsettled,
  })

  const wanted = option?.type ?? (option?.dates ? 'time' : option?.numbers && 'number')
  if (wanted === 'text') return settle('text', 'given')
  const decimal = option?.numbers && DECIMAL[option.numbers]
  if (wanted === 'number') {
    const found = numberStyle(texts, decimal)
    reader.numbers = found?.style ?? (decimal && { decimal, percent: false, currency: undefined })
    unsettled = found?.unsettled
    return settle('number', 'given')
  }
  const dated = dateStyle(texts, option?.dates)
  if (!dated && slashedStyle(texts) === 'unsettled') unsettled = texts.find(isSlashed)
  if (wanted === 'time') {
    if (dated) {
      reader.dates = dated.style
      reader.dateOnly = dated.dateOnly && times === 0
      reader.monthly = dated.monthly
    }
    return settle('time', 'given')
  }
  if (texts.length === 0) {
    if (times > 0 && numbers === 0 && others === 0) return settle('time', 'given')
    return settle(
      others > 0 || (numbers === 0 && times === 0 && raw.some(v => !isBlank(v))) ? 'text' : 'number',
      'given',
    )
  }
  if (times > 0 || others > 0) return settle(times > 0 && dated ? 'time' : 'text', 'given')
  if (texts.some(isCode)) return settle('text', 'given')
  const found = numberStyle(texts)
  if (found && enough(texts, text => !Number.isNaN(readStyled(text, found.style)))) {
    reader.numbers = found.style
    unsettled = found.unsettled
    return settle('number', 'guessed', describeNumbers(found.style))
  }
  if (numbers === 0 && dated && enough(texts, text => readDate(text, dated.style) !== undefined)) {
    reader.dates = dated.style
    reader.dateOnly = dated.dateOnly
    reader.monthly = dated.monthly
    return settle(
      'time',
      'guessed',
      dated.style === 'iso' ? 'ISO 8601 dates' : `dates with the ${dated.style}`,
    )
  }
  return settle('text', numbers > 0 ? 'given' : 'guessed')
}

const enough = (texts: string[], readable: (text: string) => boolean) =>
  texts.filter(readable).length >= texts.length * (1 - TOLERATED)

function describeNumbers(style: NumberStyle): string {
  if (style.percent) return 'percentages'
  if (style.currency) return `amounts in ${style.currency}`
  return style.decimal === ',' ? 'numbers with a decimal comma' : 'numbers'
}

function dateStyle(
  texts: string[],
  told: Column['dates'],
): (Pick<Reader, 'dateOnly' | 'monthly'> & { style: DateStyle }) | undefined {
  let iso = 0
  let dateOnly = true
  let monthly = false
  for (const text of texts) {
    const date = readIso(text)
    if (date) {
      iso++
      dateOnly &&= date.dateOnly
      monthly ||= text.length <= 'yyyy-mm'.length
    }
  }
  if (iso > 0) return { style: 'iso', dateOnly, monthly }
  const found = slashedStyle(texts)
  const style = found && (told ?? found)
  if (style === undefined || style === 'unsettled') return undefined
  return { style, dateOnly: texts.every(text => readDate(text, style)?.dateOnly !== false) }
}

/** Reads raw values into cells and counts what is missing and what is unreadable. `lineOf` gives the text line of a row. */
export function readCells(
  raw: readonly unknown[],
  reader: Reader,
  report: ColumnReport,
  lineOf: (row: number) => number | undefined,
  dictionary?: Dictionary,
): Cells {
  const unreadable = (row: number, text: unknown) => {
    report.unreadable++
    if (report.examples.length < 20) report.examples.push({ row, line: lineOf(row), text: shown(text) })
  }
  if (reader.type === 'text') {
    const words = dictionary ?? new Dictionary()
    const codes = new Int32Array(raw.length)
    for (let i = 0; i < raw.length; i++) {
      const value = raw[i]
      const time = value instanceof Date ? value.getTime() : value
      if (isBlank(value) || (typeof time === 'number' && Number.isNaN(time))) {
        codes[i] = -1
        report.missing++
      } else {
        const text = textOf(value)
        codes[i] = text === undefined ? -1 : words.code(text)
        if (text === undefined) unreadable(i, value)
      }
    }
    return { type: 'text', codes, words: words.words }
  }
  const values = new Float64Array(raw.length)
  const readOne = reader.type === 'number' ? numberFrom : timeFrom
  const farthest = reader.type === 'number' ? LARGEST : FARTHEST
  const near = (value: number) => (Math.abs(value) <= farthest ? value : Number.NaN)
  for (let i = 0; i < raw.length; i++) {
    const value = raw[i]
    let read = Number.NaN
    if (typeof value === 'string') {
      read = near(readOne(value, reader))
      if (Number.isNaN(read)) {
        const text = value.trim()
        if (isMissingText(text)) report.missing++
        else {
          read = near(readOne(text, reader))
          if (Number.isNaN(read)) unreadable(i, text)
        }
      }
    } else if (typeof value === 'number') {
      read = near(value)
      if (Number.isNaN(value)) report.missing++
      else if (Number.isNaN(read)) unreadable(i, value)
    } else if (value instanceof Date) {
      read = value.getTime()
      if (Number.isNaN(read)) unreadable(i, value)
    } else if (isBlank(value)) report.missing++
    else {
      if (typeof value === 'bigint') read = near(Number(value))
      if (Number.isNaN(read)) unreadable(i, value)
    }
    values[i] = read
  }
  return { type: reader.type, values }
}

const isPlainValue = (value: unknown): boolean =>
  value === null || (typeof value !== 'object' && typeof value !== 'function' && typeof value !== 'symbol')

/**
 * A cell as text; undefined for what has none: functions, and objects and lists that hold others. Objects that say
 * themselves how they are written, such as decimals, are taken at their word.
 */
function textOf(value: unknown): string | undefined {
  if (value instanceof Date) return value.toISOString()
  if (typeof value === 'number' && !Number.isFinite(value)) return undefined
  if (isPlainValue(value)) return String(value)
  if (Array.isArray(value)) return value.every(isPlainValue) ? value.join(', ') : undefined
  if (typeof value !== 'object' || value === null) return undefined
  const write: unknown = Reflect.get(value, 'toString')
  if (typeof write !== 'function' || write === Object.prototype.toString) return undefined
  try {
    const text: unknown = write.call(value)
    return typeof text === 'string' ? text : undefined
  } catch {
    return undefined
  }
}

/** A cell as it is quoted in a message, whatever it is. */
const shown = (value: unknown): string =>
  Array.isArray(value)
    ? 'a list'
    : value instanceof Date || isPlainValue(value)
      ? String(value)
      : `${typeof value === 'object' ? 'an object' : `a ${typeof value}`}`

const numberFrom = (text: string, reader: Reader) => {
  const plain = reader.numbers === undefined || reader.numbers.percent ? Number.NaN : readPlain(text)
  if (!Number.isNaN(plain) && reader.numbers?.decimal !== ',') return plain
  return readStyled(text, reader.numbers ?? { decimal: '.', percent: false, currency: undefined })
}

const timeFrom = (text: string, reader: Reader) => {
  const date = readDate(text, reader.dates)
  if (date === undefined) return Number.NaN
  if (date.offset !== undefined) return date.local - date.offset
  return reader.dateOnly || reader.zone === utc ? date.local : reader.zone.toUtc(date.local)
}

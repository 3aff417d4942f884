import type { Settled } from '../describe/description.ts'
import type { ResolvedDrawing } from '../resolve/model.ts'
import { valueText } from '../scale/number-format.ts'
import { cycleText, momentText } from '../scale/time-format.ts'
import type { RoleValues, Shaped } from '../table/group/shape.ts'
import { meaningKey } from '../table/phrase/meaning.ts'
import { isShaded } from './color-scale.ts'
import { unitOf } from './naming.ts'

/** Several roles that are bound to one phrase are one part. */
export interface SeriesPart {
  values: RoleValues
  roles: string[]
  coded: Coded
}

/** What tells the series of a drawing apart. */
export function partsOf(
  drawing: ResolvedDrawing,
  shaped: Shaped,
  description: Settled,
  locale: string,
): SeriesPart[] {
  const parts: SeriesPart[] = []
  const words = new Map<string, SeriesPart>()
  for (const role of ['color', 'columns', 'series', 'shape', 'dash']) {
    const values = shaped.roles.get(role)
    if (!values) continue
    const shaded = role === 'color' && !drawing.kind.parts && isShaded(values, description.scales?.color)
    if (shaded) continue
    const name = role === 'columns' ? '\u0000columns' : meaningKey(values.meaning)
    const same = words.get(name)
    if (same) {
      same.roles.push(role)
      continue
    }
    const part = { values, roles: [role], coded: codesOf(values, locale) }
    parts.push(part)
    words.set(name, part)
  }
  return parts
}

/** The combinations of values that occur, in the order of their categories, and which one each mark has. */
export function combinations(
  parts: readonly SeriesPart[],
  length: number,
): { codes: number[][]; seriesOf: Uint16Array } {
  // The common case, one role, is looked up in an array; a million marks should not make a million strings.
  if (parts.length === 1) return byCode(parts[0].coded, length)
  const met = new Uint32Array(length)
  const list = metCombinations(parts, met)
  // Series stand in the order of their categories, whatever row happened to come first.
  const order = list.map((_, i) => i).sort((a, b) => compare(list[a], list[b]))
  const rank = new Uint32Array(list.length)
  order.forEach((at, i) => {
    rank[at] = i
  })
  const seriesOf = new Uint16Array(length)
  for (let mark = 0; mark < length; mark++) seriesOf[mark] = rank[met[mark]]
  return { codes: order.map(at => list[at]), seriesOf }
}

function byCode(
  { codes, names, whole }: Coded,
  length: number,
): { codes: number[][]; seriesOf: Uint16Array } {
  // Kept one higher: missing values have a place as well.
  const met = new Uint8Array(names.length + 1)
  const unmet = names.length + (whole ? 0 : 1)
  for (let mark = 0, found = 0; mark < length && found < unmet; mark++)
    if (met[codes[mark] + 1] === 0) {
      met[codes[mark] + 1] = 1
      found++
    }
  const list: number[] = []
  for (let code = 0; code < names.length; code++) if (met[code + 1] === 1) list.push(code)
  if (met[0] === 1) list.push(-1)
  const series = list.map(code => [code])
  // Where each category is there, they stand in their own order: so it is in most tables, again after each change.
  if (list.length === names.length && met[0] === 0 && codes.length === length)
    return { codes: series, seriesOf: new Uint16Array(codes) }
  const rank = new Uint16Array(names.length + 1)
  list.forEach((code, i) => {
    rank[code + 1] = i
  })
  const seriesOf = new Uint16Array(length)
  for (let mark = 0; mark < length; mark++) seriesOf[mark] = rank[codes[mark] + 1]
  return { codes: series, seriesOf }
}

function metCombinations(parts: readonly SeriesPart[], met: Uint32Array): number[][] {
  const list: number[][] = []
  const found = new Map<string, number>()
  for (let mark = 0; mark < met.length; mark++) {
    const codes = parts.map(part => part.coded.codes[mark])
    const name = codes.join(',')
    let at = found.get(name)
    if (at === undefined) {
      at = list.push(codes) - 1
      found.set(name, at)
    }
    met[mark] = at
  }
  return list
}

function compare(a: number[], b: number[]): number {
  for (let i = 0; i < a.length; i++) {
    // Missing values come last.
    if (a[i] !== b[i]) return a[i] < 0 ? 1 : b[i] < 0 ? -1 : a[i] - b[i]
  }
  return 0
}

/** The values of a part as codes of categories; -1 where missing. */
export interface Coded {
  codes: ArrayLike<number>
  /** Whether no value is missing, where that is known without looking. */
  whole?: boolean
  /** By code: what identifies the category, and what people read. */
  keys: string[]
  names: string[]
}

function codesOf(values: RoleValues, locale: string): Coded {
  const { cells, meaning, zone } = values
  if (cells.type === 'text') {
    const names =
      meaning.is === 'cycle' ? cells.words.map(word => cycleText(meaning.cycle, word, locale)) : cells.words
    const whole = meaning.is === 'column' && values.column?.extent.missing === 0
    return { codes: cells.codes, whole, keys: cells.words, names }
  }
  const distinct = [...new Set(cells.values)].filter(value => value === value).sort((a, b) => a - b)
  const code = new Map(distinct.map((value, i) => [value, i]))
  const unit = unitOf(values)
  const names = distinct.map(value =>
    cells.type === 'time'
      ? momentText(value, unit, locale, zone)
      : valueText(value, { locale, format: meaning.format ?? values.column?.options.format }),
  )
  return {
    codes: Int32Array.from(cells.values, value => code.get(value) ?? -1),
    keys: distinct.map(String),
    names,
  }
}

/** The codes that some mark has, in the order in which they are met. */
export function usedCodes({ codes, names }: Coded): Set<number> {
  const used = new Set<number>()
  const met = new Uint8Array(names.length)
  for (let i = 0; i < codes.length; i++) {
    const code = codes[i]
    if (code < 0 || met[code] === 1) continue
    met[code] = 1
    used.add(code)
    if (used.size === names.length) break
  }
  return used
}

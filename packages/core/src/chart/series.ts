import type { Series } from '../drawing/kind.ts'
import type { Finding } from '../finding/error.ts'
import { valueText } from '../scale/number-format.ts'
import { cycleText, momentText } from '../scale/time-format.ts'
import type { RoleValues, Shaped } from '../table/shape.ts'
import { isRest } from '../table/top.ts'
import type { Theme } from '../theme/theme.ts'
import { isShaded } from './color-scale.ts'
import type { Description } from './description.ts'
import type { ResolvedDrawing } from './resolve.ts'

/** Series beyond this many are one picture no reader can take in. */
const MOST_SERIES = 5000

/** The series of a drawing, and which of them each mark belongs to. */
export function seriesFor(
  drawing: ResolvedDrawing,
  shaped: Shaped,
  description: Description,
  theme: Theme,
  locale: string,
  findings: Finding[],
  plain: { name: string; color: string },
): { series: Series[]; seriesOf: Uint16Array | undefined } {
  const coloring = shaped.roles.get('color')
  const shaded = coloring !== undefined && isShaded(coloring, description.scales?.color)
  const parts = [
    shaded ? undefined : coloring,
    shaped.roles.get('columns'),
    shaped.roles.get('series'),
  ].filter(values => values !== undefined)
  const constant = drawing.style.color ?? plain.color
  const dash = drawing.style.dash ?? []
  if (parts.length === 0) {
    const name = drawing.name ?? plain.name
    return {
      series: [{ key: name || `drawing ${drawing.index}`, name, color: constant, dash }],
      seriesOf: undefined,
    }
  }
  const coded = parts.map(values => codesOf(values, locale))
  const colored = (coloring && !shaded) || shaped.roles.has('columns') ? coded[0] : undefined
  const paint = colored && painter(parts[0], colored, description, theme, drawing, findings)
  const found = new Map<string, { codes: number[]; at: number }>()
  const seriesOf = new Uint16Array(shaped.length)
  const one = coded.length === 1 ? new Int32Array(coded[0].names.length + 1).fill(-1) : undefined
  const list: { codes: number[] }[] = []
  for (let mark = 0; mark < shaped.length; mark++) {
    // The common case, one role, is looked up in an array; a million marks should not make a million strings.
    if (one) {
      const code = coded[0].codes[mark]
      if (one[code + 1] < 0) one[code + 1] = list.push({ codes: [code] }) - 1
      seriesOf[mark] = one[code + 1]
      continue
    }
    const codes = coded.map(part => part.codes[mark])
    const name = codes.join(',')
    let entry = found.get(name)
    if (!entry) {
      entry = { codes, at: list.push({ codes }) - 1 }
      found.set(name, entry)
    }
    seriesOf[mark] = entry.at
  }
  if (list.length > MOST_SERIES) {
    findings.push({
      code: 'too-many-series',
      message: `${list.length} series are too many to be told apart`,
      remedy: 'Bind color to a column with fewer values, or keep the top ones.',
      path: 'color',
    })
  }
  // Series stand in the order of their categories, whatever row happened to come first.
  const order = list.map((_, i) => i).sort((a, b) => compare(list[a].codes, list[b].codes))
  const rank = new Uint16Array(list.length)
  order.forEach((at, i) => {
    rank[at] = i
  })
  for (let mark = 0; mark < seriesOf.length; mark++) seriesOf[mark] = rank[seriesOf[mark]]
  const series = order.map(at => {
    const { codes } = list[at]
    const names = codes.map((code, p) => (code < 0 ? noValue(parts[p]) : coded[p].names[code]))
    const keys = codes.map((code, p) => (code < 0 ? '' : coded[p].keys[code]))
    const color = drawing.style.color ?? (paint ? (codes[0] < 0 ? theme.missing : paint(codes[0])) : constant)
    return { key: keys.join('\u001f'), name: names.join(', '), color, dash }
  })
  return { series, seriesOf: series.length > 1 ? seriesOf : undefined }
}

const noValue = (values: RoleValues) => `No ${(values.column?.name ?? 'value').replace(/_/g, ' ')}`

function compare(a: number[], b: number[]): number {
  for (let i = 0; i < a.length; i++) {
    // Missing values come last.
    if (a[i] !== b[i]) return a[i] < 0 ? 1 : b[i] < 0 ? -1 : a[i] - b[i]
  }
  return 0
}

interface Coded {
  codes: ArrayLike<number>
  /** By code: what identifies the category, and what people read. */
  keys: string[]
  names: string[]
}

function codesOf(values: RoleValues, locale: string): Coded {
  const { cells, meaning, zone } = values
  if (cells.type === 'text') {
    const names =
      meaning.is === 'cycle'
        ? cells.words.map(word => cycleText(meaning.cycle, Number(word), locale))
        : cells.words
    return { codes: cells.codes, keys: cells.words, names }
  }
  const distinct = [...new Set(cells.values)].filter(value => value === value).sort((a, b) => a - b)
  const code = new Map(distinct.map((value, i) => [value, i]))
  const unit = meaning.is === 'bucket' ? meaning.unit : undefined
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

/** The colour of each category: as told by chart or column, else by its place among all values that the column ever had. */
function painter(
  values: RoleValues,
  coded: Coded,
  description: Description,
  theme: Theme,
  drawing: ResolvedDrawing,
  findings: Finding[],
): (code: number) => string {
  const told = description.scales?.color?.colors
  const listed = Array.isArray(told) ? told : theme.colors
  const named: Record<string, string> = {
    ...values.column?.options.colors,
    ...(Array.isArray(told) ? {} : told),
  }
  const used = new Set<number>()
  for (let i = 0; i < coded.codes.length; i++) used.add(coded.codes[i])
  used.delete(-1)
  const unnamed = [...used].filter(code => !Object.hasOwn(named, coded.keys[code])).length
  if (unnamed > listed.length) {
    findings.push({
      code: 'too-many-colors',
      message: `${unnamed} values of "${values.column?.name ?? 'color'}" share ${listed.length} colours, so some look alike`,
      remedy:
        'Keep the top ones, give more colours in scales.color.colors, or bind color to something with fewer values.',
      path: drawing.path ? `${drawing.path}.color` : 'color',
    })
  }
  return code => {
    const key = coded.keys[code]
    if (isRest(key)) return theme.missing
    return Object.hasOwn(named, key) ? named[key] : listed[code % listed.length]
  }
}

import type { Settled } from '../describe/description.ts'
import type { Series } from '../describe/model.ts'
import { DapploError, type Finding } from '../finding/error.ts'
import type { Found } from '../finding/found.ts'
import { partPath } from '../finding/part-path.ts'
import type { ResolvedDrawing } from '../resolve/model.ts'
import { HATCHES, type Hatch } from '../scene/hatch.ts'
import { MARKERS } from '../scene/marker.ts'
import type { TableColumn } from '../table/cells/column.ts'
import type { Shaped } from '../table/group/shape.ts'
import type { Theme } from '../theme/theme.ts'
import type { Tongue } from '../words/tongue.ts'
import { categoryColors } from './category-colors.ts'
import type { Telling } from './model.ts'
import { labelOf } from './naming.ts'
import { combinations, partsOf, type SeriesPart, usedCodes } from './series-parts.ts'

/** Series beyond this many are one picture no reader can take in. */
const MOST_SERIES = 5000

/** More than these cannot be told apart by the small whole numbers that shapes name their colours by. */
const MOST_INDEXED = 65_000

/** Lengths in pixels of dashes and gaps, in order of use; the first is a solid line. */
export const DASHES: readonly (readonly number[])[] = [[], [7, 4], [2, 4], [12, 4, 2, 4], [14, 5], [5, 3]]

/** One thing that a legend explains: a value and how it looks. */
export interface SeriesEntry extends Series {
  /** What it explains; undefined where series differ in name only. */
  by: Telling | undefined
  /** What values of this kind are called. */
  title: string
}

/** The series of a drawing, which of them each mark belongs to, and what a legend says of them. */
export interface SeriesOfDrawing {
  series: Series[]
  seriesOf: Uint16Array | undefined
  entries: SeriesEntry[]
  /** By series: the keys of the entries that explain it. A series is hidden when one of them is. */
  explained: string[][]
  /** The one column of texts that tells them apart, with the code of each series. */
  by?: { column: TableColumn; codes: readonly number[] }
  /** Whether one entry stands for all of them. */
  together?: boolean
}

/** Splits the marks of a drawing into series by what is bound to color, shape, dash and series. */
export function seriesFor(
  drawing: ResolvedDrawing,
  shaped: Shaped,
  description: Settled,
  theme: Theme,
  tongue: Tongue,
  plain: { name: string; color: string; dash?: readonly number[] },
): Found<SeriesOfDrawing> {
  const findings: Finding[] = []
  const found = (value: SeriesOfDrawing) => ({ value, findings })
  const parts = partsOf(drawing, shaped, description, tongue.locale)
  const constant = drawing.style.color ?? plain.color
  const dash = drawing.style.dash ?? plain.dash ?? []
  if (parts.length === 0) {
    const name = drawing.name ?? plain.name
    const series = { key: name || `drawing ${drawing.index}`, name, color: constant, dash }
    return found({
      series: [series],
      seriesOf: undefined,
      entries: [{ ...series, by: 'color', title: '' }],
      explained: [[series.key]],
    })
  }
  const { codes, seriesOf } = combinations(parts, shaped.length)
  if (codes.length > MOST_INDEXED)
    throw new DapploError(
      'too-many-series',
      `${codes.length.toLocaleString('en')} series cannot be drawn`,
      partPath(drawing.path, 'color'),
      'Bind color to a column with fewer values, or keep the largest with top.',
    )
  if (codes.length > MOST_SERIES) {
    findings.push({
      code: 'too-many-series',
      message: `${codes.length} series are too many to be told apart`,
      remedy: 'Bind color to a column with fewer values, or keep the top ones.',
      path: 'color',
    })
  }
  const at = (role: string) => parts.findIndex(part => part.roles.includes(role))
  const [colorAt, columnsAt, shapeAt, dashAt] = [at('color'), at('columns'), at('shape'), at('dash')]
  const coloredAt = colorAt >= 0 ? colorAt : columnsAt
  const paintBy = (part: SeriesPart) => {
    const painted = categoryColors(part, description, theme, drawing)
    findings.push(...painted.findings)
    return painted.value
  }
  const paint = coloredAt >= 0 ? paintBy(parts[coloredAt]) : () => ({ color: constant, hatch: 0, dash: 0 })
  if (shapeAt >= 0) findings.push(...tooMany(parts[shapeAt], 'shape', MARKERS.length, 'forms', drawing))
  if (dashAt >= 0) findings.push(...tooMany(parts[dashAt], 'dash', DASHES.length, 'dashes', drawing))
  const colorOf = (code: number) => drawing.style.color ?? (code < 0 ? theme.missing : paint(code).color)
  const markOf = (code: number, mark: 'hatch' | 'dash') =>
    drawing.style.color !== undefined || code < 0 ? 0 : paint(code)[mark]
  const hatchOf = (code: number): Hatch | undefined => HATCHES[markOf(code, 'hatch') - 1]
  const ownDash = (code: number) => (dash.length > 0 ? dash : DASHES[markOf(code, 'dash')])
  const shapeOf = (code: number) => MARKERS[code < 0 ? MARKERS.length - 1 : code % MARKERS.length]
  const dashOf = (code: number) => DASHES[code < 0 ? DASHES.length - 1 : code % DASHES.length]
  const series = codes.map(own => ({
    key: own.map((code, p) => (code < 0 ? '' : parts[p].coded.keys[code])).join('\u001f'),
    name: own.map((code, p) => nameOf(parts[p], code, tongue)).join(', '),
    color: coloredAt >= 0 ? colorOf(own[coloredAt]) : constant,
    dash: dashAt >= 0 ? dashOf(own[dashAt]) : coloredAt >= 0 ? ownDash(own[coloredAt]) : dash,
    hatch: coloredAt >= 0 ? hatchOf(own[coloredAt]) : undefined,
    shape: shapeAt >= 0 ? shapeOf(own[shapeAt]) : undefined,
  }))
  const table = drawing.table
  if (parts.length === 1) {
    const title =
      colorAt === 0 || shapeAt === 0 || dashAt === 0 ? labelOf(parts[0].values.meaning, table, tongue) : ''
    // Series of one colour are told apart by where they stand alone: the legend says what they are together.
    if (coloredAt === 0 && drawing.style.color !== undefined && series.length > 1 && plain.name !== '') {
      const key = `drawing ${drawing.index}`
      const entry = {
        key,
        name: drawing.name ?? plain.name,
        color: constant,
        dash,
        by: 'color',
        title: '',
      } as const
      return found({
        series,
        seriesOf,
        entries: [entry],
        explained: series.map(series => [series.key, key]),
        together: true,
      })
    }
    const by = coloredAt === 0 ? 'color' : shapeAt === 0 ? 'shape' : dashAt === 0 ? 'dash' : undefined
    return found({
      series,
      seriesOf: series.length > 1 ? seriesOf : undefined,
      entries: series.map(series => ({ ...series, by, title })),
      explained: series.map(series => [series.key]),
      by: columnOf(parts[0].values, codes),
    })
  }
  const entries: SeriesEntry[] = []
  const explained: string[][] = series.map(() => [])
  parts.forEach((part, p) => {
    const by = p === coloredAt ? 'color' : p === shapeAt ? 'shape' : p === dashAt ? 'dash' : undefined
    if (!by) return
    const title = labelOf(part.values.meaning, table, tongue)
    const known = new Set<number>()
    codes.forEach((own, s) => {
      const code = own[p]
      const key = `${by}\u001d${code < 0 ? '' : part.coded.keys[code]}`
      explained[s].push(key)
      if (known.has(code)) return
      known.add(code)
      entries.push({
        key,
        name: nameOf(part, code, tongue),
        by,
        title,
        color: p === coloredAt ? colorOf(code) : coloredAt >= 0 ? theme.muted : constant,
        dash: p === dashAt ? dashOf(code) : p === coloredAt && dashAt < 0 ? ownDash(code) : dash,
        hatch: p === coloredAt ? hatchOf(code) : undefined,
        shape: p === shapeAt ? shapeOf(code) : undefined,
      })
    })
  })
  return found({ series, seriesOf: series.length > 1 ? seriesOf : undefined, entries, explained })
}

/** The column of texts whose codes tell series apart. */
function columnOf(
  { column, meaning, cells }: SeriesPart['values'],
  codes: readonly number[][],
): SeriesOfDrawing['by'] {
  return column && meaning.is === 'column' && cells.type === 'text'
    ? { column, codes: codes.map(([code]) => code) }
    : undefined
}

const nameOf = ({ values, coded }: SeriesPart, code: number, tongue: Tongue) =>
  code < 0
    ? tongue.say('No {what}', {
        what: values.column ? tongue.lower(values.column.label) : tongue.say('value'),
      })
    : coded.names[code]

function tooMany(
  { values, coded, roles }: SeriesPart,
  role: string,
  most: number,
  things: string,
  drawing: ResolvedDrawing,
): Finding[] {
  const count = usedCodes(coded).size
  if (count <= most || roles.includes('color')) return []
  return [
    {
      code: `too-many-${things}`,
      message: `${count} values of "${values.column?.name ?? role}" share ${most} ${things}, so some look alike`,
      remedy: `Keep the top ones, or bind color instead of ${role}.`,
      path: partPath(drawing.path, role),
    },
  ]
}

import type { Finding } from '../finding/error.ts'
import type { Resolved, ResolvedDrawing } from '../resolve/resolve.ts'
import type { Cells } from '../table/cells/cells.ts'
import { utc } from '../table/cells/zone.ts'
import { type RoleValues, type Shaped, type ShapeOptions, shape } from '../table/group/shape.ts'
import { rowsWhere } from '../table/group/where.ts'
import type { RowTest } from '../table/live/selection.ts'
import type { Table } from '../table/live/table.ts'
import type { Meaning } from '../table/phrase/meaning.ts'
import { isMeasure, wholeKey } from '../table/phrase/meaning.ts'
import type { Tongue } from '../words/tongue.ts'
import type { ShapedDrawing } from './model.ts'
import { labelOf } from './naming.ts'

/** Shapes every drawing of a chart. Drawings with the same table, phrases and conditions share the work. */
export function shapeAll(resolved: Resolved, tongue: Tongue, only?: RowFilter): ShapedDrawing[] {
  const known = new Map<string, Shaped>()
  const tables = [...new Set(resolved.drawings.map(drawing => drawing.table))]
  return resolved.drawings.map(drawing => {
    const { roles, wide, where, kind, level, top, table } = drawing
    const name = wholeKey([[...roles], wide, where, kind.name, level, top, tables.indexOf(table)])
    const shaped =
      known.get(name) ?? withConstants(drawing, withExtents(shapeOne(drawing, tongue, only?.(table)), tongue))
    known.set(name, shaped)
    return {
      drawing,
      shaped,
      findings: [...emptyFindings(drawing, shaped), ...unfilledFindings(drawing, shaped)],
    }
  })
}

/** Which rows of a table are drawn at all; undefined for all of them. */
export type RowFilter = (table: Table) => RowTest | undefined

/** The rows that pass a test, of these or of all. */
export function rowsPassing(
  table: Table,
  rows: Int32Array | undefined,
  test: RowTest | undefined,
): Int32Array | undefined {
  if (!test) return rows
  if (rows) return rows.filter(test)
  if (test.rows) return test.rows()
  const out = new Int32Array(table.length)
  let count = 0
  for (let row = 0; row < table.length; row++) if (test(row)) out[count++] = row
  return out.slice(0, count)
}

function shapeOne(drawing: ResolvedDrawing, tongue: Tongue, test: RowTest | undefined): Shaped {
  const { table, wide } = drawing
  const met = rowsWhere(table, drawing.where, drawing.path ? `${drawing.path}.where` : 'where')
  const rows = rowsPassing(table, met, test)
  const order = orderRole(drawing.roles)
  const top = topOf(drawing)
  const other = tongue.say('Other')
  const shareOf = drawing.kind.parts ? 'whole' : 'x'
  if (!wide) return shape(table, drawing.roles, { order, rows, top, other, shareOf })
  const roles = new Map(drawing.roles)
  roles.delete(wide.role)
  wide.meanings.forEach((meaning, i) => {
    roles.set(`${wide.role} ${i}`, meaning)
  })
  return unpivot(shape(table, roles, { order, rows, other }), wide.role, wide.meanings, drawing, tongue)
}

/** An extent's two ends become one role that has both. */
function withExtents(shaped: Shaped, tongue: Tongue): Shaped {
  for (const role of ['x', 'y']) {
    const end = shaped.roles.get(`${role} to`)
    const start = shaped.roles.get(role)
    if (!end || !start || end.cells.type === 'text' || start.cells.type === 'text') continue
    shaped.roles.set(role, {
      ...start,
      meaning: spanMeaning(start.meaning, end.meaning, shaped, tongue),
      ends: end.cells.values,
      spans: true,
    })
    shaped.roles.delete(`${role} to`)
  }
  return shaped
}

/** An extent of one column is called what the column is called. */
function spanMeaning(from: Meaning, to: Meaning, { table }: Shaped, tongue: Tongue): Meaning {
  const column = 'column' in from && 'column' in to && from.column === to.column ? from.column : undefined
  return column === undefined || from.label !== undefined
    ? from
    : { ...from, label: labelOf({ is: 'column', column }, table, tongue) }
}

/** Roles bound to a datum have it at every mark; a drawing of nothing but data of its own is one mark without rows. */
function withConstants(drawing: ResolvedDrawing, shaped: Shaped): Shaped {
  const constants = [...drawing.roles].filter(([, meaning]) => meaning.is === 'value')
  const alone = constants.length === drawing.roles.size
  if (constants.length === 0 && !alone) return shaped
  const length = alone ? 1 : shaped.length
  const roles = new Map(shaped.roles)
  for (const [role, meaning] of constants)
    if (!role.endsWith(' to')) roles.set(role, constantRole(meaning, length))
  for (const role of ['x', 'y']) {
    const end = drawing.roles.get(`${role} to`)
    const start = roles.get(role)
    if (!end || !start) continue
    const ends = end.is === 'value' ? constantRole(end, length) : roles.get(`${role} to`)
    roles.delete(`${role} to`)
    const numbers = (values: RoleValues | undefined) => (values?.cells.type === 'text' ? undefined : values)
    const [from, to] = [numbers(start), numbers(ends)]
    if (from && to) {
      const known = start.meaning.is === 'value' ? to : from
      roles.set(role, {
        ...known,
        cells: from.cells,
        ends: (to.cells as { values: Float64Array }).values,
        spans: true,
      })
    }
  }
  return {
    ...shaped,
    length,
    roles,
    rowsOf: alone ? () => [] : shaped.rowsOf,
    rowOf: alone ? undefined : shaped.rowOf,
    keyOf: alone ? () => `drawing ${drawing.index}` : shaped.keyOf,
  }
}

/** A datum as the values of a role. Texts that are times by ISO 8601 are times; the scale has the last word. */
function constantRole(meaning: Meaning, length: number): RoleValues {
  const value = meaning.is === 'value' ? meaning.value : ''
  const time =
    value instanceof Date
      ? value.getTime()
      : typeof value === 'string' && /^\d{4}-\d\d(-\d\d)?([T ]|$)/.test(value)
        ? Date.parse(value)
        : Number.NaN
  const cells: Cells =
    typeof value === 'number'
      ? { type: 'number', values: new Float64Array(length).fill(value) }
      : time === time
        ? { type: 'time', values: new Float64Array(length).fill(time) }
        : { type: 'text', codes: new Int32Array(length), words: [String(value)] }
  return { cells, meaning, column: undefined, zone: utc, ends: undefined }
}

/** `top` acts on the category position, else on colour. */
function topOf({ top, roles, table }: ResolvedDrawing): ShapeOptions['top'] {
  if (!top) return undefined
  const category = (role: string) => {
    const meaning = roles.get(role)
    return (
      meaning &&
      !isMeasure(meaning) &&
      (meaning.is === 'cycle' || (meaning.is === 'column' && table.column(meaning.column)?.type === 'text'))
    )
  }
  const role = ['x', 'y', 'color', 'series'].find(category)
  return role === undefined ? undefined : { role, ...top }
}

/** The role along which time runs: the position that is no measure. */
function orderRole(roles: ReadonlyMap<string, Meaning>): string {
  const x = roles.get('x')
  return x && isMeasure(x) ? 'y' : 'x'
}

/** Several measured columns become one, with a series for each: wide to long, after grouping. */
function unpivot(
  shaped: Shaped,
  role: string,
  meanings: Meaning[],
  drawing: ResolvedDrawing,
  tongue: Tongue,
): Shaped {
  const { length } = shaped
  const times = meanings.length
  const roles = new Map<string, RoleValues>()
  const repeat = (cells: Cells): Cells => {
    if (cells.type === 'text') {
      const codes = new Int32Array(length * times)
      for (let k = 0; k < times; k++) codes.set(cells.codes, k * length)
      return { type: 'text', codes, words: cells.words }
    }
    const values = new Float64Array(length * times)
    for (let k = 0; k < times; k++) values.set(cells.values, k * length)
    return { type: cells.type, values }
  }
  for (const [name, values] of shaped.roles) {
    if (name.startsWith(`${role} `)) continue
    roles.set(name, {
      ...values,
      cells: repeat(values.cells),
      ends:
        values.ends && (repeat({ type: 'number', values: values.ends }) as { values: Float64Array }).values,
    })
  }
  const parts = meanings.map((_, k) => shaped.roles.get(`${role} ${k}`)!)
  const joined = new Float64Array(length * times)
  parts.forEach((part, k) => {
    if (part.cells.type !== 'text') joined.set(part.cells.values, k * length)
  })
  roles.set(role, {
    ...parts[0],
    cells: { type: parts[0].cells.type === 'time' ? 'time' : 'number', values: joined },
    ends: undefined,
    meaning: { ...parts[0].meaning, label: '' },
  })
  const words = meanings.map(meaning => labelOf(meaning, drawing.table, tongue))
  const codes = Int32Array.from({ length: length * times }, (_, i) => Math.floor(i / length))
  roles.set('columns', {
    cells: { type: 'text', codes, words },
    meaning: { is: 'value', value: '' },
    column: undefined,
    zone: parts[0].zone,
    ends: undefined,
  })
  return {
    ...shaped,
    length: length * times,
    roles,
    rowsOf: mark => shaped.rowsOf(mark % length),
    rowOf: shaped.rowOf && (mark => shaped.rowOf!(mark % length)),
    keyOf: mark => `${words[Math.floor(mark / length)]}\u001f${shaped.keyOf(mark % length)}`,
  }
}

/** Buckets without rows that are not shown as zero, or as a gap, since there would be too many of them. */
function unfilledFindings(drawing: ResolvedDrawing, { unfilled = 0 }: Shaped): Finding[] {
  if (unfilled === 0) return []
  return [
    {
      code: 'empty-buckets',
      message: `${unfilled.toLocaleString('en')} intervals without rows are too many to be shown as empty, so what lies on both sides of them is joined`,
      remedy:
        'Use a longer interval, such as "month of" instead of "hour of", or choose a shorter time with where.',
      path: drawing.path || orderRole(drawing.roles),
    },
  ]
}

function emptyFindings(drawing: ResolvedDrawing, shaped: Shaped): Finding[] {
  if (shaped.length > 0 || drawing.level !== undefined) return []
  const rows = drawing.table.length
  return [
    {
      code: 'no-rows',
      message:
        rows === 0
          ? `There are no rows in ${drawing.table.title}`
          : `None of the ${rows.toLocaleString('en')} rows of ${drawing.table.title} meets the conditions`,
      remedy: rows === 0 ? 'Append rows, and the chart will show them.' : 'Widen the conditions in "where".',
      path: rows === 0 ? drawing.path : `${drawing.path ? `${drawing.path}.` : ''}where`,
    },
  ]
}

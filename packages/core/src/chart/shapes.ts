import type { Finding } from '../finding/error.ts'
import type { Cells } from '../table/cells.ts'
import type { Meaning } from '../table/meaning.ts'
import { isMeasure } from '../table/meaning.ts'
import { type RoleValues, type Shaped, type ShapeOptions, shape } from '../table/shape.ts'
import { rowsWhere } from '../table/where.ts'
import { labelOf } from './naming.ts'
import type { Resolved, ResolvedDrawing } from './resolve.ts'

/** One drawing's rows or groups, before scales and series. */
export interface ShapedDrawing {
  drawing: ResolvedDrawing
  shaped: Shaped
  findings: Finding[]
}

/** Shapes every drawing of a chart. Drawings with the same table, phrases and conditions share the work. */
export function shapeAll(resolved: Resolved): ShapedDrawing[] {
  const known = new Map<string, { table: unknown; shaped: Shaped }[]>()
  return resolved.drawings.map(drawing => {
    const name = JSON.stringify([
      [...drawing.roles],
      drawing.wide,
      drawing.where,
      drawing.kind.name,
      drawing.top,
    ])
    const same = known.get(name)?.find(one => one.table === drawing.table)
    const shaped = same?.shaped ?? shapeOne(drawing)
    if (!same) known.set(name, [...(known.get(name) ?? []), { table: drawing.table, shaped }])
    return { drawing, shaped, findings: emptyFindings(drawing, shaped) }
  })
}

function shapeOne(drawing: ResolvedDrawing): Shaped {
  const { table, wide } = drawing
  const rows = rowsWhere(table, drawing.where, drawing.path ? `${drawing.path}.where` : 'where')
  const order = orderRole(drawing.roles)
  const top = topOf(drawing)
  if (!wide) return shape(table, drawing.roles, { order, rows, top })
  const roles = new Map(drawing.roles)
  roles.delete(wide.role)
  wide.meanings.forEach((meaning, i) => {
    roles.set(`${wide.role} ${i}`, meaning)
  })
  return unpivot(shape(table, roles, { order, rows }), wide.role, wide.meanings, drawing)
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
function unpivot(shaped: Shaped, role: string, meanings: Meaning[], drawing: ResolvedDrawing): Shaped {
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
  const words = meanings.map(meaning => labelOf(meaning, drawing.table))
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
    keyOf: mark => `${words[Math.floor(mark / length)]}\u001f${shaped.keyOf(mark % length)}`,
  }
}

function emptyFindings(drawing: ResolvedDrawing, shaped: Shaped): Finding[] {
  if (shaped.length > 0) return []
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

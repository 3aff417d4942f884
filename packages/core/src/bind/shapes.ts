import type { Finding } from '../finding/error.ts'
import { partPath } from '../finding/part-path.ts'
import type { ResolvedDrawing } from '../resolve/model.ts'
import { type Cells, numbersOf } from '../table/cells/cells.ts'
import { utc } from '../table/cells/zone.ts'
import type { RoleValues, Shaped } from '../table/group/shape.ts'
import type { Meaning } from '../table/phrase/meaning.ts'
import type { Tongue } from '../words/tongue.ts'
import type { ShapedDrawing } from './model.ts'
import { labelOf } from './naming.ts'
import { type Asked, orderRole } from './questions.ts'
import { placed } from './shown.ts'
import { unpivot } from './unpivot.ts'

/** What drawings draw, from the answers to what they asked. */
export function shapesOf(asked: readonly Asked<Shaped>[], tongue: Tongue): ShapedDrawing[] {
  const known = new Map<string, ReturnType<typeof placed>>()
  return asked.map(({ drawing, key, answer }) => {
    const found = known.get(key) ?? placed(completed(drawing, answer, tongue), drawing)
    known.set(key, found)
    const shaped = found.value
    return {
      drawing,
      shaped,
      findings: [
        ...emptyFindings({ drawing, shaped }),
        ...found.findings,
        ...unfilledFindings(drawing, shaped),
        ...(shaped.findings ?? []).map(finding => ({ ...finding, path: finding.path || drawing.path })),
      ],
    }
  })
}

/** An answer with what the table was not asked: series of a wide table, extents, and data of the description's own. */
function completed(drawing: ResolvedDrawing, answer: Shaped, tongue: Tongue): Shaped {
  const { wide } = drawing
  const long = wide ? unpivot(answer, wide.role, wide.meanings, drawing, tongue) : answer
  return withConstants(drawing, withExtents(long, tongue))
}

/** An extent's two ends become one role that has both. */
function withExtents(shaped: Shaped, tongue: Tongue): Shaped {
  const roles = new Map(shaped.roles)
  for (const role of ['x', 'y']) {
    const end = roles.get(`${role} to`)
    const start = roles.get(role)
    if (!end || !start || end.cells.type === 'text' || start.cells.type === 'text') continue
    roles.set(role, {
      ...start,
      meaning: spanMeaning(start.meaning, end.meaning, shaped, tongue),
      ends: end.cells.values,
      spans: true,
    })
    roles.delete(`${role} to`)
  }
  return { ...shaped, roles }
}

/** An extent of one column is called what the column is called, one between two after both. */
function spanMeaning(from: Meaning, to: Meaning, { table }: Shaped, tongue: Tongue): Meaning {
  const column = 'column' in from && 'column' in to && from.column === to.column ? from.column : undefined
  if (column !== undefined)
    return from.label === undefined
      ? { ...from, label: labelOf({ is: 'column', column }, table, tongue) }
      : from
  return { ...from, label: `${labelOf(from, table, tongue)} – ${labelOf(to, table, tongue)}` }
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
        ends: numbersOf(to.cells),
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

function emptyFindings({ drawing, shaped }: Pick<ShapedDrawing, 'drawing' | 'shaped'>): Finding[] {
  const { table, path } = drawing
  if (shaped.length > 0 || drawing.level !== undefined || shaped.unanswered === 'failed') return []
  if (shaped.unanswered)
    return [
      {
        code: 'on-its-way',
        message: `The values of ${table.title} are on their way`,
        remedy: 'Wait for them before the picture is kept: a chart on a page shows them when they are here.',
        path,
      },
    ]
  const rows = table.length
  return [
    {
      code: 'no-rows',
      message:
        rows === 0
          ? `There are no rows in ${table.title}`
          : `None of the ${rows.toLocaleString('en')} rows of ${table.title} meets the conditions`,
      remedy: rows === 0 ? 'Append rows, and the chart will show them.' : 'Widen the conditions in "where".',
      path: rows === 0 ? path : partPath(path, 'where'),
    },
  ]
}

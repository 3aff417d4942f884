import type { Finding } from '../finding/error.ts'
import { quoted } from '../finding/plain-text.ts'
import type { ResolvedDrawing } from '../resolve/model.ts'
import { type Cells, pickCells } from '../table/cells/cells.ts'
import { answeredElsewhere } from '../table/group/question.ts'
import type { Crowd, RoleValues, Shaped } from '../table/group/shape.ts'
import { isMeasure } from '../table/phrase/meaning.ts'
import type { ScaledPart } from './model.ts'
import { unbound } from './scaling.ts'

/** The marks of the series that are not hidden; undefined where none is. */
export function shownMarks(
  seriesOf: Uint16Array | undefined,
  hides: readonly boolean[],
  length: number,
): Int32Array | undefined {
  if (!hides.includes(true)) return undefined
  const shown: number[] = []
  for (let mark = 0; mark < length; mark++) if (!hides[seriesOf ? seriesOf[mark] : 0]) shown.push(mark)
  return Int32Array.from(shown)
}

function onlyPlaces(crowd: Crowd, shown: Int32Array): Crowd {
  const { rows, spreads } = crowd
  return {
    ...crowd,
    rows: Float64Array.from(shown, mark => rows[mark]),
    ...(spreads ? { spreads: Float64Array.from(shown, mark => spreads[mark]) } : {}),
  }
}

const pick = (values: RoleValues, shown: Int32Array): RoleValues =>
  values === unbound
    ? values
    : {
        ...values,
        cells: pickCells(values.cells, shown),
        ends: values.ends && Float64Array.from(shown, mark => values.ends![mark]),
      }

/** Only these marks of an answer. */
export const pickMarks = (shaped: Shaped, shown: Int32Array): Shaped => ({
  ...shaped,
  length: shown.length,
  roles: new Map([...shaped.roles].map(([role, values]) => [role, pick(values, shown)])),
  rowsOf: mark => shaped.rowsOf(shown[mark]),
  runs: undefined,
  memory: undefined,
  ...(shaped.crowd ? { crowd: onlyPlaces(shaped.crowd, shown) } : {}),
  rowOf: shaped.rowOf && (mark => shaped.rowOf!(shown[mark])),
  keyOf: mark => shaped.keyOf(shown[mark]),
})

/** A drawing with only these marks, so that every value of a mark is found under its own number. */
export const onlyShown = (part: ScaledPart, shown: Int32Array): ScaledPart => ({
  ...part,
  shaped: pickMarks(part.shaped, shown),
  x: pick(part.x, shown),
  y: pick(part.y, shown),
})

const lacks = (cells: Cells, mark: number): boolean =>
  cells.type === 'text' ? cells.codes[mark] < 0 : Number.isNaN(cells.values[mark])

/** The positions by which rows are grouped: a group without one of them stands nowhere. */
const groupedBy = ({ grouped, roles }: Shaped): [role: string, values: RoleValues][] =>
  grouped
    ? [...roles].filter(
        ([role, { meaning }]) =>
          (role === 'x' || role === 'y') && !isMeasure(meaning) && meaning.is !== 'value',
      )
    : []

/**
 * Only the groups that have a place: what is not drawn must not stretch a scale either, or darken a colour. Whose rows are
 * left out is told.
 */
export function placed(shaped: Shaped, drawing: ResolvedDrawing): { value: Shaped; findings: Finding[] } {
  const by = groupedBy(shaped)
  // Rows as they are, and groups that all have a place, are passed on untouched.
  if (by.length === 0) return { value: shaped, findings: [] }
  const elsewhere = answeredElsewhere(shaped.table)
  const own: number[] = []
  const left = new Map<string, number>()
  for (let mark = 0; mark < shaped.length; mark++) {
    const lacking = by.find(([, { cells }]) => lacks(cells, mark))
    if (!lacking) own.push(mark)
    // How many rows a group elsewhere stands for is not known here.
    else left.set(lacking[0], (left.get(lacking[0]) ?? 0) + (elsewhere ? 0 : shaped.rowsOf(mark).length))
  }
  if (left.size === 0) return { value: shaped, findings: [] }
  // Where none has a place there is nothing to see, which is told already.
  if (own.length === 0) return { value: pickMarks(shaped, new Int32Array(0)), findings: [] }
  const findings = [...left].map(([role, count]): Finding => {
    const { column } = shaped.roles.get(role)!
    const name = quoted(column?.name ?? role)
    const rows =
      count === 1 ? 'One row has' : count > 1 ? `${count.toLocaleString('en')} rows have` : 'Some rows have'
    return {
      code: 'without-place',
      message: `${rows} no ${name}, so ${count === 1 ? 'it is' : 'they are'} not in the picture`,
      remedy: `Fill ${name} in, or leave those rows out on purpose: where: { ${name}: { not: null } }.`,
      path: drawing.path ? `${drawing.path}.${role}` : role,
    }
  })
  return { value: pickMarks(shaped, Int32Array.from(own)), findings }
}

import type { ResolvedDrawing } from '../resolve/model.ts'
import { type Cells, numbersOf } from '../table/cells/cells.ts'
import type { RoleValues, Shaped } from '../table/group/shape.ts'
import type { Meaning } from '../table/phrase/meaning.ts'
import type { Tongue } from '../words/tongue.ts'
import { labelOf } from './naming.ts'

/** Several measured columns become one, with a series for each: wide to long, after grouping. */
export function unpivot(
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
      ends: values.ends && numbersOf(repeat({ type: 'number', values: values.ends })),
    })
  }
  const parts = meanings.map((_, k) => shaped.roles.get(`${role} ${k}`)!)
  const joined = new Float64Array(length * times)
  parts.forEach((values, k) => {
    if (values.cells.type !== 'text') joined.set(values.cells.values, k * length)
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
    runs: undefined,
    rowOf: shaped.rowOf && (mark => shaped.rowOf!(mark % length)),
    keyOf: mark => `${words[Math.floor(mark / length)]}\u001f${shaped.keyOf(mark % length)}`,
  }
}

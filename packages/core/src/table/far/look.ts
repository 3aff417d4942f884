import type { ColumnLook, TableLook } from '../reshape/look.ts'
import { addMissing } from '../reshape/look.ts'
import { has } from './conditions.ts'
import type { FarColumn } from './far-column.ts'
import type { FarTable } from './far-table.ts'
import type { FarMeasure, FarValue } from './model.ts'

/** So many of a text's commonest values are shown. */
const COMMONEST = 5

/** What is in a far table: each column is described by what its engine says of all rows. */
export async function lookFar(table: FarTable): Promise<TableLook> {
  const columns = table.names.map(name => table.column(name) as FarColumn)
  const measures = columns.map((column): FarMeasure[] => {
    const of: FarValue = { is: 'column', column: column.name, as: column.as }
    const both: FarMeasure[] = [
      { how: 'present', of },
      { how: 'distinct', of },
    ]
    if (column.type === 'text') return both
    return [...both, { how: 'min', of }, { how: 'max', of }, { how: 'mean', of }]
  })
  const { answer } = table.engine.ask({
    ask: 'groups',
    table: table.farName,
    by: [],
    measures: measures.flat(),
    most: 1,
  })
  const values = (await answer).columns.map(values => Number(values[0]))
  const found = measures.map(({ length }) => values.splice(0, length))
  const looks = columns.map(async (column, i): Promise<ColumnLook> => {
    const [present, distinct, min, max, mean] = found[i]
    const missing = table.length - present
    const odd: string[] = []
    const base = {
      name: column.name,
      type: column.type,
      guess: 'given',
      unreadable: 0,
      missing,
      distinct,
      odd,
    }
    if (present === 0) odd.push('there is no value at all')
    else if (distinct === 1 && present > 1) odd.push('every value is the same')
    if (present > 0) addMissing(odd, missing, table.length)
    if (column.type === 'text') return { ...base, commonest: await commonest(table, column) }
    if (present === 0) return base
    if (column.type === 'number') return { ...base, min, max, mean }
    const write = (time: number) => new Date(time).toISOString().slice(0, column.dateUnit && 10)
    return { ...base, min: write(min), max: write(max) }
  })
  return { name: table.name, rows: table.length, columns: await Promise.all(looks) }
}

async function commonest(table: FarTable, column: FarColumn): Promise<[string, number][]> {
  const value: FarValue = { is: 'column', column: column.name, as: column.as }
  const { answer } = table.engine.ask({
    ask: 'groups',
    table: table.farName,
    where: has(value),
    by: [value],
    measures: [{ how: 'count' }],
    most: COMMONEST,
    largest: COMMONEST,
  })
  const { columns, length } = await answer
  return Array.from({ length }, (_, i) => [String(columns[0][i]), Number(columns[1][i])])
}

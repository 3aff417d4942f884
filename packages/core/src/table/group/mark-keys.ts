import type { Cells } from '../cells/cells.ts'
import type { Table } from '../live/table.ts'

/** By what rows are known again among other rows: the values of columns, or what they have in roles. */
export type Identity = { columns: readonly string[] } | { roles: readonly string[] }

/** The identities of rows, in words; several rows of one are numbered. */
export function namesOf(
  table: Table,
  identity: Identity,
  roles: ReadonlyMap<string, { cells: Cells }>,
  rowOf: (mark: number) => number,
  length: number,
): (mark: number) => string {
  const words =
    'roles' in identity
      ? identity.roles.map(role => wordIn(roles.get(role)!.cells))
      : identity.columns.map(name => {
          const word = wordIn(table.needColumn(name, '').cells)
          return (mark: number) => word(rowOf(mark))
        })
  let names: string[] | undefined
  return mark => {
    if (!names) {
      const known = new Map<string, number>()
      names = Array.from({ length }, (_, mark) => {
        const name = joined(words, mark)
        const before = known.get(name) ?? 0
        known.set(name, before + 1)
        return before === 0 ? name : `${name}\u001f${before + 1}`
      })
    }
    return names[mark]
  }
}

/** The value of each mark or row, as it is written in a key. */
export function wordIn(cells: Cells): (at: number) => string {
  if (cells.type === 'text') return at => cells.words[cells.codes[at]] ?? ''
  // Writing a number takes long, and equal ones mostly follow each other.
  let last = 0
  let word = '0'
  return at => {
    const value = cells.values[at]
    if (value !== last) {
      last = value
      word = String(value)
    }
    return word
  }
}

/** The words of a mark, as one key. */
export function joined(words: readonly ((at: number) => string)[], at: number): string {
  let key = words.length > 0 ? words[0](at) : ''
  for (let i = 1; i < words.length; i++) key += `\u001f${words[i](at)}`
  return key
}

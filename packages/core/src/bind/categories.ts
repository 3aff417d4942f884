import type { Order, Scale } from '../describe/description.ts'
import type { RoleValues } from '../table/group/shape.ts'
import { isRest } from '../table/group/top.ts'

/** The categories of a scale in order: as told, else the calendar's for cycles, else that of first appearance. */
export function categoriesOf(
  uses: { values: RoleValues; measured: RoleValues }[],
  options: Scale | undefined,
  wished?: Order,
): string[] {
  if (options?.domain && options.kind !== 'linear')
    return options.domain.filter(value => value !== null).map(String)
  const words: string[] = []
  const known = new Set<string>()
  const add = (word: string) => {
    if (!known.has(word)) {
      known.add(word)
      words.push(word)
    }
  }
  let cycle = false
  let numeric = false
  for (const { values } of uses) {
    const { cells } = values
    if (cells.type !== 'text') {
      numeric = true
      for (const value of new Set(cells.values)) if (value === value) add(String(value))
      continue
    }
    const present = new Uint8Array(cells.words.length)
    for (const code of cells.codes) if (code >= 0) present[code] = 1
    if (values.meaning.is === 'cycle') cycle = true
    if (values.meaning.is === 'cycle' && !values.some) {
      // A gap inside a cycle is part of the picture: from the first hour to the last, none is left out.
      for (let code = present.indexOf(1); code >= 0 && code <= present.lastIndexOf(1); code++)
        add(cells.words[code])
    } else if (values.column?.options.order) {
      for (let code = 0; code < present.length; code++) if (present[code]) add(cells.words[code])
    } else for (const code of cells.codes) if (code >= 0) add(cells.words[code])
  }
  if (cycle || numeric) words.sort((a, b) => placeOf(a) - placeOf(b))
  const order = options?.order ?? wished
  if (order === 'name') words.sort((a, b) => a.localeCompare(b))
  if (order === 'ranked') {
    const totals = totalsOf(uses)
    words.sort((a, b) => (totals.get(b) ?? 0) - (totals.get(a) ?? 0))
  }
  // The rest comes last, however large it is.
  words.sort((a, b) => Number(isRest(a)) - Number(isRest(b)))
  return words
}

/** The rest is no number; it comes last. */
const placeOf = (word: string) => (isRest(word) ? Number.MAX_VALUE : Number(word))

function totalsOf(uses: { values: RoleValues; measured: RoleValues }[]): Map<string, number> {
  const totals = new Map<string, number>()
  for (const { values, measured } of uses) {
    if (measured.cells.type === 'text') continue
    const { cells } = values
    for (let i = 0; i < measured.cells.values.length; i++) {
      const word = cells.type === 'text' ? cells.words[cells.codes[i]] : String(cells.values[i])
      if (word !== undefined) totals.set(word, (totals.get(word) ?? 0) + (measured.cells.values[i] || 0))
    }
  }
  return totals
}

import type { Order, Scale } from '../describe/description.ts'
import { joined, wordIn } from '../table/group/mark-keys.ts'
import type { RoleValues } from '../table/group/shape.ts'
import { isRest } from '../table/group/top.ts'
import { runningTotal } from '../table/group/window.ts'
import { isMeasure, meaningKey } from '../table/phrase/meaning.ts'
import type { ScaledPart, ScaleInput } from './model.ts'

interface Use {
  values: RoleValues
  measured: RoleValues
}

/**
 * The categories of a scale in order: as told, else the calendar's for cycles, else that of first appearance. They are ranked
 * by what the first drawing measures; where that leaves them equal, or does not have them, by the next.
 */
export function categoriesOf(uses: Use[], options: Scale | undefined, wished?: Order): string[] {
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
    const totals = uses.map(totalsOf)
    words.sort((a, b) => {
      for (const own of totals) {
        const apart = (own.get(b) ?? 0) - (own.get(a) ?? 0)
        if (apart !== 0) return apart
      }
      return 0
    })
  }
  // The rest comes last, however large it is.
  words.sort((a, b) => Number(isRest(a)) - Number(isRest(b)))
  return words
}

/** The rest is no number; it comes last. */
const placeOf = (word: string) => (isRest(word) ? Number.MAX_VALUE : Number(word))

/** What a drawing measures at each category, all series together. */
function totalsOf({ values, measured }: Use): Map<string, number> {
  const totals = new Map<string, number>()
  if (measured.cells.type === 'text') return totals
  const { cells } = values
  const amounts = measured.steps ?? measured.cells.values
  for (let i = 0; i < amounts.length; i++) {
    const word = cells.type === 'text' ? cells.words[cells.codes[i]] : String(cells.values[i])
    if (word !== undefined) totals.set(word, (totals.get(word) ?? 0) + (amounts[i] || 0))
  }
  return totals
}

/**
 * Adds running totals up in the order in which their categories stand, which is known only here: tables know no more than
 * in which order categories came.
 */
export function runAlongCategories(part: ScaledPart): void {
  for (const [role, along] of [
    ['y', 'x'],
    ['x', 'y'],
  ] as const) {
    const values = part[role]
    const input = along === 'x' ? part.xInput : part.yInput
    if (!values.steps || !input || input.words.length === 0) continue
    const total = addedUp(part, values, part[along], input)
    part[role] = total
    part.shaped = { ...part.shaped, roles: new Map(part.shaped.roles).set(role, total) }
  }
}

function addedUp(
  { shaped }: ScaledPart,
  values: RoleValues,
  along: RoleValues,
  input: ScaleInput,
): RoleValues {
  const places = new Map(input.words.map((word, i) => [word, i]))
  const wordOf = wordIn(along.cells)
  // What the list of a scale does not have is not drawn, and comes last.
  const order = Float64Array.from(values.steps!, (_, mark) => places.get(wordOf(mark)) ?? places.size)
  const others = [...shaped.roles.values()]
    .filter(({ meaning }) => !isMeasure(meaning) && meaningKey(meaning) !== meaningKey(along.meaning))
    .map(({ cells }) => wordIn(cells))
  const series = new Map<string, number[]>()
  for (let mark = 0; mark < shaped.length; mark++) {
    const name = joined(others, mark)
    const members = series.get(name)
    if (members) members.push(mark)
    else series.set(name, [mark])
  }
  const out = new Float64Array(shaped.length)
  for (const members of series.values()) runningTotal(members, values.steps!, out, order)
  return { ...values, cells: { type: 'number', values: out } }
}

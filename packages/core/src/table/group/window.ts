import { DapploError } from '../../finding/error.ts'
import { Total, totalOf } from '../cells/total.ts'
import type { Table } from '../live/table.ts'
import { type Meaning, wordsOf } from '../phrase/meaning.ts'
import type { Encoded } from './encoded.ts'
import type { Groups } from './group.ts'

export interface GroupContext {
  table: Table
  groups: Groups
  /** Codes of all groups, with those that were filled in at the end. */
  filled: { codes: Int32Array[]; count: number }
  encodings: Encoded[]
  encodingOf(meaning: Meaning): number | undefined
  /** The encoding along which "so far" runs. */
  order: number | undefined
  shareOf: 'x' | 'whole'
}

/** Whether values add up along the order of marks. */
export const isRunning = (meaning: Meaning): boolean =>
  meaning.is === 'window' && (meaning.how === 'sum so far' || meaning.how === 'count so far')

/** Works out shares, ranks and running totals over groups that are already measured. */
export function windowed(
  meaning: Meaning & { is: 'window' },
  values: Float64Array,
  context: GroupContext,
): Float64Array {
  const { filled, order, encodings } = context
  const all = encodings.map((_, i) => i)
  const runs = isRunning(meaning)
  let within: number[]
  if (meaning.within.length > 0) {
    within = meaning.within.map(group => {
      const at = context.encodingOf(group)
      if (at === undefined) {
        throw new DapploError(
          'unknown-phrase',
          `"within" names "${wordsOf(group)}", which no role is bound to`,
          'within',
          'Bind it to a role, such as color, or leave it out.',
        )
      }
      return at
    })
    // Within months, a running total still runs along x: the part named restarts it, it does not stop it.
    if (runs) within = [...new Set([...within, ...all.filter(at => at !== order)])]
  } else if (runs) within = all.filter(at => at !== order)
  else
    within =
      meaning.how === 'share' && context.shareOf === 'x' && order !== undefined && all.length > 1
        ? [order]
        : []

  const parts = new Map<string, number[]>()
  for (let group = 0; group < filled.count; group++) {
    const name = within.map(at => filled.codes[at][group]).join(',')
    const members = parts.get(name)
    if (members) members.push(group)
    else parts.set(name, [group])
  }
  const out = new Float64Array(filled.count).fill(Number.NaN)
  // Worked out once: there may be thousands of series.
  const cells = runs && order !== undefined ? encodings[order].cellsOf(filled.codes[order]) : undefined
  const along = cells && (cells.type === 'text' ? cells.codes : cells.values)
  for (const members of parts.values()) {
    if (runs) runningTotal(members, values, out, along)
    else if (meaning.how === 'share') shares(members, values, out)
    else ranks(members, values, out)
  }
  return out
}

function shares(members: number[], values: Float64Array, out: Float64Array): void {
  const total = totalOf(members.map(group => values[group]))
  for (const group of members) out[group] = total === 0 ? Number.NaN : values[group] / total
}

/** 1 is the greatest; equal values share the better rank. */
function ranks(members: number[], values: Float64Array, out: Float64Array): void {
  const sorted = members.filter(group => !Number.isNaN(values[group])).sort((a, b) => values[b] - values[a])
  sorted.forEach((group, i) => {
    out[group] = i > 0 && values[group] === values[sorted[i - 1]] ? out[sorted[i - 1]] : i + 1
  })
}

/** Adds up what each of these groups has, in their order `along`, from the first on. */
export function runningTotal(
  members: number[],
  values: Float64Array,
  out: Float64Array,
  along: ArrayLike<number> | undefined,
): void {
  if (along) members.sort((a, b) => along[a] - along[b])
  const total = new Total()
  for (const group of members) {
    total.add(values[group] || 0)
    out[group] = total.value
  }
}

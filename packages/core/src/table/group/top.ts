import { DapploError } from '../../finding/error.ts'
import type { Encoded } from './encoded.ts'

/** An invisible mark at the end of the name of what `top` leaves out, so that no real value is ever taken for it. */
const REST_MARK = '\u2060'

/** The name of the rest, as a category. */
export const restName = (rest: boolean | string): string =>
  `${typeof rest === 'string' ? rest : 'Other'}${REST_MARK}`

/** Whether a category gathers what `top` left out. */
export const isRest = (word: string): boolean => word.endsWith(REST_MARK)

/**
 * The same encoding with only its best codes, judged by `values` (one per code). Others become one category after all
 * the rest, or, without a name for it, -2: rows to be left out.
 */
export function keepTop(
  encoded: Encoded,
  values: Float64Array,
  top: number,
  rest: boolean | string | undefined,
): Encoded {
  const order = Array.from(values, (_, code) => code)
    .filter(code => !Number.isNaN(values[code]))
    .sort((a, b) => values[b] - values[a])
  const best = new Uint8Array(encoded.size)
  for (const code of order.slice(0, Math.max(0, Math.floor(top)))) best[code] = 1
  const gathers = rest !== undefined && rest !== false
  if (gathers && encoded.cellsOf(new Int32Array(0)).type !== 'text')
    throw new DapploError(
      'bad-option',
      'Numbers and times have no place for the rest of them',
      'rest',
      'Leave rest out, or keep the top ones of a text column.',
    )
  const other = gathers ? encoded.size : -2
  const codes = encoded.codes.map(code => (code < 0 || best[code] ? code : other))
  return {
    codes,
    size: encoded.size + (gathers ? 1 : 0),
    some: true,
    endOf: encoded.endOf,
    cellsOf(picked) {
      const cells = encoded.cellsOf(picked.map(code => (code >= encoded.size ? -1 : code)))
      if (cells.type !== 'text') return cells
      // Words are asked for by code, so the rest stands at the code after the last.
      const words = [...cells.words.slice(0, encoded.size), ...(gathers ? [restName(rest)] : [])]
      return { type: 'text', codes: picked, words }
    },
  }
}

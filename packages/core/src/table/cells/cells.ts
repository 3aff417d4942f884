/** Numbers, and times as milliseconds since 1970 in UTC. `NaN` is a missing value. */
export interface NumberCells {
  type: 'number' | 'time'
  values: Float64Array
}

/** Dictionary-coded text: `codes[row]` points into `words`; -1 is a missing value. Words stand in order of first appearance. */
export interface TextCells {
  type: 'text'
  codes: Int32Array
  words: string[]
}

export type Cells = NumberCells | TextCells

const NO_NUMBERS = new Float64Array(0)

/** The numbers of cells; none of texts. */
export const numbersOf = (cells: Cells): Float64Array => (cells.type === 'text' ? NO_NUMBERS : cells.values)

/** Collects words and hands out their codes in order of first appearance. */
export class Dictionary {
  readonly words: string[]
  private readonly codes = new Map<string, number>()

  constructor(words: string[] = []) {
    this.words = words
    words.forEach((word, code) => {
      this.codes.set(word, code)
    })
  }

  code(word: string): number {
    let code = this.codes.get(word)
    if (code === undefined) {
      code = this.words.push(word) - 1
      this.codes.set(word, code)
    }
    return code
  }

  find(word: string): number {
    return this.codes.get(word) ?? -1
  }
}

/** A view on the first `length` cells; shares memory. */
export const firstCells = (cells: Cells, length: number): Cells =>
  cells.type === 'text'
    ? { type: 'text', codes: cells.codes.subarray(0, length), words: cells.words }
    : { type: cells.type, values: cells.values.subarray(0, length) }

/** The values of some rows, in a loop: a function for each of them would take several times as long. */
export function picked<T extends Float64Array | Float32Array | Int32Array | Uint16Array | Uint8Array>(
  values: T,
  rows: ArrayLike<number>,
  out: T,
): T {
  for (let i = 0; i < rows.length; i++) out[i] = values[rows[i]]
  return out
}

/** The cells of the given rows, in that order. */
export function pickCells(cells: Cells, rows: ArrayLike<number>): Cells {
  return cells.type === 'text'
    ? { type: 'text', codes: picked(cells.codes, rows, new Int32Array(rows.length)), words: cells.words }
    : { type: cells.type, values: picked(cells.values, rows, new Float64Array(rows.length)) }
}

/** Puts one cell in the place of another. */
export function copyCell(cells: Cells, from: number, to: number): void {
  if (cells.type === 'text') cells.codes[to] = cells.codes[from]
  else cells.values[to] = cells.values[from]
}

/** A cell as text that identifies it; empty where it is missing. */
export function cellText(cells: Cells, row: number): string {
  if (cells.type === 'text') return cells.words[cells.codes[row]] ?? ''
  const value = cells.values[row]
  if (Number.isNaN(value)) return ''
  return cells.type === 'time' ? new Date(value).toISOString() : String(value)
}

export function isMissing(cells: Cells, row: number): boolean {
  return cells.type === 'text' ? cells.codes[row] < 0 : Number.isNaN(cells.values[row])
}

import type { DuckDBDataChunk } from '@duckdb/node-api'

/** Numbers as they lie in a chunk of an answer: the driver has them, and gives them out one by one. */
interface Vector {
  items?: unknown
  validity?: { itemValid?(item: number): boolean }
}
type Numbers = Float64Array | Float32Array | Int32Array | Int16Array | Int8Array

const isNumbers = (items: unknown): items is Numbers =>
  items instanceof Float64Array ||
  items instanceof Float32Array ||
  items instanceof Int32Array ||
  items instanceof Int16Array ||
  items instanceof Int8Array

/** The values of a column: numbers as they lie there where none is missing, which spares making each of them a value. */
export function valuesOf(chunk: DuckDBDataChunk, column: number): ArrayLike<unknown> {
  const { rowCount } = chunk
  const { items, validity } = chunk.getColumnVector(column) as unknown as Vector
  if (isNumbers(items) && items.length >= rowCount && typeof validity?.itemValid === 'function') {
    let whole = true
    for (let i = 0; whole && i < rowCount; i++) whole = validity.itemValid(i)
    // The chunk's memory is used again.
    if (whole) return items.slice(0, rowCount)
  }
  return chunk.getColumnValues(column)
}

/** All chunks of a column as one. */
export function joined(parts: readonly ArrayLike<unknown>[], length: number): ArrayLike<unknown> {
  if (parts.length > 0 && parts.every(isNumbers)) {
    const out = new Float64Array(length)
    let at = 0
    for (const part of parts) {
      out.set(part as Numbers, at)
      at += part.length
    }
    return out
  }
  const out: unknown[] = []
  for (const part of parts) for (let i = 0; i < part.length; i++) out.push(part[i])
  return out
}

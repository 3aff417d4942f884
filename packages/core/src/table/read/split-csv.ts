import { atOnce } from './at-once.ts'
import { withoutMark } from './byte-order-mark.ts'
import { type CsvCells, type CsvOptions, plainCells, separatorOf } from './csv.ts'
import { quotedCells } from './quoted-csv.ts'

/**
 * Splits CSV text (RFC 4180; a leading byte-order mark is skipped) into columns of texts; `inParts`: part by part. Throws
 * `empty-data`, `ragged-row` and `unclosed-quote`.
 */
export function splitCsv(text: string, options: CsvOptions & { inParts?: boolean } = {}): CsvCells {
  const bare = withoutMark(text)
  const told = { ...options, separator: options.separator ?? separatorOf(bare) }
  const plain = options.inParts ? plainCells(bare, told) : undefined
  if (plain) return plain
  const cells = atOnce(quotedCells(bare, told))
  if (options.inParts) return cells
  const columns = cells.names.map((): string[] => [])
  for (const part of cells.parts!.parts())
    part.columns.forEach((own, c) => {
      for (const cell of own) columns[c].push(cell)
    })
  return { names: cells.names, columns, lineOf: cells.lineOf }
}

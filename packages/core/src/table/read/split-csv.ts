import { type CsvCells, type CsvOptions, plainCells, separatorOf } from './csv.ts'
import { quotedCells } from './quoted-csv.ts'

/**
 * Splits CSV text (RFC 4180; a leading byte-order mark is skipped) into columns of texts; `inParts`: part by part. Throws
 * `empty-data`, `ragged-row` and `unclosed-quote`.
 */
export function splitCsv(text: string, options: CsvOptions & { inParts?: boolean } = {}): CsvCells {
  const bare = text.charCodeAt(0) === 0xfeff ? text.slice(1) : text
  const told = { ...options, separator: options.separator ?? separatorOf(bare) }
  const plain = options.inParts ? plainCells(bare, told) : undefined
  if (plain) return plain
  const work = quotedCells(bare, told)
  let step = work.next()
  while (!step.done) step = work.next()
  const cells = step.value
  if (options.inParts) return cells
  const columns = cells.names.map((): string[] => [])
  for (const part of cells.parts!.parts())
    part.columns.forEach((own, c) => {
      for (const cell of own) columns[c].push(cell)
    })
  return { names: cells.names, columns, lineOf: cells.lineOf }
}

import { inferSchema, initParser } from 'udsv'

/** Rows of text that need none of CSV's rules but its separators: how tables are written by most programs. */
export interface PlainCsv {
  header: string[]
  columns: string[][]
}

/**
 * Splits CSV without quotes and with as many cells in each line, by a parser that is several times as quick but takes both
 * for granted; undefined where that is not so, and another has to look what is wrong.
 */
export function splitPlain(text: string, separator: string): PlainCsv | undefined {
  const lineEnd = text.includes('\r') ? '\r\n' : '\n'
  if (separator.length !== 1 || !isPlain(text, separator, lineEnd === '\r\n')) return undefined
  const headerEnd = text.indexOf('\n')
  const header = text.slice(0, headerEnd - (lineEnd.length - 1)).split(separator)
  const schema = inferSchema(text.slice(0, headerEnd + 1), { col: separator, row: lineEnd, encl: '' })
  return { header, columns: initParser(schema).stringCols(text) }
}

/** Whether all lines have as many cells as the first, at least two, and end alike, and there is no quote. */
function isPlain(text: string, separator: string, returns: boolean): boolean {
  const { length } = text
  const first = text.indexOf('\n')
  // A header alone has no rows to be quick about.
  if (first < 0 || first === length - 1 || text.includes('"')) return false
  if (returns && !allReturn(text)) return false
  let width = 0
  let next = text.indexOf(separator)
  for (let start = 0; start < length; ) {
    const found = text.indexOf('\n', start)
    const end = found < 0 ? length : found
    let cells = 1
    for (; next >= 0 && next < end; next = text.indexOf(separator, next + 1)) cells++
    if (width === 0) width = cells
    if (cells !== width || cells < 2) return false
    start = end + 1
  }
  return true
}

/** Whether every line but the last, which may end with the text, ends with a return, and none has another. */
function allReturn(text: string): boolean {
  let at = -1
  for (;;) {
    const found = text.indexOf('\r', at + 1)
    const end = text.indexOf('\n', at + 1)
    if (found < 0) return end < 0
    if (end !== found + 1) return false
    at = end
  }
}

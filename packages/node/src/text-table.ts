import { plainText } from '@dapplo/core/internal'
import stringWidth from 'string-width'

/** Lines of a table in letters of one width: columns as wide as their widest text, numbers by their ends. */
export function textTable(
  head: readonly string[],
  rows: readonly (readonly string[])[],
  numbers: readonly boolean[],
): string[] {
  const cells = [head, ...rows].map(row => row.map(text => plainText(text.replace(/\s+/g, ' '))))
  const widths = head.map((_, i) => Math.max(...cells.map(row => stringWidth(row[i] ?? ''))))
  const lines = cells.map(row =>
    row
      .map((text, i) => {
        const room = ' '.repeat(widths[i] - stringWidth(text))
        return numbers[i] ? room + text : text + room
      })
      .join('  ')
      .trimEnd(),
  )
  return [lines[0], widths.map(width => '-'.repeat(width)).join('  '), ...lines.slice(1)]
}

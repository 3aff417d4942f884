import type { DataTable } from '@dapplo/core/internal'
import type { Theme, Tongue } from '@dapplo/core/small'
import { element } from '../live/elements.ts'

/** Tables as a page has them, in the ink of a theme. */
export function tableElements(
  { caption, head, rows, numbers, more }: DataTable,
  theme: Theme,
  tongue: Tongue,
): HTMLElement[] {
  const table = element('table', '', {
    font: `${theme.sizes.subtitle}px ${theme.font}`,
    color: theme.text,
    borderCollapse: 'collapse',
    fontVariantNumeric: 'tabular-nums',
    marginTop: '8px',
  })
  const edge = `1px solid ${theme.hairline}`
  table.append(element('caption', caption, { textAlign: 'start', color: theme.muted, padding: '4px 0' }))
  const side = (i: number) => (numbers[i] ? 'end' : 'start')
  const titles = element('tr', '', {})
  for (const [i, name] of head.entries()) {
    const cell = element('th', name, { textAlign: side(i), padding: '4px 14px 4px 0', borderBottom: edge })
    cell.setAttribute('scope', 'col')
    titles.append(cell)
  }
  const top = element('thead', '', {})
  top.append(titles)
  const body = element('tbody', '', {})
  for (const row of rows) {
    const line = element('tr', '', {})
    row.forEach((text, i) => {
      const cell = element(i === 0 ? 'th' : 'td', text, {
        textAlign: side(i),
        fontWeight: '400',
        padding: '3px 14px 3px 0',
        borderBottom: edge,
      })
      if (i === 0) cell.setAttribute('scope', 'row')
      line.append(cell)
    })
    body.append(line)
  }
  table.append(top, body)
  const rest =
    more > 0
      ? [element('p', tongue.say('and {count} more rows', { count: more }), { color: theme.muted })]
      : []
  return [table, ...rest]
}

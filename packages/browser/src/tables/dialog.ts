import type { Composition, DataTable } from '@dapplo/core/internal'
import type { Theme, Tongue } from '@dapplo/core/small'

/** Shows tables over the page, until they are closed by button or Escape. Focus goes back to where it was. */
export function showTables(
  title: string,
  tables: readonly DataTable[],
  { theme, tongue }: Pick<Composition, 'theme' | 'tongue'>,
  host: Element,
  closed: () => void,
): () => void {
  const dialog = document.createElement('dialog')
  dialog.className = 'dapplo-dialog'
  dialog.setAttribute('aria-label', title)
  Object.assign(dialog.style, {
    font: `${theme.sizes.subtitle}px ${theme.font}`,
    color: theme.text,
    background: theme.surface,
    border: `1px solid ${theme.strong}`,
    borderRadius: '3px',
    padding: '16px',
    maxWidth: 'min(900px, 92vw)',
    maxHeight: '85vh',
    overflow: 'auto',
  })
  const heading = element('h2', title, { margin: '0 0 8px', fontSize: '16px' })
  const close = element('button', tongue.say('Close'), {
    font: 'inherit',
    color: 'inherit',
    background: 'transparent',
    border: `1px solid ${theme.strong}`,
    borderRadius: '3px',
    padding: '4px 10px',
    marginTop: '12px',
    cursor: 'pointer',
  })
  close.setAttribute('type', 'button')
  close.addEventListener('click', () => dialog.close())
  dialog.append(heading, ...tables.flatMap(table => tableElements(table, theme, tongue)), close)
  dialog.addEventListener('close', () => {
    dialog.remove()
    closed()
  })
  host.append(dialog)
  dialog.showModal()
  return () => {
    if (dialog.open) dialog.close()
    dialog.remove()
  }
}

function tableElements(
  { caption, head, rows, more }: DataTable,
  theme: Theme,
  tongue: Tongue,
): HTMLElement[] {
  const table = element('table', '', {
    borderCollapse: 'collapse',
    fontVariantNumeric: 'tabular-nums',
    marginTop: '8px',
  })
  const edge = `1px solid ${theme.hairline}`
  table.append(element('caption', caption, { textAlign: 'left', color: theme.muted, padding: '4px 0' }))
  const titles = element('tr', '', {})
  for (const name of head) {
    const cell = element('th', name, { textAlign: 'left', padding: '4px 14px 4px 0', borderBottom: edge })
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
        textAlign: 'left',
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

function element(name: string, text: string, style: Partial<CSSStyleDeclaration>): HTMLElement {
  const made = document.createElement(name)
  if (text !== '') made.textContent = text
  Object.assign(made.style, style)
  return made
}

import type { Composition, DataTable } from '@dapplo/core/internal'
import { button, element } from '../live/elements.ts'
import { tableElements } from './table-elements.ts'

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
  const close = button(tongue.say('Close'), theme, () => dialog.close())
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

import type { Sentence } from '@dapplo/core/small'
import type { PartHost } from '../live/model.ts'
import { download, fileName, printed } from '../save/save.ts'
import type { MenuItem } from './menu.ts'

/** What the menu of a chart offers: as much as its parts can do. `say`: tells what was done. */
export function menuItems({ live, view, can }: PartHost, say: (sentence: Sentence) => void): MenuItem[] {
  const title = () => view.scene.title
  const save = (blob: Blob, ending: string) => download(blob, fileName(title(), ending))
  const items: MenuItem[] = []
  if (can.svg) {
    items.push(
      { words: 'Save picture', act: async () => save(await live.toPng(), 'png') },
      {
        words: 'Save drawing',
        act: () => save(new Blob([live.toSvg()], { type: 'image/svg+xml' }), 'svg'),
      },
    )
    if (view.first.resolved.throughMeaning)
      items.push({ words: 'Save film', act: async () => save(await live.toWebm(), 'webm') })
    items.push(
      { words: 'Save values', act: () => save(new Blob([live.toCsv()], { type: 'text/csv' }), 'csv') },
      {
        words: 'Copy picture',
        act: async () => {
          await navigator.clipboard.write([new ClipboardItem({ 'image/png': live.toPng() })])
          say('Picture copied.')
        },
      },
      {
        words: 'Copy values',
        act: async () => {
          await navigator.clipboard.writeText(live.toCsv())
          say('Values copied.')
        },
      },
    )
  }
  const { dataTables, openTables, paper } = can
  if (dataTables && openTables)
    items.push({ words: 'Show values', act: () => openTables(title(), dataTables()) })
  if (paper) items.push({ words: 'Print', act: () => printed(paper(), title(), can.paperTables?.() ?? []) })
  items.push({
    words: 'Reset view',
    act: () => {
      live.state = {}
    },
  })
  return items
}

import { dataTables, type View } from '@dapplo/core/small'
import type { MenuItem } from './menu.ts'
import type { Live } from './mount.ts'
import { download, fileName, print } from './save.ts'
import type { Telling } from './telling.ts'

/** What the menu of a chart offers. */
export function menuItems(
  live: Live,
  view: View,
  telling: Telling,
  say: (words: string) => void,
): MenuItem[] {
  const title = () => view.scene.title
  const save = (blob: Blob, ending: string) => download(blob, fileName(title(), ending))
  return [
    { words: 'Save as PNG', act: async () => save(await live.toPng(), 'png') },
    { words: 'Save as SVG', act: () => save(new Blob([live.toSvg()], { type: 'image/svg+xml' }), 'svg') },
    ...(view.first.resolved.throughMeaning
      ? [{ words: 'Save as film', act: async () => save(await live.toWebm(), 'webm') }]
      : []),
    { words: 'Save data as CSV', act: () => save(new Blob([live.toCsv()], { type: 'text/csv' }), 'csv') },
    {
      words: 'Copy picture',
      act: async () => {
        await navigator.clipboard.write([new ClipboardItem({ 'image/png': live.toPng() })])
        say('The picture is copied.')
      },
    },
    {
      words: 'Copy data',
      act: async () => {
        await navigator.clipboard.writeText(live.toCsv())
        say('The data are copied.')
      },
    },
    { words: 'Show data', act: () => telling.openTables(title(), dataTables(view.composition.value)) },
    { words: 'Print', act: () => print(view.scene) },
    {
      words: 'Reset',
      act: () => {
        live.state = {}
      },
    },
  ]
}

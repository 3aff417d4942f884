import type { Finding } from '../finding/error.ts'
import type { Batch } from '../scene/scene.ts'
import type { AskedWords } from './model.ts'

/** The words that a chart asks for and that its picture has no room for, as one finding. */
export function wordsLeftOut(
  { description, bound, labels, needed, sizes, axes, tiny }: AskedWords,
  batches: readonly Batch[],
): Finding[] {
  const texts = new Map<string, Set<string | number>>()
  for (const { kind, id, keys } of batches) if (kind === 'texts') texts.set(id, new Set(Array.from(keys)))
  const missing: string[] = []
  const need = (what: string, wished: unknown, ...ids: string[]) => {
    if (wished && !ids.some(id => texts.has(id))) missing.push(what)
  }
  need('the title', description.title, 'title', 'tiny/name')
  need('the subtitle', description.subtitle, 'subtitle')
  need('the stamp', description.stampWords, 'stamp')
  need('the caption', description.caption, 'caption')
  need('the source', description.source, 'caption')
  for (const { ids, entries } of needed) {
    const shown = ids.flatMap(id => [...(texts.get(id) ?? [])])
    const without = entries.filter(({ key, hidden }) => !hidden && !shown.includes(key)).length
    if (without === entries.length) missing.push('the names of its series')
    else if (without > 0) missing.push(`${without} of the ${entries.length} names in its legend`)
  }
  need('the legend of its sizes', bound.sizes && sizes, 'legend/size')
  if (!tiny)
    for (const { name, role, title, hidden } of axes) {
      const ids = role === 'x' ? ['axis title x'] : ['axis titles', 'axis titles right']
      need(`the title of the axis "${name}"`, title !== '' && !hidden, ...ids)
    }
  else if (labels && bound.drawings.some(({ drawing }) => drawing.label)) missing.push('labels')
  if (missing.length === 0) return []
  return [
    {
      code: 'words-left-out',
      message: `There is no room for ${listed(missing)}`,
      remedy: 'Make the chart larger, or show it without them.',
      path: '',
    },
  ]
}

const listed = (words: readonly string[]): string =>
  words.length > 1 ? `${words.slice(0, -1).join(', ')} and ${words.at(-1)}` : words[0]

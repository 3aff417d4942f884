// The options that descriptions have, by the published schema, and those that the factors give levels.

interface Schema {
  properties?: Record<string, Schema>
  additionalProperties?: Schema | boolean
  anyOf?: Schema[]
  items?: Schema
}

/** Parts of a description that belong to a name which people choose: `scales.y` and `scales.x` have the same options. */
const NAMED = ['scales', 'axes']

/** Options that no level of a factor has yet, so that pictures with them are not read. This list should shrink. */
export const NOT_YET: readonly string[] = [
  'against',
  'axes.images',
  'background.image',
  'band',
  'controls',
  'controls.as',
  'controls.label',
  'controls.names',
  'controls.set',
  'controls.to',
  'detailOf',
  'fit',
  'fit.degree',
  'level',
  'listed',
  'name',
  'options',
  'panes',
  'panes.by',
  'panes.columns',
  'panes.share',
  'scales.alignTo',
  'scales.each',
  'scales.keeps',
  'scales.missing',
  'scales.percentOf',
  'through',
]

/** The options of charts, as `axes.grid` or `label.words`; of what is drawn, those of one drawing stand for all. */
export function optionsOf(schema: Schema, path = ''): Set<string> {
  const out = new Set<string>()
  const visit = ({ properties, additionalProperties, anyOf, items }: Schema, at: string) => {
    for (const one of anyOf ?? []) visit(one, at)
    if (items) visit(items, at)
    if (NAMED.includes(at) && typeof additionalProperties === 'object') visit(additionalProperties, at)
    for (const [name, of] of Object.entries(properties ?? {})) {
      // Tables and house styles are no part of a description, and what only TypeScript can hold is no data.
      if (at === '' && ['tables', 'table', 'house'].includes(name)) continue
      if ((at === 'draw' && name === 'drawing') || at === 'as') continue
      const option = at === '' || at === 'draw' ? name : `${at}.${name}`
      if (out.has(option)) continue
      out.add(option)
      visit(of, name === 'draw' ? 'draw' : option)
    }
  }
  // The first form of a file is a chart, the second a spread of them.
  visit(schema.anyOf?.[0] ?? schema, path)
  return out
}

/** The options in a part of a description. */
export function optionsIn(part: Record<string, unknown>, at = ''): string[] {
  return Object.entries(part).flatMap(([name, value]) => {
    const option = at === '' || at === 'draw' ? name : `${at}.${name}`
    if (value === null || typeof value !== 'object') return [option]
    const parts = NAMED.includes(option) ? Object.values(value) : [value].flat()
    const inside = parts.filter(one => one !== null && typeof one === 'object')
    return [option, ...inside.flatMap(one => optionsIn(one as Record<string, unknown>, option))]
  })
}

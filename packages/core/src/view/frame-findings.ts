import type { Frame } from '../describe/frame.ts'
import type { Finding } from '../finding/error.ts'
import { nearest } from '../finding/nearest.ts'
import { noEffect } from '../finding/no-effect.ts'
import type { Table } from '../table/live/table.ts'
import { firstFont, fontsOf, type House } from '../theme/house.ts'
import { FONT } from '../theme/theme.ts'

/** What a person would regret about the frame that a chart is shown in. */
export const frameFindings = (frame: Frame, tables: readonly Table[]): Finding[] => [
  ...fontFindings(frame),
  ...houseColumnFindings(frame.house ?? {}, tables),
]

/** CSS names that stand for whatever there is. */
const GENERIC =
  /^(serif|sans-serif|monospace|cursive|fantasy|math|system-ui|ui-[a-z-]+|-apple-system|BlinkMacSystemFont)$/

function fontFindings(frame: Frame): Finding[] {
  const fonts = fontsOf(frame)
  const name = firstFont(fonts)
  // The font of the themes is a wish, with others named beside it.
  if (fonts === FONT || !frame.hasFont || name === '' || GENERIC.test(name) || frame.hasFont(name)) return []
  return [
    {
      code: 'missing-font',
      message: `The font "${name}" is not here, and words are drawn in another`,
      remedy: 'Load it in the page; in Node hand its file to addFont, on the command line to --font.',
      path: typeof frame.theme === 'object' ? 'theme.font' : 'house.font',
    },
  ]
}

/** What a house style says of columns, and what changes nothing here: names that are nearly right, and tables made without it. */
function houseColumnFindings({ columns = {} }: House, tables: readonly Table[]): Finding[] {
  const names = [...new Set(tables.flatMap(table => table.names))]
  return Object.entries(columns).flatMap(([name, told]): Finding[] => {
    const path = `house.columns.${name}`
    if (!names.includes(name)) {
      // A house style is for many charts: what this one does not have, another may.
      const near = nearest(name, names)
      return near === undefined || Object.hasOwn(columns, near)
        ? []
        : [
            {
              code: 'unknown-column',
              message: `No table here has a column "${name}"`,
              remedy: `Did you mean "${near}"?`,
              path,
            },
          ]
    }
    return tables.flatMap(table => {
      const own = table.column(name)?.options
      if (!own || Object.keys(told).every(option => Object.hasOwn(own, option))) return []
      return [
        noEffect(
          path,
          `The house style says more of the column "${name}" than ${table.title} was made with`,
          'Call setHouse before the table is made, or make it with table(rows, { columns: house.columns }).',
        ),
      ]
    })
  })
}

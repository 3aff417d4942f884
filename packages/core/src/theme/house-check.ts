import { checkColor, checkColors } from '../finding/check-color.ts'
import { checkFormat } from '../finding/check-format.ts'
import { DapploError } from '../finding/error.ts'
import { quoted } from '../finding/plain-text.ts'
import type { House, ThemeChanges } from './house.ts'
import type { Theme } from './theme.ts'

/** Tokens of a theme that are single colours, and those that are lists of them. */
const COLORS = ['background', 'surface', 'text', 'muted', 'hairline', 'stripe', 'strong', 'missing'] as const
const LISTS = ['colors', 'sequential', 'diverging'] as const

const checked = new WeakSet<object>()

/** Checks a house style and a theme before anything is drawn in them. Throws `bad-color`, `bad-format`, `bad-option`. */
export function checkHouse(house: House | undefined, theme?: Theme): void {
  if (theme) checkTheme(theme)
  if (!house || checked.has(house)) return
  checkColors(house.palette, 'house.palette')
  checkTokens(house.day ?? {}, 'house.day')
  checkTokens(house.night ?? {}, 'house.night')
  for (const [name, column] of Object.entries(house.columns ?? {})) {
    checkFormat(column.format, `house.columns.${name}.format`)
    checkColors(column.colors, `house.columns.${name}.colors`)
  }
  checked.add(house)
}

function checkTheme(theme: Theme): void {
  if (checked.has(theme)) return
  checkTokens(theme, 'theme')
  checked.add(theme)
}

function checkTokens(tokens: ThemeChanges, path: string): void {
  for (const token of COLORS) checkColor(tokens[token], `${path}.${token}`)
  for (const token of LISTS) checkColors(tokens[token], `${path}.${token}`)
  for (const [name, size] of Object.entries(tokens.sizes ?? {}))
    if (!(typeof size === 'number' && size > 0 && size <= 200))
      throw new DapploError(
        'bad-option',
        `${quoted(size)} is no size of letters`,
        `${path}.sizes.${name}`,
        'Write a number of pixels above 0, up to 200.',
      )
}

import type { InferOutput } from 'valibot'
import { blend, contrast, isDark } from './contrast.ts'
import type { house, motion, tokens } from './house-schema.ts'
import { day, FONT, night, type Theme } from './theme.ts'

/** The style of an application, over both themes. Every part may be left out. */
export type House = InferOutput<typeof house>
/** How charts move: see the fields; false for not at all. */
export type Motion = InferOutput<typeof motion>
/** The tokens of a theme that differ. */
export type ThemeChanges = InferOutput<typeof tokens>

/** Text needs this contrast with what lies behind it, shapes that one, by WCAG 2. */
const TEXT = 4.5
const SHAPE = 3

/** A theme with the house's changes. A theme of one's own stays as it is. */
export function themeOf(wish: 'day' | 'night' | Theme | undefined, house: House | undefined): Theme {
  if (typeof wish === 'object') return wish
  const base = wish === 'night' ? night : day
  if (!house) return base
  const { sizes, ...changes } = (base === night ? house.night : house.day) ?? {}
  return {
    ...base,
    ...(house.palette?.length ? { colors: house.palette } : {}),
    ...changes,
    font: withOthers(changes.font ?? house.font ?? base.font),
    sizes: { ...base.sizes, ...sizes },
  }
}

/** A font with those that stand in for it, where it names none itself. */
const withOthers = (font: string): string => (font.includes(',') ? font : `${font}, ${FONT}`)

/** The CSS fonts that words are drawn in. */
export const fontsOf = ({ theme, house }: { theme?: 'day' | 'night' | Theme; house?: House }): string =>
  themeOf(theme, house).font

/** The first of CSS fonts, by its name alone. */
export const firstFont = (fonts: string): string =>
  (/^\s*(?:"([^"]*)"|'([^']*)'|([^,]*))/.exec(fonts) ?? [])
    .slice(1)
    .find(name => name !== undefined)
    ?.trim() ?? ''

/**
 * The theme for words and shapes on another ground: inks of the light or dark theme, whichever suits it, strengthened
 * until they can be read. `worst`: where the ground varies, its least favourable colour.
 */
export function themeOnGround(theme: Theme, ground: string, house: House | undefined, worst = ground): Theme {
  const dark = isDark(ground)
  if (dark === undefined) return { ...theme, background: ground }
  const other = dark === (theme.name === 'night') ? theme : themeOf(dark ? 'night' : 'day', house)
  const pole = dark ? '#ffffff' : '#000000'
  const strengthen = (ink: string, least: number) => {
    let out = ink
    for (let share = 0.1; share <= 1 && (contrast(out, worst) ?? least) < least; share += 0.1)
      out = blend(ink, pole, share)
    return out
  }
  const plain = dark ? night : day
  // What a house or a theme of one's own says of its lines holds on every ground.
  const ruled = (token: 'hairline' | 'stripe' | 'strong', share: number) =>
    other[token] === plain[token] ? blend(ground, pole, share) : other[token]
  return {
    ...other,
    background: ground,
    surface: other.surface,
    text: strengthen(other.text, TEXT),
    muted: strengthen(other.muted, TEXT),
    missing: strengthen(other.missing, SHAPE),
    hairline: ruled('hairline', 0.12),
    stripe: ruled('stripe', 0.05),
    strong: ruled('strong', 0.36),
  }
}

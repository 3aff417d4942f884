import type { Column } from '../table/cells/options.ts'
import type { HouseWords } from '../words/tongue.ts'
import { blend, contrast, isDark } from './contrast.ts'
import { day, night, type Theme } from './theme.ts'

/** The style of an application, over both themes. Every part may be left out. */
export interface House {
  /** A CSS font family for all words. */
  font?: string
  /** Category colours in order of use, for both themes. */
  palette?: readonly string[]
  /** Tokens of the light and of the dark theme that differ; see `Theme`. */
  day?: ThemeChanges
  night?: ThemeChanges
  /** A BCP 47 language tag, where charts are not told one. */
  locale?: string
  /** The zone of times, where their column is not told one: in files, for the tables that are read. */
  timeZone?: string
  /** Options of columns by name, where their table has none: in files, for the tables that are read. */
  columns?: Record<string, Column>
  /** Words for those of the library, such as `{ 'Mean {what}': 'Mittel: {what}' }`; numbers and dates follow the locale. */
  words?: HouseWords
  /** How charts move, where their description does not say. */
  motion?: Motion
}
/**
 * Milliseconds, and easing in CSS syntax; false for none. `spring` instead of duration and easing: an interrupted glide
 * then keeps its speed. `stagger`: milliseconds from the first shape to the last.
 */
export type Motion =
  | false
  | {
      duration?: number
      delay?: number
      easing?: string
      spring?: true | { stiffness?: number; damping?: number }
      stagger?: number
    }
export type ThemeChanges = Partial<Omit<Theme, 'name' | 'sizes'>> & { sizes?: Partial<Theme['sizes']> }

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
    ...(house.font === undefined ? {} : { font: house.font }),
    ...(house.palette?.length ? { colors: house.palette } : {}),
    ...changes,
    sizes: { ...base.sizes, ...sizes },
  }
}

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
  return {
    ...other,
    background: ground,
    surface: other.surface,
    text: strengthen(other.text, TEXT),
    muted: strengthen(other.muted, TEXT),
    missing: strengthen(other.missing, SHAPE),
    hairline: blend(ground, pole, 0.12),
    stripe: blend(ground, pole, 0.05),
    strong: blend(ground, pole, 0.36),
  }
}

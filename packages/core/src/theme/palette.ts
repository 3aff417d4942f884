/**
 * Category colours in order of use, found by scripts/palette-search.mjs. Any two of a theme differ by CIEDE2000 of
 * 28 or more, and of 15 or more as seen with protanopia, deuteranopia or tritanopia; each has a contrast of 3:1 or
 * more with its theme's background. The two lists name the same hues in the same order.
 */
export const DAY_COLORS = [
  '#057f5f',
  '#ab470a',
  '#4b36bd',
  '#ed6092',
  '#9b941b',
  '#608df6',
  '#680629',
  '#1f2806',
] as const
export const NIGHT_COLORS = [
  '#42a289',
  '#fc9136',
  '#7e6aee',
  '#ffbec9',
  '#e7f68a',
  '#77d2fc',
  '#e20f3b',
  '#657009',
] as const

/**
 * Category colours in order of use, found by scripts/palette-search.mjs. Any two of a theme differ by CIEDE2000 of
 * 28 or more, and of 15 or more as seen with protanopia, deuteranopia or tritanopia; each has a contrast of 3:1 or
 * more with its theme's background. The two lists go through kindred hues in one order.
 */
export const DAY_COLORS = [
  '#8d3a9d',
  '#a08d22',
  '#107b5c',
  '#ac4b06',
  '#4f8ef5',
  '#2d2d0c',
  '#ed6082',
  '#131937',
] as const
export const NIGHT_COLORS = [
  '#ca7fe4',
  '#edec6f',
  '#39938c',
  '#da2d3a',
  '#3a62c0',
  '#6c8606',
  '#feb7b2',
  '#bbeaff',
] as const

/**
 * Two further tiers of the same hues, lighter or darker, in the same order, found by scripts/palette-tiers.mjs. Any two
 * of the first sixteen of a theme, and the grey of what is missing, differ by CIEDE2000 of 16 or more, any two of all
 * twenty-four by 14 or more; each has a contrast of 3:1 or more.
 */
export const DAY_TIERS = [
  ['#a5839c', '#7b5a02', '#083e37', '#532816', '#1053ba', '#5c7805', '#b4283e', '#351c90'],
  ['#b074e9', '#838761', '#17a355', '#c2846c', '#6a7699', '#4f5b38', '#5e123a', '#4e4b6d'],
] as const
export const NIGHT_TIERS = [
  ['#9d3d9f', '#c09e03', '#48ecc5', '#ae8477', '#4e92ff', '#6dc049', '#f96b8b', '#2eb7e7'],
  ['#fac8f8', '#716641', '#8cc0bb', '#fa7348', '#a6abd1', '#b7b78f', '#8f5b64', '#1c7189'],
] as const

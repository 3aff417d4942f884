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
 * Two further tiers of the same hues, lighter or darker, in the same order, found by scripts/palette-tiers.mjs: any two of
 * all twenty-four of a theme differ by CIEDE2000 of 14 or more; each has a contrast of 3:1 or more.
 */
export const DAY_TIERS = [
  ['#897e91', '#706855', '#7d958f', '#491000', '#19588f', '#5f6f00', '#ae043d', '#340e94'],
  ['#bb73e9', '#6a5205', '#064237', '#b08870', '#3f4556', '#7e8959', '#725557', '#695fd9'],
] as const
export const NIGHT_TIERS = [
  ['#7e6f7e', '#aca893', '#01f6d4', '#b37d71', '#51a0ff', '#616a57', '#fc6980', '#376c7a'],
  ['#a136a3', '#b8a21d', '#96c2b7', '#95525a', '#a5aabe', '#7bc22b', '#fe6748', '#2ab6d5'],
] as const

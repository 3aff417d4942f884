/**
 * By place in the palette: which pattern (0 for none) and which dash (0 for none) tells a category apart beside its
 * colour. Found by scripts/palette-marks.mjs. Beyond the first eight, any two of the twenty-four that have one pattern
 * differ by CIEDE2000 of 12 or more, and any two of one dash by 15 or more, as seen with protanopia, deuteranopia or
 * tritanopia, in both themes.
 */
export const BEYOND_EIGHT = {
  hatch: [0, 0, 0, 0, 0, 0, 0, 0, 2, 4, 2, 3, 4, 2, 4, 1, 3, 2, 3, 1, 4, 1, 1, 3],
  dash: [0, 0, 0, 0, 0, 0, 0, 0, 1, 1, 1, 3, 5, 2, 2, 4, 5, 5, 3, 4, 2, 5, 4, 3],
} as const

/** The same for print without colour: of the first twelve any two of one pattern or dash differ by 10 or more in grey, too. */
export const WITHOUT_COLOR = {
  hatch: [0, 0, 2, 1, 4, 0, 2, 1, 3, 3, 3, 4, 3, 3, 2, 2, 2, 2, 1, 1, 4, 4, 0, 1],
  dash: [0, 0, 1, 3, 4, 5, 5, 2, 2, 2, 3, 4, 3, 2, 5, 1, 1, 5, 3, 4, 0, 4, 0, 1],
} as const

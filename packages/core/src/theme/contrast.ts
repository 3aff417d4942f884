import type { Theme } from './theme.ts'

/** 0 to 255. */
export type Rgb = readonly [red: number, green: number, blue: number]

/** Reads #rgb, #rrggbb and rgb() colours; undefined for others, whose look only a browser knows. */
export function readColor(color: string): Rgb | undefined {
  const text = color.trim()
  const short = /^#([\da-f])([\da-f])([\da-f])[\da-f]?$/i.exec(text)
  if (short) return rgbOf(short, part => Number.parseInt(part + part, 16))
  const long = /^#([\da-f]{2})([\da-f]{2})([\da-f]{2})(?:[\da-f]{2})?$/i.exec(text)
  if (long) return rgbOf(long, part => Number.parseInt(part, 16))
  const parts = /^rgba?\(\s*([\d.]+)[\s,]+([\d.]+)[\s,]+([\d.]+)/i.exec(text)
  return parts ? rgbOf(parts, Number) : undefined
}

const rgbOf = ([, red, green, blue]: readonly string[], read: (part: string) => number): Rgb => [
  read(red),
  read(green),
  read(blue),
]

/** Relative luminance, 0 to 1, by WCAG 2. */
function luminance(rgb: Rgb): number {
  const [r, g, b] = rgb.map(value => {
    const part = value / 255
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}

/** Whether a colour says itself how much of what lies behind shows through. */
export const isTranslucent = (color: string): boolean =>
  /^(rgba|hsla)\(|^#([\da-f]{4}|[\da-f]{8})$|\/\s*[\d.]+%?\s*\)$/i.test(color.trim())

/** The contrast of two colours by WCAG 2, from 1 to 21; undefined where a colour cannot be read. */
export function contrast(word: string, other: string): number | undefined {
  const [a, b] = [readColor(word), readColor(other)]
  if (!a || !b) return undefined
  const [light, dark] = [luminance(a), luminance(b)].sort((p, q) => q - p)
  return (light + 0.05) / (dark + 0.05)
}

/** Whether a colour is nearer to black than to white; undefined where it cannot be read. */
export function isDark(color: string): boolean | undefined {
  const rgb = readColor(color)
  return rgb && luminance(rgb) < 0.18
}

const READABLE = 4.5

/** The ink of the theme, or black or white, that is readable on a colour; undefined where that cannot be told. */
export function inkOn(color: string, theme: Theme): string | undefined {
  const inks = [theme.text, theme.background, '#ffffff', '#000000']
  return (
    inks.find(ink => (contrast(ink, color) ?? 0) >= READABLE + 1) ??
    inks.find(ink => (contrast(ink, color) ?? 0) >= READABLE)
  )
}

/** A colour with some of another in it: `share` 0 to 1. Colours that cannot be read stay as they are. */
export function blend(color: string, other: string, share: number): string {
  const [a, b] = [readColor(color), readColor(other)]
  if (!a || !b) return color
  const mixed = a.map((value, i) => Math.round(value + (b[i] - value) * share))
  return `#${mixed.map(value => value.toString(16).padStart(2, '0')).join('')}`
}

/** A colour as an ink that can be read on a theme's ground: with as much of the theme's own ink in it as that takes. */
export function readableInk(color: string, theme: Theme): string {
  for (let share = 0; share < 1; share += 0.1) {
    const ink = blend(color, theme.text, share)
    if ((contrast(ink, theme.background) ?? READABLE) >= READABLE) return ink
  }
  return theme.text
}

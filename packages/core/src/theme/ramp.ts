/**
 * Colours for numbers: nine stops each, worked out in OKLCH with even steps of lightness. Sequential ramps have one
 * hue and grow away from the background; diverging ones have two, and their middle is near the background.
 */
export const DAY_SEQUENTIAL: readonly string[] = [
  '#b2dccb',
  '#96c9b4',
  '#7ab69e',
  '#5ea389',
  '#438f75',
  '#267c61',
  '#00694f',
  '#00543e',
  '#00402f',
]
export const NIGHT_SEQUENTIAL: readonly string[] = [
  '#2b5042',
  '#2d6652',
  '#2e7d63',
  '#309374',
  '#37aa86',
  '#44c199',
  '#57d7ad',
  '#6feec2',
  '#9effda',
]
export const DAY_DIVERGING: readonly string[] = [
  '#943500',
  '#b06446',
  '#c9917b',
  '#e0beb1',
  '#f5ece9',
  '#afcdcf',
  '#77abad',
  '#39898d',
  '#006569',
]
export const NIGHT_DIVERGING: readonly string[] = [
  '#ff9970',
  '#cb7757',
  '#935c46',
  '#5e4136',
  '#2d2725',
  '#324f50',
  '#3e7679',
  '#47a0a5',
  '#4eccd3',
]

/** The colour at a place from 0 to 1 on a ramp of hex colours, blended between its stops. */
export function rampColor(stops: readonly string[], place: number): string {
  const at = Math.max(0, Math.min(1, place)) * (stops.length - 1)
  const low = Math.min(stops.length - 2, Math.floor(at))
  if (stops.length === 1) return stops[0]
  const mix = at - low
  const part = (hex: string, i: number) => Number.parseInt(hex.slice(1 + i * 2, 3 + i * 2), 16)
  const blend = [0, 1, 2].map(i =>
    Math.round(part(stops[low], i) + (part(stops[low + 1], i) - part(stops[low], i)) * mix),
  )
  return `#${blend.map(value => value.toString(16).padStart(2, '0')).join('')}`
}

/** Whether stops can be blended: six-digit hex colours. */
export const isRamp = (stops: readonly string[]): boolean =>
  stops.length > 0 && stops.every(stop => /^#[\da-f]{6}$/i.test(stop))

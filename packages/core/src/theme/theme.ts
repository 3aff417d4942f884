import { DAY_COLORS, DAY_TIERS, NIGHT_COLORS, NIGHT_TIERS } from './palette.ts'
import { DAY_DIVERGING, DAY_SEQUENTIAL, NIGHT_DIVERGING, NIGHT_SEQUENTIAL } from './ramp.ts'

/** The tokens from which everything that is drawn takes its looks. Colours in CSS syntax, lengths in pixels. */
export interface Theme {
  name: 'day' | 'night'
  font: string
  /** Behind everything; `transparent` shows what lies behind the chart. */
  background: string
  /** Behind tooltips and menus; also the ring around points. */
  surface: string
  text: string
  muted: string
  /** Gridlines. */
  hairline: string
  /** Every other band of a striped plot. */
  stripe: string
  /** The line at zero, and edges of tooltips. */
  strong: string
  /** Shapes and labels without a value to colour them by. */
  missing: string
  /** Category colours in order of use: in the library's themes eight, then two tiers of eight, lighter or darker. */
  colors: readonly string[]
  /** Colours for numbers from small to large, and for numbers on both sides of a middle; six-digit hex. */
  sequential: readonly string[]
  diverging: readonly string[]
  sizes: { title: number; subtitle: number; text: number; caption: number }
}

/** The fonts that stand in for one that is not there. */
export const FONT = 'Inter, system-ui, -apple-system, "Segoe UI", sans-serif'
const SIZES = { title: 18, subtitle: 13, text: 12, caption: 11 }

/** The light theme. */
export const day: Theme = {
  name: 'day',
  font: FONT,
  background: '#fdfcf9',
  surface: '#ffffff',
  text: '#1c2328',
  muted: '#5b646b',
  hairline: '#e6e4de',
  stripe: '#f4f2ec',
  strong: '#b3b2ab',
  missing: '#8b8f91',
  colors: [...DAY_COLORS, ...DAY_TIERS.flat()],
  sequential: DAY_SEQUENTIAL,
  diverging: DAY_DIVERGING,
  sizes: SIZES,
}

/** The dark theme. */
export const night: Theme = {
  name: 'night',
  font: FONT,
  background: '#15191c',
  surface: '#1f2529',
  text: '#eceae4',
  muted: '#a3abaf',
  hairline: '#2b3236',
  stripe: '#1b2024',
  strong: '#5d676c',
  missing: '#7d868b',
  colors: [...NIGHT_COLORS, ...NIGHT_TIERS.flat()],
  sequential: NIGHT_SEQUENTIAL,
  diverging: NIGHT_DIVERGING,
  sizes: SIZES,
}

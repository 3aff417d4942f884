import type { House } from '../theme/house.ts'
import type { Measure } from '../theme/measure.ts'
import type { Theme } from '../theme/theme.ts'

/** Where a chart is shown. Lengths in pixels. */
export interface Frame {
  width: number
  height: number
  /** Device pixels per pixel. Default 1. */
  density?: number
  /** `day` (default), `night`, or a theme of one's own. */
  theme?: 'day' | 'night' | Theme
  /** The style of the application, over both themes. */
  house?: House
  /** A BCP 47 language tag. Default `en`. */
  locale?: string
  /** Whether the theme's background is painted. Default true. */
  background?: boolean
  /** How wide texts are; must agree with the font that is painted. */
  measure: Measure
}

/** What the person has done: plain data, apart from the description. */
export interface State {
  /** Part of a position scale that is in view, in data units; times as milliseconds. */
  zoom?: Readonly<Record<string, readonly [number, number]>>
  /** Keys of the series that are hidden. */
  hidden?: readonly string[]
  /** How far a chart has been played: 0 at the first period, 1 at the second, 1.5 on the way to the third. */
  at?: number
  /** Serial numbers of the selected rows of the root table; see `table.serialOf`. */
  selected?: ArrayLike<number>
}

import { checkLocale } from '../finding/check-locale.ts'
import { DapploError } from '../finding/error.ts'
import type { House } from '../theme/house.ts'
import type { Measure } from '../theme/text-width.ts'
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
  /** Whether words can be drawn in a font of this name. Default: of all of them. */
  hasFont?: (name: string) => boolean
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

/** The longest side of a frame, and the most device pixels in it: more than any screen or printer has. */
const LONGEST = 20_000
const MOST_PIXELS = 2 ** 28

/** A frame that can be drawn in. Throws `bad-frame` and `bad-locale`. */
export function checkedFrame(frame: Frame): Frame {
  const { density = 1 } = frame
  for (const side of ['width', 'height'] as const) {
    const length = frame[side]
    if (typeof length !== 'number' || !Number.isFinite(length) || length > LONGEST)
      throw new DapploError(
        'bad-frame',
        `A chart cannot be ${length} pixels ${side === 'width' ? 'wide' : 'high'}`,
        `frame.${side}`,
        `Give a number of pixels up to ${LONGEST.toLocaleString('en')}.`,
      )
  }
  if (typeof density !== 'number' || !(density > 0 && density <= 20))
    throw new DapploError(
      'bad-frame',
      `A density of ${density} device pixels per pixel cannot be drawn`,
      'frame.density',
      'Give a number above 0, up to 20.',
    )
  if (frame.width * frame.height * density ** 2 > MOST_PIXELS)
    throw new DapploError(
      'bad-frame',
      `${frame.width} by ${frame.height} pixels at a density of ${density} are too many to be drawn`,
      'frame',
      `Width, height and density must come to less than ${MOST_PIXELS.toLocaleString('en')} device pixels.`,
    )
  if (frame.locale !== undefined) checkLocale(frame.locale, 'locale')
  if (frame.house?.locale !== undefined) checkLocale(frame.house.locale, 'house.locale')
  return frame
}

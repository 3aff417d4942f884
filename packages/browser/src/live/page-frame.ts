import { fontsOf, type Timing, timingOf, withCommon } from '@dapplo/core/internal'
import type { Description, Frame } from '@dapplo/core/small'
import { holds } from '../page/media.ts'
import { pageHasFont, pageMeasure } from '../page/page-width.ts'
import type { MountOptions } from './model.ts'

/** The longest side, and the most pixels, of a canvas that browsers agree on. */
const LONGEST = 16_384
const MOST_PIXELS = 2 ** 26

/** The theme, by day or by night as the page is where it says nothing else. */
export function pageTheme(theme: NonNullable<MountOptions['theme']>) {
  if (theme !== 'auto') return theme
  return holds('(prefers-color-scheme: dark)') ? 'night' : 'day'
}

/** The language of what stands in an element. */
export const pageLocale = (
  element: HTMLElement,
  locale: string | undefined,
  house: MountOptions['house'],
): string => locale ?? (house?.locale || element.closest('[lang]')?.getAttribute('lang') || 'en')

/** What a chart takes from the page around it: its size, language, light or dark, and how its letters measure. */
export function pageFrame(
  element: HTMLElement,
  size: { width: number; height: number },
  { theme = 'day', house: own, background, locale }: MountOptions,
): Frame {
  const house = withCommon(own)
  const wish = pageTheme(theme)
  const [width, height] = [Math.min(size.width, LONGEST), Math.min(size.height, LONGEST)]
  return {
    width,
    height,
    // A page may be larger than any canvas: then it is drawn less finely.
    density: Math.min(window.devicePixelRatio || 1, Math.sqrt(MOST_PIXELS / Math.max(1, width * height))),
    theme: wish,
    locale: pageLocale(element, locale, house),
    house,
    background,
    measure: pageMeasure(fontsOf({ theme: wish, house })),
    hasFont: pageHasFont,
  }
}

/** Whether a chart would look the same in both, as long as letters measure the same. */
export const sameFrame = (a: Frame, b: Frame): boolean =>
  (['width', 'height', 'density', 'theme', 'house', 'locale', 'background'] as const).every(
    key => a[key] === b[key],
  )

/** How a chart moves on this page; not at all for people who wish for less motion. */
export const pageTiming = (motion: Description['motion']): Timing | undefined =>
  holds('(prefers-reduced-motion: reduce)') ? undefined : timingOf(motion)

/** A frame in which nothing has room: what a chart shows can be worked out before it has a place. */
export const noRoom = { width: 1, height: 1 }

import { type Description, type Frame, type Timing, timingOf } from '@dapplo/core/small'
import { pageMeasure } from './measure.ts'
import type { MountOptions } from './mount.ts'

/** What a chart takes from the page around it: its size, language, light or dark, and how its letters measure. */
export function pageFrame(
  element: HTMLElement,
  size: { width: number; height: number },
  density: number,
  { theme = 'day', house, background, locale }: MountOptions,
): Frame {
  const night = theme === 'auto' && matchMedia('(prefers-color-scheme: dark)').matches
  const family =
    typeof theme === 'object'
      ? theme.font
      : (house?.font ?? 'Inter, system-ui, -apple-system, "Segoe UI", sans-serif')
  return {
    ...size,
    density,
    theme: theme === 'auto' ? (night ? 'night' : 'day') : theme,
    locale: locale ?? (house?.locale || element.closest('[lang]')?.getAttribute('lang') || 'en'),
    house,
    background,
    measure: pageMeasure(family),
  }
}

/** How a chart moves on this page; not at all for people who wish for less motion. */
export const pageTiming = (motion: Description['motion']): Timing | undefined =>
  matchMedia('(prefers-reduced-motion: reduce)').matches ? undefined : timingOf(motion)

/** Follows what of the page changes a chart's frame, and its printing. Returns what ends that. */
export function followPage(
  element: HTMLElement,
  density: number,
  { changed, fontsLoaded, printing }: Follower,
): () => void {
  const ending = new AbortController()
  const { signal } = ending
  const sizes = new ResizeObserver(changed)
  sizes.observe(element)
  for (const query of ['(prefers-color-scheme: dark)', `(resolution: ${density}dppx)`])
    matchMedia(query).addEventListener('change', changed, { signal })
  window.addEventListener('beforeprint', () => printing(true), { signal })
  window.addEventListener('afterprint', () => printing(false), { signal })
  document.fonts?.addEventListener('loadingdone', fontsLoaded, { signal })
  return () => {
    sizes.disconnect()
    ending.abort()
  }
}

interface Follower {
  changed(): void
  /** Fonts that came late have other widths. */
  fontsLoaded(): void
  printing(prints: boolean): void
}

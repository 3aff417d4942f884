import type { Description, Frame } from '@dapplo/core/small'
import { pageMeasure } from './measure.ts'
import type { MountOptions } from './mount.ts'
import type { Timing } from './player.ts'

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

/** How a chart moves, with the defaults; not at all for people who wish for less motion. */
export function timingOf(motion: Description['motion']): Timing | undefined {
  if (motion === false || matchMedia('(prefers-reduced-motion: reduce)').matches) return undefined
  return {
    duration: motion?.duration ?? 400,
    delay: motion?.delay ?? 0,
    easing: motion?.easing ?? 'ease-in-out',
    spring: motion?.spring,
    stagger: motion?.stagger,
  }
}

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

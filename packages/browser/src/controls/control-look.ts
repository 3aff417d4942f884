import type { Theme } from '@dapplo/core/small'

/** How buttons and menus around a chart look; `dressControls` of an element around them sets the two colours. Each adds its padding. */
export const controlLook = {
  font: 'inherit',
  color: 'inherit',
  background: 'var(--dapplo-ground)',
  border: '1px solid var(--dapplo-edge)',
  borderRadius: '3px',
}

/** Gives an element with controls in it the theme's colours and letters. */
export function dressControls(element: HTMLElement, theme: Theme): void {
  Object.assign(element.style, {
    color: theme.text,
    fontFamily: theme.font,
    fontSize: `${theme.sizes.subtitle}px`,
    accentColor: theme.colors[0],
    colorScheme: theme.name === 'night' ? 'dark' : 'light',
  })
  element.style.setProperty('--dapplo-edge', theme.strong)
  element.style.setProperty('--dapplo-ground', theme.surface)
}

import type { Theme } from '@dapplo/core/small'

/** An element with a text and a style. */
export function element(name: string, text: string, style: Partial<CSSStyleDeclaration>): HTMLElement {
  const made = document.createElement(name)
  if (text !== '') made.textContent = text
  Object.assign(made.style, style)
  return made
}

/** A button in the ink of a theme. */
export function button(words: string, theme: Theme, pressed: () => void): HTMLElement {
  const made = element('button', words, {
    font: 'inherit',
    color: 'inherit',
    background: 'transparent',
    border: `1px solid ${theme.strong}`,
    borderRadius: '3px',
    padding: '4px 10px',
    minHeight: '28px',
    marginTop: '8px',
    cursor: 'pointer',
  })
  made.setAttribute('type', 'button')
  made.addEventListener('click', pressed)
  return made
}

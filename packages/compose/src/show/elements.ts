/** An element with its class, by which the page can dress it as a part, its text and its attributes. */
export function element<Name extends keyof HTMLElementTagNameMap>(
  name: Name,
  className = '',
  text = '',
  attributes: Readonly<Record<string, string>> = {},
): HTMLElementTagNameMap[Name] {
  const made = document.createElement(name)
  if (className) {
    made.className = className
    made.setAttribute('part', className)
  }
  if (text) made.textContent = text
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value)
  return made
}

export function button(text: string, className: string, act: () => void): HTMLButtonElement {
  const made = element('button', className, text, { type: 'button' })
  made.addEventListener('click', act)
  return made
}

/** Something at the place of a click, from which a menu can open; one at a time. */
export function anchorAt(root: HTMLElement, { clientX, clientY }: MouseEvent): HTMLElement {
  const { left, top } = root.getBoundingClientRect()
  const anchor = element('span', 'anchor', '', { tabindex: '-1' })
  anchor.style.left = `${clientX - left}px`
  anchor.style.top = `${clientY - top}px`
  root.querySelector('.anchor')?.remove()
  root.append(anchor)
  return anchor
}

/** An element with its class, its text and its attributes. */
export function element<Name extends keyof HTMLElementTagNameMap>(
  name: Name,
  className = '',
  text = '',
  attributes: Readonly<Record<string, string>> = {},
): HTMLElementTagNameMap[Name] {
  const made = document.createElement(name)
  if (className) made.className = className
  if (text) made.textContent = text
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value)
  return made
}

export function button(text: string, className: string, act: () => void): HTMLButtonElement {
  const made = element('button', className, text, { type: 'button' })
  made.addEventListener('click', act)
  return made
}

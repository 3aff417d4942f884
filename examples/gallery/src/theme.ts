/** The theme that the address asks for. */
export const theme = new URLSearchParams(location.search).get('theme') === 'night' ? 'night' : 'day'
document.documentElement.dataset.theme = theme

/** A panel in the page for a chart. */
export function panel(className: string): HTMLDivElement {
  const element = document.createElement('div')
  element.className = className
  document.getElementById('page')!.append(element)
  return element
}

const asked = new Map<string, MediaQueryList>()

/** Whether a media query holds now; asked of the page once for all charts. */
export function holds(query: string): boolean {
  let list = asked.get(query)
  if (!list) {
    list = matchMedia(query)
    asked.set(query, list)
  }
  return list.matches
}

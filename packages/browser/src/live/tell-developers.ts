import type { Finding } from '@dapplo/core/small'

const told = new Set<string>()

/** Where pages are made rather than read. */
const isMaking = (): boolean =>
  location.protocol === 'file:' || /^(localhost|127(\.\d+){3}|\[::1\]|.*\.localhost)$/.test(location.hostname)

/** Tells of findings in the console, once each, where a page is being made. */
export function tellDevelopers(findings: readonly Finding[]): void {
  if (findings.length === 0 || !isMaking()) return
  for (const { message, remedy, path } of findings) {
    const sentence = `${message}${path ? ` (at ${path})` : ''}. ${remedy}`
    if (told.has(sentence)) continue
    told.add(sentence)
    console.warn(sentence)
  }
}

import { DapploError } from './error.ts'
import { quoted } from './plain-text.ts'

const known = new Set<string>()

/** Checks that a locale is a language tag. Throws `bad-locale` with the tag that was likely meant. */
export function checkLocale(locale: unknown, path: string): void {
  if (typeof locale === 'string' && known.has(locale)) return
  try {
    if (typeof locale !== 'string') throw new RangeError()
    Intl.getCanonicalLocales(locale)
    known.add(locale)
  } catch {
    const text = String(locale)
    const meant = text.replace(/[._@].*$/, tail => (/^_[a-z]{2}/i.test(tail) ? `-${tail.slice(1, 3)}` : ''))
    throw new DapploError(
      'bad-locale',
      `${quoted(text)} is no language tag`,
      path,
      meant !== text && isTag(meant)
        ? `Did you mean ${quoted(meant)}?`
        : 'Write a tag by BCP 47, such as "en" or "de-CH".',
    )
  }
}

function isTag(text: string): boolean {
  try {
    return Intl.getCanonicalLocales(text).length === 1
  } catch {
    return false
  }
}

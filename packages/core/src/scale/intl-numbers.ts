import { usable } from '../finding/check-format.ts'

/** Writes numbers. */
export interface WritesNumbers {
  format(value: number): string
}

/** A writer of its own for a locale and options, where there is one; it may leave single numbers to `Intl`. */
export type OwnWriter = (
  locale: string,
  options: Intl.NumberFormatOptions,
) => ((value: number) => string | undefined) | undefined

let ownWriter: OwnWriter = () => undefined

/** Has numbers written without `Intl` where that is quicker: for commands, whose first use of `Intl` would take long. */
export function writeNumbersBy(writer: OwnWriter): void {
  ownWriter = writer
}

const formats = new Map<string, WritesNumbers>()

/** What `Intl.NumberFormat` writes, kept: making one costs more than a thousand uses. */
export function numberFormat(locale: string, options: Intl.NumberFormatOptions): WritesNumbers {
  const name = `${locale}|${JSON.stringify(options)}`
  let format = formats.get(name)
  if (!format) {
    const own = ownWriter(locale, options)
    let intl: Intl.NumberFormat | undefined
    const byIntl = (value: number) => {
      intl ??= usable(() => new Intl.NumberFormat(locale, options))
      return intl.format(value)
    }
    format = { format: own ? value => own(value) ?? byIntl(value) : byIntl }
    formats.set(name, format)
  }
  return format
}

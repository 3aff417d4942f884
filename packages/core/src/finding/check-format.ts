import { DapploError } from './error.ts'

const unusable = (reason: string, path: string): DapploError =>
  new DapploError(
    'bad-format',
    `This format cannot be used: ${reason}`,
    path,
    'Write Intl options that belong together, such as { "style": "currency", "currency": "EUR" }.',
  )

/** What `Intl` makes of options. Throws `bad-format` with what it says of those that do not go together. */
export function usable<T>(make: () => T, path = 'format'): T {
  try {
    return make()
  } catch (error) {
    throw unusable(error instanceof Error ? error.message : String(error), path)
  }
}

/** Checks that a format can be used: a function, or options that `Intl` takes. Throws `bad-format` with what `Intl` says. */
export function checkFormat(format: unknown, path: string): void {
  if (format === undefined || format === null || typeof format === 'function') return
  if (typeof format !== 'object' || Array.isArray(format))
    throw unusable('it is neither options nor a function', path)
  usable(() => new Intl.NumberFormat('en', format as Intl.NumberFormatOptions), path)
  usable(() => new Intl.DateTimeFormat('en', format as Intl.DateTimeFormatOptions), path)
}

import { DapploError } from './error.ts'

/** Checks that a format can be used: a function, or options that `Intl` takes. Throws `bad-format` with what `Intl` says. */
export function checkFormat(format: unknown, path: string): void {
  if (format === undefined || format === null || typeof format === 'function') return
  let reason = ''
  if (typeof format !== 'object' || Array.isArray(format)) reason = 'it is neither options nor a function'
  else
    try {
      new Intl.NumberFormat('en', format as Intl.NumberFormatOptions)
      new Intl.DateTimeFormat('en', format as Intl.DateTimeFormatOptions)
    } catch (error) {
      reason = error instanceof Error ? error.message : String(error)
    }
  if (reason === '') return
  throw new DapploError(
    'bad-format',
    `This format cannot be used: ${reason}`,
    path,
    'Write Intl options that belong together, such as { "style": "currency", "currency": "EUR" }.',
  )
}

import type { Finding } from './error.ts'

/** Told where something that a description says changes nothing. */
export const noEffect = (path: string, message: string, remedy = 'Leave it out.'): Finding => ({
  code: 'no-effect',
  message,
  remedy,
  path,
})

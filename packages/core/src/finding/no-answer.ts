import { DapploError, type Finding } from './error.ts'
import { cutText, plainText } from './plain-text.ts'

/** Tells that a table that answers in time has failed to. */
export const noAnswer = (title: string, error: unknown, path: string): Finding => ({
  code: 'no-answer',
  message: `There is no answer from ${title}: ${reasonOf(error)}`,
  remedy: 'See whether what holds the rows can be reached, and change or refresh the table to ask again.',
  path,
})

const reasonOf = (error: unknown): string =>
  error instanceof DapploError
    ? error.message
    : cutText(plainText(error instanceof Error ? error.message : String(error)), 300)

import type { Finding } from './error.ts'

/** What a step of the work comes to, and what it found on the way that a person would regret. */
export interface Found<T> {
  value: T
  findings: Finding[]
}

import type { Option } from './model.ts'

/** Options under a heading. */
export const group = (heading: string, options: readonly Option[]): Option[] =>
  options.map(option => ({ ...option, group: heading }))

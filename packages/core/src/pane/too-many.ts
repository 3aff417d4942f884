import type { BoundDrawing } from '../bind/model.ts'
import type { Finding } from '../finding/error.ts'
import { partPath } from '../finding/part-path.ts'

/** What is drawn as a whole, since there is so much of it, has no shapes of its own to say something of. */
export const tooMany = (
  option: 'label' | 'points',
  what: 'Labels' | 'Points',
  { drawing: { path }, marks }: BoundDrawing,
): Finding => ({
  code: 'too-many-to-mark',
  message: `${what} are left out: ${marks.length.toLocaleString('en')} values are too many to be marked one by one`,
  remedy: `Leave ${option} out, draw fewer rows with "where", or sum them up, as by day.`,
  path: partPath(path, option),
})

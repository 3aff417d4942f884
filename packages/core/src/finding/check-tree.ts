import { DapploError } from './error.ts'
import { partPath } from './part-path.ts'

/** Numbers beyond this, on either side of zero, cannot be summed up or stretched without leaving what a number can hold. */
export const LARGEST = 1e300

/** Deeper than this nothing is meant: no option is, by far. */
const DEEPEST = 40

/** An object that is nothing but its fields: no table, no kind of a class, no list. */
export function isPlainObject(value: unknown): value is Record<string, unknown> {
  if (value === null || typeof value !== 'object') return false
  const nature: unknown = Object.getPrototypeOf(value)
  return nature === Object.prototype || nature === null
}

/**
 * Checks what no sentence about a single option could: that data do not nest without end, and that every number in them
 * is finite. Goes no deeper than it allows, however deep the data are. What is no plain data (tables, kinds) is passed over.
 */
export function checkTree(data: unknown, path = '', depth = 0): void {
  if (typeof data === 'number' && !(Math.abs(data) <= LARGEST))
    throw new DapploError(
      'bad-option',
      `${data} is no number to draw with`,
      path,
      `Write one between -${LARGEST} and ${LARGEST}.`,
    )
  if (data instanceof Date && Number.isNaN(data.getTime()))
    throw new DapploError('bad-option', 'This date is none', path, 'Write a date that exists.')
  if (!isPlainObject(data) && !Array.isArray(data)) return
  if (depth >= DEEPEST)
    throw new DapploError(
      'bad-description',
      `This is nested more than ${DEEPEST} deep`,
      path,
      'A description is flat: look for something that holds itself.',
    )
  if (Array.isArray(data))
    for (let i = 0; i < data.length; i++) checkTree(data[i], `${path}[${i}]`, depth + 1)
  else
    for (const [name, value] of Object.entries(data))
      if (value !== null && (typeof value === 'object' || typeof value === 'number'))
        checkTree(value, partPath(path, name), depth + 1)
}

import { LARGEST } from '../finding/check-tree.ts'
import { DapploError } from '../finding/error.ts'
import type { State } from './frame.ts'

const wrong = (what: string, path: string, hint: string) =>
  new DapploError('bad-state', `${what} is no state of a chart`, path, hint)

/** A typed array holds numbers by nature: a selection of very many rows is not looked through at every move of a drag. */
const isNumbers = (value: unknown): boolean =>
  Array.isArray(value)
    ? value.every(serial => typeof serial === 'number')
    : ArrayBuffer.isView(value) &&
      !(value instanceof DataView || value instanceof BigInt64Array || value instanceof BigUint64Array)

/** Checks what a person is said to have done, from wherever it comes. Throws `bad-state`. */
export function checkState(state: unknown): asserts state is State {
  if (state === null || typeof state !== 'object' || Array.isArray(state))
    throw wrong(
      state === undefined
        ? 'Nothing'
        : state === null
          ? 'null'
          : Array.isArray(state)
            ? 'A list'
            : `A ${typeof state}`,
      'state',
      'Give an object, as in { hidden: [] }.',
    )
  const { zoom, hidden, at, selected } = state as Record<string, unknown>
  if (zoom !== undefined && (zoom === null || typeof zoom !== 'object' || Array.isArray(zoom)))
    throw wrong('This zoom', 'state.zoom', 'Give ends by scale, as in { x: [0, 10] }.')
  for (const [scale, ends] of Object.entries((zoom as object) ?? {}))
    if (
      ends !== undefined &&
      !(
        Array.isArray(ends) &&
        ends.length === 2 &&
        ends.every(end => typeof end === 'number' && Math.abs(end) <= LARGEST) &&
        ends[0] !== ends[1]
      )
    )
      throw wrong('This zoom', `state.zoom.${scale}`, 'Give two different ends in data units, as in [0, 10].')
  if (hidden !== undefined && !(Array.isArray(hidden) && hidden.every(key => typeof key === 'string')))
    throw wrong(
      'This list of hidden series',
      'state.hidden',
      'Give their keys as texts, as in ["Tern Point"].',
    )
  if (at !== undefined && !(typeof at === 'number' && at >= 0 && at < Number.POSITIVE_INFINITY))
    throw wrong('This place in playback', 'state.at', 'Give a number from 0 on.')
  if (selected !== undefined && !isNumbers(selected))
    throw wrong('This selection', 'state.selected', 'Give serial numbers of rows; see table.serialOf.')
}

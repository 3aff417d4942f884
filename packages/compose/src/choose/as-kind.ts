import type { Description } from '@dapplo/core'
import type { SettingPath } from '@dapplo/core/sentence'
import { drawingsOf, setAt } from './edits.ts'
import type { Place } from './model.ts'
import { phrasesFor, sumsUp } from './phrases.ts'

/** What only some kinds read. */
const OWN: Record<string, readonly string[]> = {
  arrange: ['bar', 'area'],
  order: ['bar', 'pie'],
  between: ['line', 'area'],
  points: ['line', 'area'],
  hollow: ['pie'],
  values: ['pie'],
  fit: ['trend'],
  band: ['trend'],
  size: ['scatter'],
  shape: ['scatter', 'line'],
  dash: ['line'],
}

/**
 * The description as another kind, with what is bound where that kind reads it: what was measured upwards is the shade of
 * cells and the size of slices, and the names along an axis are the colours of slices.
 */
export function asKind(place: Place, path: SettingPath, kind: string): Description {
  const { description, facts } = place
  let out = setAt(description, path, kind)
  // What lies over other drawings keeps what it binds.
  if (drawingsOf(description).length > 1) return out
  const roles = { ...out } as Record<string, unknown>
  const was = path.at(-1) === 'as' ? (description.draw as { as?: unknown }).as : description.draw
  for (const [look, kinds] of Object.entries(OWN)) if (!kinds.includes(kind)) delete roles[look]
  const { x, y, color } = roles
  const measure = [y, x, color].find(bind => sumsUp(bind, place)) ?? phrasesFor('measure', facts)[0]
  const groups = [x, y, color].filter(
    (bind): bind is string => typeof bind === 'string' && !sumsUp(bind, place),
  )
  const [first = phrasesFor('place', facts)[0], second] = groups
  if (kind === was || ['scatter', 'text', 'reference', 'trend'].includes(kind)) {
    if (kind === 'scatter' && typeof y === 'string' && sumsUp(y, place)) Object.assign(roles, { y, x: first })
  } else if (kind === 'pie') {
    for (const role of ['x', 'y', 'color']) delete roles[role]
    Object.assign(roles, { y: measure, color: first })
  } else if (kind === 'heatmap') {
    const other = second ?? phrasesFor('names', facts).find(name => name !== first)
    Object.assign(roles, { x: first, y: other, color: measure })
  } else if (was === 'pie' || was === 'heatmap' || was === 'scatter') {
    delete roles.color
    Object.assign(roles, { x: first, y: measure }, second === undefined ? {} : { color: second })
  } else if (kind !== 'bar' && sumsUp(x, place) && !sumsUp(y, place)) Object.assign(roles, { x: y, y: x })
  out = Object.fromEntries(Object.entries(roles).filter(([, value]) => value !== undefined)) as Description
  return out
}

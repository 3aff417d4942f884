import type { Description } from '@dapplo/core'
import type { SettingPath } from '@dapplo/core/sentence'
import { drawingsOf, kindsOf, setAt } from './edits.ts'
import type { Place } from './model.ts'
import { namesIn, phrasesFor, sumsUp } from './phrases.ts'

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
  const { description } = place
  const drawn = setAt(description, path, kind)
  // What lies over other drawings keeps what it binds.
  if (drawingsOf(description).length > 1) return drawn
  const roles: Record<string, unknown> = { ...drawn }
  for (const [look, kinds] of Object.entries(OWN)) if (!kinds.includes(kind)) delete roles[look]
  Object.assign(roles, rolesAs(place, kindsOf(description)[0], kind))
  return Object.fromEntries(Object.entries(roles).filter(([, value]) => value !== undefined)) as Description
}

/** What is bound otherwise once a kind has become another; undefined where nothing is bound any more. */
function rolesAs(
  place: Place,
  was: string,
  kind: string,
): { [role in 'x' | 'y' | 'color']?: unknown } | undefined {
  const { x, y, color } = place.description
  const binds = [x, y, color]
  const measure = [y, x, color].find(bind => sumsUp(bind, place)) ?? phrasesFor('measure', place)[0]
  const groups = binds.filter(bind => typeof bind === 'string' && !sumsUp(bind, place))
  const [first = phrasesFor('place', place)[0], second] = groups
  if (kind === was || ['text', 'reference', 'trend'].includes(kind)) return undefined
  if (kind === 'scatter') return sumsUp(y, place) ? { x: first } : undefined
  if (kind === 'pie') return { x: undefined, y: measure, color: first }
  if (kind === 'heatmap')
    return { x: first, y: second ?? namesIn(place).find(name => name !== first), color: measure }
  if (['pie', 'heatmap', 'scatter'].includes(was)) return { x: first, y: measure, color: second }
  return kind !== 'bar' && sumsUp(x, place) && !sumsUp(y, place) ? { x: y, y: x } : undefined
}

import type { Finding } from '../../finding/error.ts'
import { partPath } from '../../finding/part-path.ts'
import { type Meaning, wordsOf } from '../../table/phrase/meaning.ts'
import type { BoundDrawing } from '../model.ts'

/** Shapes without words or an address, since their rows have several: a label or link parts no groups. */
export function disagreements({ drawing, disagreeing }: BoundDrawing): Finding[] {
  const { path, roles } = drawing
  const of = (starts: string) => [...(disagreeing ?? [])].filter(([role]) => role.startsWith(starts))
  return [
    ...told(of('link'), roles, partPath(path, 'link'), ['leads nowhere', 'lead nowhere']),
    ...told(of('label '), roles, partPath(path, 'label'), ['has no words', 'have no words']),
  ]
}

function told(
  found: readonly (readonly [role: string, shapes: number])[],
  roles: ReadonlyMap<string, Meaning>,
  path: string,
  [one, many]: readonly [string, string],
): Finding[] {
  if (found.length === 0) return []
  const name = wordsOf(roles.get(found[0][0])!)
  const shapes = Math.max(...found.map(([, shapes]) => shapes))
  return [
    {
      code: 'rows-disagree',
      message: `${shapes === 1 ? 'One shape stands' : `${shapes} shapes stand`} for rows that differ in "${name}", and ${shapes === 1 ? one : many}`,
      remedy: `Bind "${name}" to color or series as well, so that each has a shape of its own, or leave it out.`,
      path,
    },
  ]
}

import type { Description, Drawing } from '../describe/description.ts'
import type { Kind, SharedLook } from '../describe/model.ts'
import type { Finding } from '../finding/error.ts'
import { OWN, readBy, SHARED } from './looks.ts'

/** Looks that are given and change nothing, since no kind that they are given to reads them. */
export function unreadLooks(
  description: Description,
  drawings: readonly { drawing: Drawing<any>; inherits: boolean; kind: Kind; path: string }[],
  kinds: Readonly<Record<string, Kind>>,
): Finding[] {
  const findings: Finding[] = []
  const tell = (look: SharedLook | (typeof OWN)[number], names: readonly string[], path: string) => {
    const readers = Object.values(kinds)
      .filter(kind => readBy(kind, look))
      .map(({ name }) => `"${name}"`)
    findings.push({
      code: 'no-effect',
      message: `"${look}" changes nothing about ${[...new Set(names)].map(name => `"${name}"`).join(' and ')}`,
      remedy: `Leave it out${readers.length > 0 ? `, or use it with ${readers.join(', ')}` : ''}.`,
      path,
    })
  }
  for (const look of [...SHARED, ...OWN]) {
    for (const { drawing, kind, path } of drawings)
      if (drawing[look] !== undefined && !readBy(kind, look))
        tell(look, [kind.name], path ? `${path}.${look}` : look)
    const heirs = drawings.filter(({ drawing, inherits }) => inherits && drawing[look] === undefined)
    if (description[look] !== undefined && heirs.length > 0 && !heirs.some(({ kind }) => readBy(kind, look)))
      tell(
        look,
        heirs.map(({ kind }) => kind.name),
        look,
      )
  }
  return findings
}

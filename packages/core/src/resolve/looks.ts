import type { Description, Drawing } from '../describe/description.ts'
import type { Arrange, Kind, SharedLook } from '../describe/model.ts'
import type { Finding } from '../finding/error.ts'
import type { ResolvedDrawing } from './model.ts'

/** Looks that every kind has. */
const FOR_ALL = ['where', 'top', 'rest', 'order'] as const
/** Looks that some kinds read: those that they share, and those that are a kind's own. */
const SHARED: readonly SharedLook[] = ['arrange', 'between', 'points']
const OWN = ['hole', 'fit', 'band'] as const

type Look = (typeof FOR_ALL)[number] | SharedLook | (typeof OWN)[number]
export type Looks = Pick<Drawing<any>, Look>

const readBy = ({ looks = SHARED }: Kind, look: SharedLook | (typeof OWN)[number]): boolean =>
  looks.includes(look)

/** The looks of a drawing after inheritance, and the options of its kind, its own looks among them. */
export function looksOf(
  drawing: Drawing<any>,
  inherited: Looks,
  kind: Kind,
): { looks: Looks; options: object } {
  const looks: Looks = {}
  for (const look of [...FOR_ALL, ...SHARED, ...OWN]) {
    const value = drawing[look] === undefined ? inherited[look] : drawing[look]
    if (value !== undefined) Object.assign(looks, { [look]: value })
  }
  const own = OWN.filter(look => looks[look] !== undefined && readBy(kind, look))
  return {
    looks,
    options: { ...Object.fromEntries(own.map(look => [look, looks[look]])), ...drawing.options },
  }
}

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

/** How several series stand at one place: as told, else as the kind does. */
export const arrangeOf = ({ arrange, kind }: Pick<ResolvedDrawing, 'arrange' | 'kind'>): Arrange =>
  (readBy(kind, 'arrange') ? arrange : undefined) ?? kind.arrange ?? 'side'

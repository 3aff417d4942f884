import type { Drawing } from '../describe/description.ts'
import type { Arrange, Kind, SharedLook } from '../describe/model.ts'
import type { ResolvedDrawing } from './model.ts'

/** Looks that every kind has. */
const FOR_ALL = ['where', 'top', 'rest', 'order'] as const
/** Looks that some kinds read: those that they share, and those that are a kind's own. */
export const SHARED: readonly SharedLook[] = ['arrange', 'between', 'points']
export const OWN = ['hollow', 'values', 'fit', 'band', 'breakAfter'] as const

type Look = (typeof FOR_ALL)[number] | SharedLook | (typeof OWN)[number]
export type Looks = Pick<Drawing<any>, Look>

export const readBy = ({ looks = SHARED }: Kind, look: SharedLook | (typeof OWN)[number]): boolean =>
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

/** How several series stand at one place: as told, else as the kind does. */
export const arrangeOf = ({ arrange, kind }: Pick<ResolvedDrawing, 'arrange' | 'kind'>): Arrange =>
  (knowsArrange(kind, arrange) ? arrange : undefined) ?? kind.arrange ?? 'side'

/** Whether a kind can stand in this way. */
export const knowsArrange = (kind: Kind, arrange: unknown): boolean =>
  readBy(kind, 'arrange') && (kind.arranges === undefined || kind.arranges.some(known => known === arrange))

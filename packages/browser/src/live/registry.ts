import { type Insets, joinedEnds, mostOf, type ScaleEnds, type View } from '@dapplo/core/internal'

/** Charts on a page know each other: by their ids, and by the scales they share. */
export interface Member {
  /** The view that is shown. */
  readonly current: View
  /** The id of its description. */
  readonly id: string | undefined
  /** Names of its shared scales, by scale. */
  readonly shared: ReadonlyMap<string, string>
  /** Another chart is pointed at, at this value of a shared scale; undefined when no more. */
  pointedElsewhere(scale: string, value: number | undefined): void
  /** Another chart has zoomed a shared scale. */
  zoomedElsewhere(scale: string, ends: readonly [number, number] | undefined): void
  /** The ends of a scale as this chart alone would have them. */
  endsOf(scale: string): ScaleEnds | undefined
  /** The width of its picture, in pixels, and the room that it needs beside its plot. */
  readonly width: number
  readonly insets: Insets | undefined
  /** Whether it explains what another chart is about. */
  readonly explains: boolean
  /** Charts have come, gone or changed. */
  neighboursChanged(): void
}

const members = new Set<Member>()
/** Those to whom others matter: a thousand charts that have nothing to do with each other need not hear of each other. */
const minding = new Set<Member>()

export function join(member: Member): void {
  members.add(member)
  tellAll(member)
}

export function leave(member: Member): void {
  members.delete(member)
  minding.delete(member)
  tellAll(member)
}

/** Tells all others to whom it matters that a member is not what it was. */
export function tellAll(from: Member): void {
  if (members.has(from) && (from.explains || from.shared.size > 0)) minding.add(from)
  else minding.delete(from)
  for (const member of [...minding]) if (member !== from) member.neighboursChanged()
}

export const byId = (id: string): Member | undefined => [...members].find(member => member.id === id)

/** The other members that share a scale, and what it is called there. */
export function* sharing(member: Member, scale: string): Generator<[Member, string]> {
  const name = member.shared.get(scale)
  if (name === undefined) return
  for (const other of members)
    if (other !== member) for (const [own, shared] of other.shared) if (shared === name) yield [other, own]
}

/** How far shared scales reach in the other charts. */
export function outerEnds(member: Member): Map<string, ScaleEnds> {
  const out = new Map<string, ScaleEnds>()
  for (const scale of member.shared.keys()) {
    for (const [other, own] of sharing(member, scale)) {
      const ends = other.endsOf(own)
      const known = out.get(scale)
      if (ends) out.set(scale, known ? joinedEnds([known, ends]) : ends)
    }
  }
  return out
}

/** The room beside their plots that charts of one width with the same horizontal scale need; undefined for none. */
export function roomBeside(member: Member): Insets | undefined {
  let most: Insets | undefined
  for (const [other, scale] of sharing(member, 'x')) {
    const { insets, width } = other
    if (scale !== 'x' || !insets || width !== member.width) continue
    most = most ? mostOf([most, insets]) : insets
  }
  return most
}

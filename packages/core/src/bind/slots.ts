import type { Slots } from '../describe/model.ts'
import { isLying } from '../drawing/is-lying.ts'
import { standAlone } from '../drawing/slots.ts'
import type { Finding } from '../finding/error.ts'
import { noEffect } from '../finding/no-effect.ts'
import { partPath } from '../finding/part-path.ts'
import { arrangeOf } from '../resolve/looks.ts'
import type { BoundDrawing, ScaleInput } from './model.ts'

/** The share of a place's room that is free unless bars there say otherwise. */
const GAP = 0.25

const isBars = ({ drawing: { kind } }: BoundDrawing): boolean =>
  kind.fromZero === true && kind.broad === true && !kind.parts

const asksForSide = ({ drawing }: BoundDrawing): boolean =>
  drawing.arrange === 'side' && arrangeOf(drawing) === 'side'

/** Gives drawings that ask to stand side by side their slots, shared with the bars at the same places. */
export function giveSlots(
  drawings: readonly BoundDrawing[],
  scales: ReadonlyMap<string, ScaleInput>,
): Finding[] {
  const findings: Finding[] = []
  /** By scale: all that shares the room of its places. */
  const shared = new Map<string, { along: 'x' | 'y'; members: BoundDrawing[] }>()
  const bars = drawings.filter(isBars)
  const alongOf = (drawn: BoundDrawing): 'x' | 'y' | undefined => {
    if (isBars(drawn)) return isLying(drawn.marks) ? 'y' : 'x'
    const roles = ['x', 'y'] as const
    const hosted = roles.find(role =>
      bars.some(bar => placeScale(bar, alongOf(bar)!) === placeScale(drawn, role)),
    )
    return hosted ?? roles.find(role => scales.get(placeScale(drawn, role))?.type === 'text')
  }
  for (const drawn of drawings.filter(drawn => isBars(drawn) || asksForSide(drawn))) {
    const along = alongOf(drawn)
    if (!along) {
      findings.push(
        noEffect(
          partPath(drawn.drawing.path, 'arrange'),
          `"arrange: side" changes nothing about "${drawn.drawing.kind.name}" without places to share`,
          'Bind a category to x or y, draw bars at the same places, or leave it out.',
        ),
      )
      continue
    }
    const name = placeScale(drawn, along)
    const group = shared.get(name) ?? { along, members: [] }
    group.members.push(drawn)
    shared.set(name, group)
  }
  for (const { along, members } of shared.values()) {
    if (!members.some(asksForSide) || (members.length === 1 && isBars(members[0]))) continue
    const slots = new Map<string, number>()
    const slotOf = (name: string): number => {
      if (!slots.has(name)) slots.set(name, slots.size)
      return slots.get(name)!
    }
    const own = members.map(drawn => Uint16Array.from(slotNames(drawn, along), slotOf))
    const gap = members.find(isBars)?.drawing.style.gap ?? GAP
    members.forEach((drawn, i) => {
      const given: Slots = { along, of: own[i], count: slots.size, gap }
      drawn.slots = given
    })
  }
  return findings
}

const placeScale = (drawn: BoundDrawing, role: 'x' | 'y'): string =>
  role === 'x' ? drawn.xScale : drawn.yScale

/** By series: what its slot is called. The same series in two drawings has one slot. */
function slotNames(drawn: BoundDrawing, along: 'x' | 'y'): string[] {
  const { drawing, marks, memory } = drawn
  const { series } = marks
  const whole = isBars(drawn) && (arrangeOf(drawing) !== 'side' || standAlone(memory, marks, marks[along]))
  if (whole) return series.map(() => 'bars')
  if (marks.seriesOf || series.length > 1) return series.map(({ key }) => `series ${key}`)
  return [isBars(drawn) && !asksForSide(drawn) ? 'bars' : `drawing ${drawing.index}`]
}

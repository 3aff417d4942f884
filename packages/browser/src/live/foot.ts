import type { Stage } from './stage.ts'

/** What stands in the row under a plate, from its beginning: what plays before what is done with the chart. */
const ORDER = ['play', 'menu'] as const

type Name = (typeof ORDER)[number]

const rows = new WeakMap<Stage, Map<Name, HTMLElement>>()

/** Puts something in the row under the plate, in place of what was there under this name; undefined: nothing. */
export function putFoot(stage: Stage, name: Name, element: HTMLElement | undefined): void {
  const feet = rows.get(stage) ?? new Map<Name, HTMLElement>()
  rows.set(stage, feet)
  const before = feet.get(name)
  if (element === before) return
  before?.remove()
  if (element) feet.set(name, element)
  else feet.delete(name)
  if (feet.size === 0) {
    stage.foot?.remove()
    stage.foot = undefined
    return
  }
  if (!stage.foot) {
    stage.foot = document.createElement('div')
    Object.assign(stage.foot.style, { display: 'flex', alignItems: 'center', gap: '12px', minHeight: '30px' })
    stage.outer.append(stage.foot)
  }
  stage.foot.append(...ORDER.flatMap(name => feet.get(name) ?? []))
}

import type { leadOf, View } from '@dapplo/core/internal'
import type { Description, Reading, State } from '@dapplo/core/small'
import { effect, signal } from '@preact/signals-core'
import { byId, type Member, outerEnds, roomBeside, sharing, tellAll } from './registry.ts'

/** A member of the page that has something to explain. */
export interface Leading extends Member {
  readonly lead: ReturnType<typeof leadOf>
}

const isLeading = (member: Member | undefined): member is Leading => member !== undefined && 'lead' in member

/** Keeps a chart in step with others on the page: what they explain, how far shared scales reach, zoom and pointer. */
export class Neighbours {
  private readonly self: Leading
  private readonly view: View
  private readonly changes = signal(0)
  private room = ''

  constructor(self: Leading, view: View) {
    this.self = self
    this.view = view
    this.followLead()
    this.followEnds()
    this.followRoom()
  }

  /** Charts have come, gone or changed. */
  changed(): void {
    this.changes.value++
  }

  /** Starts following and telling; returns what ends it. */
  listen(): (() => void)[] {
    return [
      effect(() => this.followLead()),
      effect(() => this.followEnds()),
      effect(() => this.followRoom()),
      this.tellEnds(),
      this.tellZoom(),
    ]
  }

  tellPointed(reading: Reading | undefined): void {
    if (!this.self.shared.has('x')) return
    const scale = this.self.current.composition.value.panes[0]?.scales.get('x')
    const value = reading && reading.along !== 'y' ? scale?.invert(reading.x) : undefined
    for (const [other, own] of sharing(this.self, 'x')) other.pointedElsewhere(own, value)
  }

  /** Explains what another chart has selected, or what leads there. */
  private followLead(): void {
    this.changes.value
    const { detailOf } = this.view.chart.value.description as Description
    const other = detailOf === undefined ? undefined : byId(detailOf)
    const lead = isLeading(other) && other !== this.self ? other.lead : undefined
    const before = this.view.detail.peek()
    const same = before?.color === lead?.color && sameNumbers(before?.serials ?? [], lead?.serials ?? [])
    if (!same) this.view.detail.value = lead
  }

  /** Reaches as far as the charts that share its scales. */
  private followEnds(): void {
    this.changes.value
    const outer = outerEnds(this.self)
    if (JSON.stringify([...outer]) !== JSON.stringify([...this.view.outer.peek()]))
      this.view.outer.value = outer
  }

  /** Lines up with the charts that share its horizontal scale. */
  private followRoom(): void {
    this.changes.value
    if (!this.self.shared.has('x')) return
    const beside = roomBeside(this.self)
    if (JSON.stringify(beside) !== JSON.stringify(this.view.beside.peek())) this.view.beside.value = beside
  }

  /** Tells charts that line up with it when it needs another room. */
  tellRoom(): void {
    if (!this.self.shared.has('x')) return
    const now = JSON.stringify([this.self.width, this.self.insets])
    if (now === this.room) return
    this.room = now
    // The width may have changed, and with it those that it lines up with.
    this.followRoom()
    tellAll(this.self)
  }

  /** Tells charts with the same scales when its ends change. */
  private tellEnds(): () => void {
    let before = ''
    return effect(() => {
      if (this.self.shared.size === 0) return
      const now = JSON.stringify([...this.view.own.value])
      if (now === before) return
      before = now
      tellAll(this.self)
    })
  }

  private tellZoom(): () => void {
    let before: State['zoom']
    return effect(() => {
      const { zoom } = this.view.state.value
      if (zoom === before) return
      before = zoom
      for (const scale of this.self.shared.keys())
        for (const [other, own] of sharing(this.self, scale)) other.zoomedElsewhere(own, zoom?.[scale])
    })
  }
}

function sameNumbers(a: ArrayLike<number>, b: ArrayLike<number>): boolean {
  if (a === b) return true
  if (a.length !== b.length) return false
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false
  return true
}

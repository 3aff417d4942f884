import {
  type Composition,
  readAt,
  rowsAtPlace,
  rowsInBox,
  rowsInOutline,
  rowsOfEntry,
  serialsOf,
  type View,
} from '@dapplo/core/internal'
import type { Gesture, Reading, State } from '@dapplo/core/small'

import { rowsOfSerials } from '../live/deeds.ts'
import type { DeedDetails } from '../live/model.ts'
import type { Outline } from './outline.ts'

/** Pixels around a click within which a point or line is meant. */
const NEAR = 14

export interface SelectingHost {
  /** What is on screen: while a chart plays, the view of the period that is reached. */
  shown(): Composition
  setState(state: State): void
  /** Tells of what the person does; whether it is to be. */
  allow(what: 'selected' | 'hidden', details: DeedDetails): boolean
  say(words: string): void
}

/** Turns what the person does into selected and hidden series: plain data in the state. */
export class Selecting {
  private readonly view: View
  private readonly host: SelectingHost
  /** What was selected when a drag began. */
  private before: State['selected']

  constructor(view: View, host: SelectingHost) {
    this.view = view
    this.host = host
  }

  /** The gestures that select. */
  get gestures(): readonly Gesture[] {
    const { select } = this.view.first.description
    return select === undefined || select === false
      ? []
      : Array.isArray(select)
        ? select
        : [select as Gesture]
  }

  click(place: { x: number; y: number }, adds: boolean): void {
    const composition = this.host.shown()
    const { root } = this.view
    let rows = rowsInBox(composition, root, { x: place.x - 1, y: place.y - 1, width: 2, height: 2 })
    const reading = rows.length === 0 ? readAt(composition, place.x, place.y) : undefined
    const near =
      reading?.rows.find(row => row.pointed) ?? (reading?.along === 'point' ? reading.rows[0] : undefined)
    if (reading && near && (Math.hypot(near.x - place.x, near.y - place.y) <= NEAR || reading.within))
      rows = serialsOf(root, [near])
    this.select(rows, adds)
  }

  /** What an outline holds. */
  outline({ corners: outline, box, adds, done }: Outline): void {
    this.before ??= this.view.state.value.selected ?? []
    const composition = this.host.shown()
    const { root } = this.view
    const [[x, y], , [right, bottom]] =
      outline.length > 2
        ? outline
        : ([
            [0, 0],
            [0, 0],
            [0, 0],
          ] as const)
    const rows = box
      ? rowsInBox(composition, root, { x, y, width: right - x, height: bottom - y }, true)
      : rowsInOutline(composition, root, outline)
    const known = adds ? Array.from(this.before) : []
    this.put(known.length > 0 ? Float64Array.from(new Set([...known, ...rows])).sort() : rows, done)
    if (done) this.before = undefined
  }

  /** What was selected before a drag that has been broken off, as by a page that scrolls. */
  breakOff(): void {
    if (this.before) this.put(this.before, true)
    this.before = undefined
  }

  entry(key: string, adds: boolean): void {
    this.select(rowsOfEntry(this.host.shown(), this.view.root, key), adds)
  }

  place(pane: number, scale: string, value: number, adds: boolean): void {
    const shown = this.host.shown().panes[pane]
    this.select(rowsAtPlace(shown, this.view.root, scale, value), adds)
  }

  reading(reading: Reading, adds: boolean): void {
    const rows = reading.rows.filter(row => row.pointed || reading.along === 'point')
    this.select(serialsOf(this.view.root, rows), adds)
  }

  /** Whether there was anything to clear. */
  clear(): boolean {
    if (!this.view.state.value.selected?.length) return false
    this.put([], true)
    return true
  }

  /** Selects rows; `adds`: beside those that are selected, or takes them out where all of them are. */
  private select(serials: Float64Array, adds: boolean): void {
    const before = this.view.state.value.selected
    if (!adds || !before?.length) return this.put(serials, true)
    const known = new Set(Array.from(before))
    const all = serials.every(serial => known.has(serial))
    for (const serial of serials) all ? known.delete(serial) : known.add(serial)
    this.put(Float64Array.from(known).sort(), true)
  }

  private put(serials: ArrayLike<number>, tells: boolean): void {
    const { selected: before, ...rest } = this.view.state.value
    const state = serials.length > 0 ? { ...rest, selected: serials } : rest
    const rows = () => rowsOfSerials(this.view, serials)
    if ((serials.length > 0 || before) && tells && !this.host.allow('selected', { state, rows })) {
      // What a drag has shown on the way is taken back.
      if (this.before) this.host.setState(this.before.length > 0 ? { ...rest, selected: this.before } : rest)
      return
    }
    if (serials.length > 0 || before) this.host.setState(state)
    if (tells && (serials.length > 0 || before))
      this.host.say(
        this.view.tongue.value.say(
          serials.length === 0
            ? 'Nothing selected.'
            : serials.length === 1
              ? '{count} row selected.'
              : '{count} rows selected.',
          { count: serials.length },
        ),
      )
  }

  /** Hides or shows what an entry of a legend explains; `alone`: hides all but it, or brings all back. */
  toggle(key: string, alone: boolean): void {
    const hidden = new Set(this.view.state.value.hidden)
    const keys = this.view.composition.value.panes.flatMap(pane => pane.bound.legend.map(entry => entry.key))
    if (alone) {
      const others = keys.filter(word => word !== key)
      const isAlone = !hidden.has(key) && others.every(word => hidden.has(word))
      hidden.clear()
      if (!isAlone) for (const word of others) hidden.add(word)
    } else if (hidden.has(key)) hidden.delete(key)
    else hidden.add(key)
    const { hidden: _, ...rest } = this.view.state.value
    const state = hidden.size > 0 ? { ...rest, hidden: [...hidden] } : rest
    const rows = () => rowsOfSerials(this.view, rowsOfEntry(this.host.shown(), this.view.root, key))
    if (this.host.allow('hidden', { state, key, rows })) this.host.setState(state)
  }
}

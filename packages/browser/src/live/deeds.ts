import type { View } from '@dapplo/core/internal'
import type { Reading } from '@dapplo/core/small'
import { guarded } from '../page/guarded.ts'
import { pointedRow } from '../point/telling.ts'
import type { Deed, DeedDetails, Happening, Live } from './model.ts'

/** Everything that a person does with a chart. */
export const DEEDS: readonly Deed[] = [
  'pointed',
  'clicked',
  'doubleClicked',
  'selected',
  'hidden',
  'zoomed',
  'played',
]

/** Tells listeners what a person does with a chart, and asks them whether it may be. */
export class Deeds {
  private readonly live: Live
  private readonly listeners = new Map<Deed, Set<(happening: Happening) => void>>()
  private pointed = ''
  private shown = true

  constructor(live: Live) {
    this.live = live
  }

  when(what: Deed, listener: (happening: Happening) => void): () => void {
    const own = this.listeners.get(what) ?? new Set()
    this.listeners.set(what, own)
    own.add(listener)
    return () => own.delete(listener)
  }

  /** Tells of a deed; whether the chart is to do what it would do. What a listener throws is reported, and prevents nothing. */
  allow(what: Deed, details: DeedDetails): boolean {
    const own = this.listeners.get(what)
    if (!own?.size) return true
    const { reading, state = this.live.state } = details
    const row = reading && pointedRow(reading)
    let allowed = true
    const happening: Happening = {
      what,
      live: this.live,
      state,
      reading,
      key: details.key ?? row?.key,
      async rows() {
        const behind = details.rows?.() ?? row
        return behind ? behind.table.rowsInTime(behind.rows) : []
      },
      prevent() {
        allowed = false
      },
    }
    for (const listener of [...own]) guarded(() => listener(happening))
    return allowed
  }

  /** Tells of what is pointed at when it is something else than before; whether it is to be shown. */
  allowPointed(reading: Reading | undefined): boolean {
    if (!this.listeners.get('pointed')?.size) return true
    const row = reading && pointedRow(reading)
    const now = reading ? JSON.stringify([reading.heading, row?.key, row?.text]) : ''
    if (now !== this.pointed) {
      this.pointed = now
      this.shown = this.allow('pointed', { reading })
    }
    return this.shown
  }
}

/** The rows of a table with these serial numbers; those that are gone are left out. */
export function rowsOfSerials({ root }: View, serials: ArrayLike<number>) {
  const rows = Array.from(serials, serial => root.rowOfSerial(serial)).filter(row => row !== undefined)
  return { table: root, rows }
}

import { numbersOf, picked } from '../cells/cells.ts'
import type { TableColumn } from '../cells/column.ts'
import { inOrder } from '../cells/in-order.ts'
import { openUp } from '../cells/open-up.ts'
import {
  buildPyramid,
  type Pyramid,
  removeFromPyramid,
  renewPyramid,
  writeToPyramid,
} from '../cells/pyramid.ts'
import { takeOut } from '../cells/take-out.ts'
import { followersOf, type RowFollower } from '../live/followers.ts'
import type { Table } from '../live/table.ts'

/** Rows in the order of a column, each with its value there and in another one. */
export interface RunOfRows {
  along: Float64Array
  values: Float64Array
  pyramid: Pyramid
  /** The row at a place. */
  rowOf(place: number): number
}

/**
 * The rows of a table in the order of a column, apart by the texts of another where one is given; kept in order as rows
 * come, change and go, so that one costs its place. Rows without a value there are left out. Undefined for a table whose
 * rows are in another order than that in which they came.
 */
export function followRuns(
  table: Table,
  along: TableColumn,
  values: TableColumn,
  by: TableColumn | undefined,
): LiveRuns | undefined {
  if (!table.serialsRise) return undefined
  const followers = followersOf(table)
  const name = `runs ${[along, values, by].map(column => column?.name ?? '').join('\u001e')}`
  let live = followers.find<LiveRuns>(name)
  if (!live) {
    live = new LiveRuns(table, along, values, by)
    followers.set(name, live)
  }
  return live
}

export class LiveRuns implements RowFollower {
  private readonly table: Table
  private readonly along: TableColumn
  private readonly values: TableColumn
  private readonly by: TableColumn | undefined
  private readonly runs = new Map<number, Run>()
  /** A row that is about to change, with what it was. */
  private leaving: { row: number; code: number; at: number; serial: number } | undefined

  constructor(table: Table, along: TableColumn, values: TableColumn, by: TableColumn | undefined) {
    this.table = table
    this.along = along
    this.values = values
    this.by = by
    const { length } = table
    const at = numbersOf(along.cells)
    const drawn = numbersOf(values.cells)
    const texts = by?.cells.type === 'text' ? by.cells : undefined
    const codes = texts?.codes
    // Missing codes have a place before all others.
    const ends = new Uint32Array((texts?.words.length ?? 0) + 2)
    for (let row = 0; row < length; row++) if (at[row] === at[row]) ends[(codes ? codes[row] : -1) + 2]++
    for (let code = 1; code < ends.length; code++) ends[code] += ends[code - 1]
    const next = ends.slice()
    const rows = new Int32Array(ends[ends.length - 1])
    for (let row = 0; row < length; row++)
      if (at[row] === at[row]) rows[next[(codes ? codes[row] : -1) + 1]++] = row
    for (let code = -1; code + 2 < ends.length; code++) {
      const list = rows.subarray(ends[code + 1], ends[code + 2])
      if (list.length === 0) continue
      const ordered = inOrder(at, list)
      const pick = (from: Float64Array) => picked(from, ordered, new Float64Array(ordered.length))
      const serials = Float64Array.from(ordered)
      if (table.serialOf(length - 1) !== length - 1)
        for (let i = 0; i < serials.length; i++) serials[i] = table.serialOf(ordered[i])
      this.runs.set(by ? code : 0, new Run(pick(at), pick(drawn), serials))
    }
  }

  /** The rows of a code, or all where nothing tells them apart; valid until the table changes. */
  of(code: number): RunOfRows | undefined {
    this.settle()
    return this.runs.get(this.by ? code : 0)?.view(this.table)
  }

  leave(row: number): void {
    this.settle()
    const serial = this.table.serialOf(row)
    this.leaving = { row, code: this.codeOf(row), at: this.along.numberAt(row), serial }
  }

  enter(row: number): void {
    const code = this.codeOf(row)
    const at = this.along.numberAt(row)
    const { leaving } = this
    if (leaving?.row === row && leaving.code === code && leaving.at === at) {
      this.leaving = undefined
      this.runs.get(code)?.write(at, this.table.serialOf(row), this.values.numberAt(row))
      return
    }
    this.settle()
    if (at !== at) return
    let run = this.runs.get(code)
    if (!run) {
      run = new Run(new Float64Array(0), new Float64Array(0), new Float64Array(0))
      this.runs.set(code, run)
    }
    run.enter({ at, value: this.values.numberAt(row), serial: this.table.serialOf(row) })
  }

  append(first: number, count: number): void {
    for (let row = first; row < first + count; row++) this.enter(row)
  }

  dropFirst(count: number): void {
    this.remove(Array.from({ length: count }, (_, row) => row))
  }

  remove(rows: readonly number[]): void {
    this.settle()
    for (const row of rows)
      this.runs.get(this.codeOf(row))?.leave(this.along.numberAt(row), this.table.serialOf(row))
  }

  /** A row that left without coming again is gone. */
  private settle(): void {
    const { leaving } = this
    if (!leaving) return
    this.leaving = undefined
    this.runs.get(leaving.code)?.leave(leaving.at, leaving.serial)
  }

  private codeOf(row: number): number {
    return this.by ? this.by.numberAt(row) : 0
  }
}

/** A row with its values, by the number that it keeps. */
interface Entry {
  at: number
  value: number
  serial: number
}

/**
 * One run, with room for more rows than it has. What comes and goes elsewhere than at its end is put in its place, all at once,
 * when somebody looks: single rows would move half of the others each.
 */
class Run {
  private along: Float64Array
  private values: Float64Array
  private serials: Float64Array
  /** What has left from the beginning lies there still. */
  private first = 0
  private length: number
  private pyramid: Pyramid
  /** Rows that have come and are not in their place yet, by number. */
  private readonly come = new Map<number, Entry>()
  /** Rows that have left and stand there still. */
  private gone: { at: number; serial: number }[] = []

  constructor(along: Float64Array, values: Float64Array, serials: Float64Array) {
    this.along = along
    this.values = values
    this.serials = serials
    this.length = serials.length
    this.pyramid = buildPyramid(values)
  }

  view(table: Table): RunOfRows {
    this.settle()
    const { first, length, serials } = this
    return {
      along: this.along.subarray(first, first + length),
      values: this.shown,
      pyramid: this.pyramid,
      rowOf: place => table.rowOfSerial(serials[first + place]) ?? -1,
    }
  }

  private get shown(): Float64Array {
    return this.values.subarray(this.first, this.first + this.length)
  }

  enter(entry: Entry): void {
    const settled = this.come.size === 0 && this.gone.length === 0
    if (settled && this.placeFor(entry.at, entry.serial) === this.length) this.insert([entry])
    else this.come.set(entry.serial, entry)
  }

  leave(at: number, serial: number): void {
    if (at === at && !this.come.delete(serial)) this.gone.push({ at, serial })
  }

  write(at: number, serial: number, value: number): void {
    const coming = this.come.get(serial)
    if (coming) coming.value = value
    const place = coming ? undefined : this.find(at, serial)
    if (place === undefined) return
    const before = this.values[this.first + place]
    this.values[this.first + place] = value
    writeToPyramid(this.pyramid, this.shown, place, before)
  }

  private settle(): void {
    const places = this.gone.flatMap(({ at, serial }) => this.find(at, serial) ?? [])
    this.gone = []
    this.takeOut(places.sort((a, b) => a - b))
    this.insert([...this.come.values()].sort((a, b) => a.at - b.at || a.serial - b.serial))
    this.come.clear()
  }

  /** Puts rows, which are in order, in their places. */
  private insert(entries: readonly Entry[]): void {
    if (entries.length === 0) return
    if (this.first + this.length + entries.length > this.serials.length) this.makeRoom(entries.length)
    const { first, length, along, values, serials } = this
    const places = entries.map(({ at, serial }) => this.placeFor(at, serial))
    for (const list of [along, values, serials]) openUp(list, first, length, places)
    entries.forEach(({ at, value, serial }, i) => {
      const here = first + places[i] + i
      along[here] = at
      values[here] = value
      serials[here] = serial
    })
    this.length += entries.length
    this.pyramid.missing += entries.filter(({ value }) => value !== value).length
    renewPyramid(this.pyramid, this.shown, places[0])
  }

  /** Takes out what stands at some places, in rising order. */
  private takeOut(places: readonly number[]): void {
    if (places.length === 0) return
    const { first, length } = this
    const missing = places.filter(place => Number.isNaN(this.values[first + place])).length
    const [moved] = [this.along, this.values, this.serials].map(list => takeOut(list, first, length, places))
    this.first += moved
    this.length -= places.length
    if (this.first > this.length + LEAST_GONE) this.makeRoom()
    else removeFromPyramid(this.pyramid, this.shown, places, missing)
  }

  /** Begins anew with room for half as many again as there will be. */
  private makeRoom(more = 0): void {
    const room = Math.ceil((this.length + more) * 1.5) + 16
    const moved = (from: Float64Array) => {
      const to = new Float64Array(room)
      to.set(from.subarray(this.first, this.first + this.length))
      return to
    }
    const again = this.first > 0
    this.along = moved(this.along)
    this.values = moved(this.values)
    this.serials = moved(this.serials)
    this.first = 0
    // Blocks are counted from where the first row once stood.
    if (again) this.pyramid = buildPyramid(this.shown)
  }

  /** Where a row stands; undefined where it is not. */
  private find(at: number, serial: number): number | undefined {
    const place = this.placeFor(at, serial)
    return place < this.length && this.serials[this.first + place] === serial ? place : undefined
  }

  /** Where a row belongs: among equal values by its number. */
  private placeFor(at: number, serial: number): number {
    const { along, serials, first } = this
    const isBefore = (place: number) => along[place] < at || (along[place] === at && serials[place] < serial)
    let low = first
    let high = first + this.length
    // Most come at the end.
    if (high > low && isBefore(high - 1)) return this.length
    while (low < high) {
      const middle = (low + high) >> 1
      if (isBefore(middle)) low = middle + 1
      else high = middle
    }
    return low - first
  }
}

/** Room that so many rows have left, and more than stay, is given back. */
const LEAST_GONE = 4096

import {
  type Chart,
  type Corner,
  DapploError,
  type DataTable,
  type Description,
  dataTables,
  type Finding,
  type Frame,
  type Gesture,
  hotspots,
  leadOf,
  paneAt,
  type Reading,
  readAt,
  rowsAtPlace,
  rowsInBox,
  rowsInOutline,
  rowsOfEntry,
  type Scene,
  Spread,
  type State,
  selectionsOf,
  serialsOf,
  sharedScales,
  type Told,
  tablesOf,
  tellMore,
  toSvgText,
  View,
} from '@dapplo/core/small'
import { effect, signal } from '@preact/signals-core'
import { Controls } from './controls.ts'
import { showTables } from './dialog.ts'
import { Gestures } from './gestures.ts'
import { Keys } from './keys.ts'
import { pageMeasure } from './measure.ts'
import { Menu } from './menu.ts'
import type { Live, MountOptions } from './mount.ts'
import { changeAt, readPath } from './paths.ts'
import { Player, type Timing } from './player.ts'
import { Pointer } from './pointer.ts'
import { byId, join, leave, type Member, outerEnds, sharing, tellAll } from './registry.ts'
import { csvOf, download, fileName, pngOf, print, svgOf } from './save.ts'
import { Spots } from './spots.ts'
import { Stage } from './stage.ts'
import { directionsOf, type Zoom } from './zoom.ts'

/** Pixels around a click within which a point or line is meant. */
const NEAR = 14

/** A chart on a page: shows a view, and hands on what the person does to its state. */
export class LiveChart implements Live, Member {
  readonly element: HTMLElement
  private readonly view: View
  private readonly stage: Stage
  private readonly player: Player
  private readonly pointer: Pointer
  private readonly gestures: Gestures
  private readonly spots: Spots
  private readonly keys: Keys
  private menu: Menu | undefined
  private controls: Controls | undefined
  private options: MountOptions
  private readonly undo: (() => void)[] = []
  private readonly neighbours = signal(0)
  private closeDialog: (() => void) | undefined
  private due = 0
  private still = true
  private fonts = 0
  private gone = false

  constructor(chart: Chart | Spread, element: HTMLElement, options: MountOptions) {
    this.element = element
    this.options = options
    this.stage = new Stage(element, options.height)
    this.view = new View(chart, options.state ?? {}, { ...this.frame(), width: 1, height: 1 })
    this.putControls()
    this.view.frame.value = this.frame()
    this.player = new Player(scene => this.stage.paint(scene, this.density))
    try {
      this.player.appear(this.view.scene, this.motion)
    } catch (error) {
      this.stage.remove()
      throw error
    }
    this.stage.name(this.view.scene)
    this.pointer = new Pointer(this.stage, {
      composition: () => this.view.composition.value,
      ready: () => !this.player.moving,
      tooltip: () => this.first.description.tooltip !== false,
      content: { more: reading => this.told(reading), own: reading => this.ownWords(reading) },
      pointed: reading => this.tellPointed(reading),
    })
    this.gestures = new Gestures(this.stage, {
      composition: () => this.view.composition.value,
      directions: () => directionsOf(this.first.description.zoom),
      gestures: () => this.selecting,
      zoom: () => this.state.zoom ?? {},
      setZoom: (zoom, gently) => this.setZoom(zoom, gently),
      clicked: (place, adds) => this.clicked(place, adds),
      outlined: (outline, box, adds) => this.outlined(outline, box, adds),
      quiet: quiet => quiet && this.pointer.pointAt(undefined),
    })
    this.spots = new Spots(this.stage.root, {
      selects: () => this.selecting.length > 0,
      preview: key => {
        this.jump()
        this.view.preview.value = key
      },
      toggle: (key, alone) => this.toggle(key, alone),
      selectEntry: (key, adds) =>
        this.select(rowsOfEntry(this.view.composition.value, this.view.root, key), adds),
      selectPlace: (pane, scale, value, adds) =>
        this.select(rowsAtPlace(this.view.composition.value.panes[pane], this.view.root, scale, value), adds),
    })
    this.keys = new Keys(this.stage.focus, {
      composition: () => this.view.composition.value,
      pointAt: place => this.pointer.pointAt(place),
      say: words => this.stage.say(words),
      select: (reading, adds) => this.selecting.length > 0 && this.select(this.rowsOf(reading), adds),
      open: reading => this.openRows(reading),
      zoom: (factor, x, y) => this.gestures.byKey(factor, x, y),
      resetZoom: () => this.setZoom({}, true),
      escape: () => this.escape(),
    })
    if (options.menu) this.menu = this.makeMenu()
    this.listen()
    join(this)
    this.afterDrawing()
  }

  get chart(): Chart | Spread {
    return this.view.chart.value
  }

  get scene(): Scene {
    return this.player.scene
  }

  get state(): State {
    return this.view.state.value
  }

  set state(state: State) {
    this.view.state.value = state
  }

  get findings(): readonly Finding[] {
    return this.view.findings
  }

  get moving(): boolean {
    return this.player.moving
  }

  show(chart: Chart | Spread): void {
    const before = this.view.chart.value
    this.view.chart.value = chart
    try {
      void this.view.scene
    } catch (error) {
      this.view.chart.value = before
      throw error
    }
    tellAll(this)
  }

  reframe(options: Pick<MountOptions, 'theme' | 'house' | 'locale' | 'background'>): void {
    this.options = { ...this.options, ...options }
    this.refresh()
  }

  watch(listener: (state: State) => void): () => void {
    let before = this.view.state.peek()
    const stop = effect(() => {
      const state = this.view.state.value
      if (state === before) return
      before = state
      try {
        listener(state)
      } catch (error) {
        // A listener that fails must not take the chart with it.
        reportError(error)
      }
    })
    this.undo.push(stop)
    return stop
  }

  selectedRows(): unknown[] {
    const { root } = this.view
    const places = new Map(Array.from(root.serials, (serial, row) => [serial, row]))
    const rows = Array.from(this.state.selected ?? [], serial => places.get(serial))
    return root.rows(rows.filter((row): row is number => row !== undefined))
  }

  toPng(): Promise<Blob> {
    return pngOf(this.view.scene, this.stage.surroundings)
  }

  toSvg(): string {
    return toSvgText(this.view.scene)
  }

  toCsv(): string {
    return csvOf(this.view.composition.value)
  }

  destroy(): void {
    if (this.gone) return
    this.gone = true
    cancelAnimationFrame(this.due)
    for (const undo of this.undo) undo()
    selectionsOf(this.view.root).set(this.view, undefined)
    leave(this)
    this.player.stop()
    this.pointer.remove()
    this.gestures.remove()
    this.spots.remove()
    this.keys.remove()
    this.menu?.remove()
    this.closeDialog?.()
    this.stage.remove()
    this.options.onDestroy?.()
  }

  // What other charts on the page know of this one.

  get id(): string | undefined {
    return this.chart.description.id
  }

  get shared(): ReadonlyMap<string, string> {
    return sharedScales(this.first.description)
  }

  endsOf(scale: string): { min: number; max: number } | undefined {
    return this.view.own.peek().get(scale)
  }

  neighboursChanged(): void {
    if (!this.gone) this.neighbours.value++
  }

  pointedElsewhere(scale: string, value: number | undefined): void {
    const place =
      value === undefined ? undefined : this.view.composition.value.panes[0]?.scales.get(scale)?.map(value)
    this.pointer.pointElsewhere(scale === 'x' ? place : undefined)
  }

  zoomedElsewhere(scale: string, ends: readonly [number, number] | undefined): void {
    const { [scale]: now, ...rest } = this.state.zoom ?? {}
    if (JSON.stringify(now) === JSON.stringify(ends)) return
    this.jump()
    this.state = { ...this.state, zoom: ends ? { ...rest, [scale]: ends } : rest }
  }

  /** What this chart is about: its selected, else its leading shape. Reading it makes an effect follow it. */
  get lead() {
    return leadOf(this.view.composition.value, this.view.root, this.view.state.value.selected)
  }

  /** The chart that speaks for all of a spread. */
  private get first(): Chart {
    return this.view.first
  }

  private get selecting(): readonly Gesture[] {
    const { select } = this.first.description
    return select === undefined || select === false
      ? []
      : Array.isArray(select)
        ? select
        : [select as Gesture]
  }

  private get density(): number {
    return window.devicePixelRatio || 1
  }

  private get motion(): Timing | undefined {
    const { motion } = this.first.description
    if (motion === false || matchMedia('(prefers-reduced-motion: reduce)').matches) return undefined
    return {
      duration: motion?.duration ?? 400,
      delay: motion?.delay ?? 0,
      easing: motion?.easing ?? 'ease-in-out',
    }
  }

  private frame(): Frame {
    const { theme = 'day', house, background } = this.options
    const locale = this.options.locale ?? (this.element.closest('[lang]')?.getAttribute('lang') || 'en')
    const night = theme === 'auto' && matchMedia('(prefers-color-scheme: dark)').matches
    const family =
      typeof theme === 'object'
        ? theme.font
        : (house?.font ?? 'Inter, system-ui, -apple-system, "Segoe UI", sans-serif')
    return {
      ...this.stage.size(),
      density: this.density,
      theme: theme === 'auto' ? (night ? 'night' : 'day') : theme,
      locale,
      house,
      background,
      measure: pageMeasure(family),
    }
  }

  /** Everything that follows from a change: one drawing a frame, however often things change. */
  private listen(): void {
    this.undo.push(
      effect(() => {
        for (const table of tablesOf(this.view.chart.value)) table.version.value
        this.view.state.value
        this.view.frame.value
        this.view.preview.value
        this.view.detail.value
        this.view.outer.value
        this.view.followOthers()
        this.schedule()
      }),
      effect(() => selectionsOf(this.view.root).set(this.view, this.view.state.value.selected)),
      effect(() => this.followOther()),
      effect(() => {
        this.neighbours.value
        const outer = outerEnds(this)
        if (JSON.stringify([...outer]) !== JSON.stringify([...this.view.outer.peek()]))
          this.view.outer.value = outer
      }),
      this.tellEnds(),
      this.tellZoom(),
    )
    cancelAnimationFrame(this.due)
    this.due = 0
    const sizes = new ResizeObserver(() => this.refresh())
    sizes.observe(this.element)
    this.undo.push(() => sizes.disconnect())
    for (const query of ['(prefers-color-scheme: dark)', `(resolution: ${this.density}dppx)`]) {
      const list = matchMedia(query)
      const changed = () => this.refresh()
      list.addEventListener('change', changed)
      this.undo.push(() => list.removeEventListener('change', changed))
    }
    const loaded = () => {
      // Fonts that came late have other widths.
      this.fonts++
      this.refresh()
    }
    document.fonts?.addEventListener('loadingdone', loaded)
    this.undo.push(() => document.fonts?.removeEventListener('loadingdone', loaded))
  }

  /** Explains what another chart has selected, or what leads there. */
  private followOther(): void {
    this.neighbours.value
    const { detailOf } = this.view.chart.value.description as Description
    const other = detailOf === undefined ? undefined : byId(detailOf)
    const lead = other instanceof LiveChart && other !== this ? other.lead : undefined
    const before = this.view.detail.peek()
    const same =
      before?.color === lead?.color && String(before?.serials ?? '') === String(lead?.serials ?? '')
    if (!same) this.view.detail.value = lead
  }

  /** Tells charts with the same scales when its ends change. */
  private tellEnds(): () => void {
    let before = ''
    return effect(() => {
      const now = JSON.stringify([...this.view.own.value])
      if (now === before) return
      before = now
      tellAll(this)
    })
  }

  private tellZoom(): () => void {
    let before: State['zoom']
    return effect(() => {
      const { zoom } = this.view.state.value
      if (zoom === before) return
      before = zoom
      for (const scale of this.shared.keys())
        for (const [other, own] of sharing(this, scale)) other.zoomedElsewhere(own, zoom?.[scale])
    })
  }

  private tellPointed(reading: Reading | undefined): void {
    if (!this.shared.has('x')) return
    const scale = this.view.composition.value.panes[0]?.scales.get('x')
    const value = reading && reading.along !== 'y' ? scale?.invert(reading.x) : undefined
    for (const [other, own] of sharing(this, 'x')) other.pointedElsewhere(own, value)
  }

  /** Takes the frame anew: size, density, theme. A new frame is shown at once, without motion. */
  private refresh(): void {
    if (this.gone) return
    const next = this.frame()
    const now = this.view.frame.peek()
    const same = (['width', 'height', 'density', 'theme', 'house', 'locale', 'background'] as const).every(
      key => next[key] === now[key],
    )
    if (same && this.fonts === 0) return
    this.fonts = 0
    this.still = false
    this.view.frame.value = next
  }

  /** The next picture is shown at once: what follows a hand must not lag behind it. */
  private jump(): void {
    this.still = false
  }

  private schedule(): void {
    this.due ||= requestAnimationFrame(() => {
      this.due = 0
      this.redraw()
    })
  }

  private redraw(): void {
    if (this.gone) return
    const scene = this.view.scene
    const motion = this.motion
    if (scene !== this.player.goal) {
      if (this.still && motion) this.player.glide(scene, motion)
      else this.player.jump(scene)
    }
    this.still = true
    this.afterDrawing()
    this.pointer.refresh()
  }

  private afterDrawing(): void {
    const composition = this.view.composition.value
    this.stage.name(this.view.scene)
    this.stage.root.style.color = composition.theme.text
    this.putControls()
    this.controls?.update()
    this.controls?.dress(composition.theme)
    this.menu?.dress(composition.theme)
    this.gestures.update()
    this.keys.refresh()
    this.spots.show(hotspots(composition, this.view.frame.value.measure))
  }

  private putControls(): void {
    const list = (this.view.chart.value.description as Description).controls ?? []
    if (this.controls?.isFor(list) || (!this.controls && list.length === 0)) return
    this.controls = list.length === 0 ? undefined : new Controls(list, this)
    this.stage.putControls(this.controls?.element)
    this.refresh()
  }

  // Controls.

  read(path: string): unknown {
    return path.startsWith('state.')
      ? readPath(this.state, path.slice(6))
      : readPath(this.chart.description, path)
  }

  write(path: string, value: unknown): void {
    if (path.startsWith('state.')) {
      this.state = { ...this.state, ...changeAt(this.state, path.slice(6), value) }
      return
    }
    const { chart } = this
    if (chart instanceof Spread) return
    try {
      this.show(chart.with(changeAt(chart.description, path, value) as never))
    } catch (error) {
      // A value that the data make impossible leaves the chart as it was.
      this.controls?.update()
      this.stage.say(error instanceof DapploError ? error.sentence : String(error))
    }
  }

  // Reading.

  private descriptionAt(reading: Reading): Description {
    const composition = this.view.composition.value
    const pane = paneAt(composition, reading.x, reading.y)
    const { chart } = this
    const i = pane ? composition.panes.indexOf(pane) : 0
    return (chart instanceof Spread ? (chart.charts[i] ?? this.first) : chart).description
  }

  private told(reading: Reading): readonly Told[] {
    const row = reading.rows.find(one => one.pointed) ?? reading.rows[0]
    const { tooltip } = this.descriptionAt(reading)
    if (!row || tooltip === undefined || tooltip === false) return []
    return tellMore(tooltip, row, this.view.composition.value.locale)
  }

  private ownWords(reading: Reading): string | Node | undefined {
    const { tooltip } = this.descriptionAt(reading)
    if (typeof tooltip !== 'function') return undefined
    const row = reading.rows.find(one => one.pointed) ?? reading.rows[0]
    if (!row) return undefined
    try {
      const said = tooltip(row.table.rows(row.rows))
      return said instanceof Node ? said : String(said)
    } catch (error) {
      reportError(error)
      return undefined
    }
  }

  private openRows(reading: Reading): void {
    const row = reading.rows.find(one => one.pointed) ?? reading.rows[0]
    if (!row) return
    const { names } = row.table
    const list = Array.from(row.rows).slice(0, 500)
    const rows = list.map(i => names.map(name => cellText(row.table.column(name)?.value(i))))
    const caption = `${row.rows.length.toLocaleString()} ${row.rows.length === 1 ? 'row' : 'rows'}`
    const table: DataTable = { caption, head: names, rows, more: row.rows.length - list.length }
    this.openTables(reading.heading || row.name, [table])
  }

  private openTables(title: string, tables: readonly DataTable[]): void {
    this.closeDialog?.()
    const host = this.element.closest('dialog[open]') ?? document.fullscreenElement ?? document.body
    this.closeDialog = showTables(title, tables, this.view.composition.value.theme, host, () => {
      this.closeDialog = undefined
      this.stage.focus.focus()
    })
  }

  private escape(): boolean {
    if (this.pointer.isPinned) this.pointer.pin(false)
    else if (this.state.selected?.length) this.select(new Float64Array(0), false)
    else if (Object.keys(this.state.zoom ?? {}).length > 0) this.setZoom({}, true)
    else return false
    return true
  }

  // Zoom and selection.

  private setZoom(zoom: Zoom, gently: boolean): void {
    if (JSON.stringify(zoom) === JSON.stringify(this.state.zoom ?? {})) return
    if (!gently) this.jump()
    const { zoom: _, ...rest } = this.state
    this.state = Object.keys(zoom).length > 0 ? { ...rest, zoom } : rest
  }

  private clicked(place: { x: number; y: number }, adds: boolean): void {
    if (!this.selecting.includes('click')) {
      if (this.selecting.length > 0) this.select(new Float64Array(0), false)
      else this.pointer.pin(!this.pointer.isPinned && this.selecting.length === 0)
      return
    }
    const composition = this.view.composition.value
    const { root } = this.view
    const within = (reach: number) =>
      rowsInBox(composition, root, {
        x: place.x - reach,
        y: place.y - reach,
        width: reach * 2,
        height: reach * 2,
      })
    let rows = within(1)
    const reading = rows.length === 0 ? readAt(composition, place.x, place.y) : undefined
    const near =
      reading?.rows.find(row => row.pointed) ?? (reading?.along === 'point' ? reading.rows[0] : undefined)
    if (reading && near && (Math.hypot(near.x - place.x, near.y - place.y) <= NEAR || isSlice(reading)))
      rows = this.rowsOf({ ...reading, rows: [near] })
    this.select(rows, adds)
  }

  private outlined(outline: readonly Corner[], box: boolean, adds: boolean): void {
    const composition = this.view.composition.value
    const { root } = this.view
    if (!box) {
      this.select(rowsInOutline(composition, root, outline), adds)
      return
    }
    const [[x, y], , [right, bottom]] = outline
    this.select(rowsInBox(composition, root, { x, y, width: right - x, height: bottom - y }), adds)
  }

  private rowsOf(reading: Reading): Float64Array {
    const rows = reading.rows.filter(row => row.pointed || reading.along === 'point')
    return serialsOf(this.view.root, rows)
  }

  /** Selects rows; `adds`: beside those that are selected, or takes them out where all of them are. */
  private select(serials: Float64Array, adds: boolean): void {
    this.jump()
    const { selected: before, ...rest } = this.state
    let next: ArrayLike<number> = serials
    if (adds && before?.length) {
      const known = new Set(Array.from(before))
      const all = Array.from(serials).every(serial => known.has(serial))
      for (const serial of serials) all ? known.delete(serial) : known.add(serial)
      next = Float64Array.from(known).sort()
    }
    if (next.length === 0 && !before) return
    this.state = next.length > 0 ? { ...rest, selected: next } : rest
    this.stage.say(next.length > 0 ? `${next.length.toLocaleString()} rows selected.` : 'Nothing selected.')
  }

  private toggle(key: string, alone: boolean): void {
    const hidden = new Set(this.state.hidden)
    const keys = this.view.composition.value.panes.flatMap(pane => pane.bound.legend.map(entry => entry.key))
    if (alone) {
      const others = keys.filter(one => one !== key)
      const isAlone = !hidden.has(key) && others.every(one => hidden.has(one))
      hidden.clear()
      // Isolated already: all come back.
      if (!isAlone) for (const one of others) hidden.add(one)
    } else if (hidden.has(key)) hidden.delete(key)
    else hidden.add(key)
    const { hidden: _, ...rest } = this.state
    this.state = hidden.size > 0 ? { ...rest, hidden: [...hidden] } : rest
  }

  private makeMenu(): Menu {
    const title = () => this.view.scene.title
    const items = [
      { words: 'Save as PNG', act: async () => download(await this.toPng(), fileName(title(), 'png')) },
      { words: 'Save as SVG', act: () => download(svgOf(this.view.scene), fileName(title(), 'svg')) },
      {
        words: 'Save data as CSV',
        act: () => download(new Blob([this.toCsv()], { type: 'text/csv' }), fileName(title(), 'csv')),
      },
      {
        words: 'Copy picture',
        act: async () => {
          await navigator.clipboard.write([new ClipboardItem({ 'image/png': this.toPng() })])
          this.stage.say('The picture is copied.')
        },
      },
      {
        words: 'Copy data',
        act: async () => {
          await navigator.clipboard.writeText(this.toCsv())
          this.stage.say('The data are copied.')
        },
      },
      {
        words: 'Show data',
        act: () => this.openTables(title(), dataTables(this.view.composition.value)),
      },
      { words: 'Print', act: () => print(this.view.scene) },
      {
        words: 'Reset',
        act: () => {
          this.state = {}
        },
      },
    ]
    return new Menu(this.stage.root, items, words => this.stage.say(words))
  }
}

/** Whether a reading is of a slice, which is meant wherever in it the pointer is. */
const isSlice = (reading: Reading) => reading.heading === '' && reading.rows.length === 2

function cellText(value: unknown): string {
  if (value === null || value === undefined) return ''
  return value instanceof Date
    ? value
        .toISOString()
        .replace('T', ' ')
        .replace(/:00\.000Z$|Z$/, '')
    : String(value)
}

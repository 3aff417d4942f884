import type { Composition, Told } from '@dapplo/core/internal'
import type { Reading, ReadingRow } from '@dapplo/core/small'
import { holds } from '../page/media.ts'

/** Pixels between the point and the card. */
const AWAY = 14
/** Pixels between the card and the edge of the screen. */
const EDGE = 4

const SVG = 'http://www.w3.org/2000/svg'

/** What a tooltip says beyond the values that are pointed at. */
export interface TooltipContent {
  /** Further lines about what is pointed at. */
  more(reading: Reading): readonly Told[]
  /** Everything that the card says instead: a text or an element; undefined for the usual. */
  own(reading: Reading): string | Node | undefined
}

/** The card that shows a reading. All texts are set as text, never as markup. */
export class Tooltip {
  private readonly root: HTMLElement
  private shown = ''
  /** Where the card belongs, in pixels of the chart. */
  private point = { x: 0, y: 0 }

  constructor(root: HTMLElement) {
    this.root = root
  }

  private made: HTMLDivElement | undefined

  /** Made once something is read. */
  private get card(): HTMLDivElement {
    if (this.made) return this.made
    const card = document.createElement('div')
    this.made = card
    card.className = 'dapplo-tooltip'
    // Not spoken by itself: what is read by keys is said once, and a pointer that passes says nothing.
    card.setAttribute('role', 'tooltip')
    Object.assign(card.style, {
      position: 'fixed',
      left: '0',
      top: '0',
      visibility: 'hidden',
      pointerEvents: 'none',
      zIndex: '1000',
      boxSizing: 'border-box',
      maxWidth: 'min(320px, 90vw)',
      padding: '8px 10px',
      borderRadius: '3px',
      border: '1px solid',
      fontSize: '12px',
      lineHeight: '1.35',
      fontVariantNumeric: 'tabular-nums',
    })
    return card
  }

  /** Keeps the card where it is, open to selecting its words. */
  pin(pinned: boolean): void {
    if (!this.made && !pinned) return
    Object.assign(this.card.style, {
      pointerEvents: pinned ? 'auto' : 'none',
      userSelect: pinned ? 'text' : 'none',
      outline: pinned ? '2px solid currentColor' : 'none',
    })
  }

  get isShown(): boolean {
    return this.shown !== ''
  }

  holds(target: Node): boolean {
    return this.made?.contains(target) === true
  }

  /** In the coordinates of the screen, so that no container cuts it off: the page's body, or what fills the screen. */
  private host(): Element {
    const dialog = this.root.closest('dialog[open]')
    const full = document.fullscreenElement
    return dialog ?? (full?.contains(this.root) ? full : document.body)
  }

  show(
    reading: Reading | undefined,
    composition: Composition,
    pointer: { x: number; y: number } | undefined,
    content: TooltipContent,
  ): void {
    if (!reading || !pointer || (reading.rows.length === 0 && reading.heading === '')) {
      if (this.made) this.made.style.visibility = 'hidden'
      this.shown = ''
      return
    }
    const { theme } = composition
    Object.assign(this.card.style, {
      fontFamily: theme.font,
      background: theme.surface,
      color: theme.text,
      borderColor: theme.strong,
    })
    const host = this.host()
    if (this.card.parentNode !== host) host.append(this.card)
    const more = content.more(reading)
    const said = JSON.stringify([
      reading.heading,
      reading.rows.map(row => [row.name, row.text, row.pointed, row.key]),
      reading.more,
      more,
      theme.name,
      composition.tongue.locale,
    ])
    if (said !== this.shown) {
      this.shown = said
      const own = content.own(reading)
      this.card.replaceChildren(...(own === undefined ? this.content(reading, more, composition) : [own]))
    }
    this.place(reading, pointer)
  }

  remove(): void {
    this.made?.remove()
  }

  private content(reading: Reading, told: readonly Told[], { theme, tongue }: Composition): Node[] {
    const nodes: Node[] = []
    if (reading.heading) {
      const heading = document.createElement('div')
      heading.className = 'dapplo-tooltip-heading'
      heading.textContent = reading.heading
      Object.assign(heading.style, {
        fontWeight: '600',
        paddingBottom: '5px',
        marginBottom: '6px',
        borderBottom: `1px solid ${theme.hairline}`,
        overflowWrap: 'anywhere',
      })
      if (reading.series) heading.append(stroke(reading.series))
      nodes.push(heading)
    }
    const list = document.createElement('div')
    Object.assign(list.style, {
      display: 'grid',
      gridTemplateColumns: 'auto auto',
      columnGap: '16px',
      rowGap: '4px',
    })
    for (const row of reading.rows) {
      const name = document.createElement('div')
      name.className = 'dapplo-tooltip-name'
      Object.assign(name.style, {
        minWidth: '0',
        overflowWrap: 'anywhere',
        fontWeight: row.pointed ? '600' : '400',
      })
      const text = document.createElement('div')
      text.textContent = row.name
      name.append(text)
      if (row.series) name.append(stroke(row.series))
      const value = document.createElement('div')
      value.className = 'dapplo-tooltip-value'
      value.textContent = row.text
      Object.assign(value.style, {
        textAlign: 'right',
        fontWeight: row.pointed ? '600' : '400',
        whiteSpace: 'nowrap',
      })
      list.append(name, value)
    }
    // Where several stand at one place, it is said whose the further lines are.
    const whose = several(reading) ? reading.rows.find(row => row.pointed) : undefined
    if (whose && told.length > 0) {
      const name = document.createElement('div')
      name.className = 'dapplo-tooltip-whose'
      name.textContent = whose.name
      Object.assign(name.style, { gridColumn: '1 / -1', fontWeight: '600', marginTop: '4px' })
      if (whose.series) name.append(stroke(whose.series))
      list.append(name)
    }
    for (const { name, text } of told) {
      const [label, value] = [document.createElement('div'), document.createElement('div')]
      label.textContent = name
      value.textContent = text
      Object.assign(label.style, { color: theme.muted })
      Object.assign(value.style, { textAlign: name === '' ? 'left' : 'right', overflowWrap: 'anywhere' })
      if (name === '') value.style.gridColumn = '1 / -1'
      list.append(...(name === '' ? [value] : [label, value]))
    }
    nodes.push(list)
    if (reading.more > 0) {
      const more = document.createElement('div')
      more.textContent = tongue.say('and {count} more', { count: reading.more })
      Object.assign(more.style, { color: theme.muted, marginTop: '6px' })
      nodes.push(more)
    }
    return nodes
  }

  /** Whether what is read is in sight, after the page or a container has scrolled. */
  isInSight(): boolean {
    const { x, y } = this.onScreen(this.point)
    const tree = this.root.getRootNode() as Document | ShadowRoot
    return this.root.contains(tree.elementFromPoint(x, y))
  }

  private onScreen({ x, y }: { x: number; y: number }): { x: number; y: number; scale: number } {
    const box = this.root.getBoundingClientRect()
    const scale = box.width / (this.root.clientWidth || box.width || 1)
    return { x: box.left + x * scale, y: box.top + y * scale, scale }
  }

  /** Beside the point, on the side with room; never over it and never off the screen. */
  private place(reading: Reading, pointer: { x: number; y: number }): void {
    this.point = {
      x: reading.along === 'y' ? pointer.x : reading.x,
      y: reading.along === 'x' ? pointer.y : reading.y,
    }
    const { x, y, scale } = this.onScreen(this.point)
    const lying = reading.along === 'y'
    const away = AWAY + (lying ? 0 : reading.reach * scale)
    const { offsetWidth: width, offsetHeight: height, style } = this.card
    const view = document.documentElement
    const beside = x + away + width <= view.clientWidth - EDGE ? x + away : x - away - width
    // Where neither side has room, as on a phone, the card stands above or below the point.
    const fits = beside >= EDGE && !lying
    const left = fits ? beside : Math.max(EDGE, Math.min(view.clientWidth - EDGE - width, x - width / 2))
    // A lying bar is covered by what stands beside the pointer, so its card stands above or below.
    const aside = AWAY + (lying ? reading.reach * scale : 0)
    const above = y - aside - height
    const wanted = fits ? y - height / 2 : above >= EDGE ? above : y + aside
    const top = Math.max(EDGE, Math.min(view.clientHeight - EDGE - height, wanted))
    const wasHidden = style.visibility === 'hidden'
    const still = wasHidden || holds('(prefers-reduced-motion: reduce)')
    style.transition = still ? 'none' : 'transform 90ms ease-out'
    style.transform = `translate(${Math.round(left)}px, ${Math.round(top)}px)`
    style.visibility = 'visible'
  }
}

/** Whether more than one series stands at the place that is read. */
const several = ({ rows }: Reading): boolean => rows.filter(row => row.series).length > 1

/** The run of the series' own stroke under its name. */
function stroke({ color, dash, swatch }: NonNullable<ReadingRow['series']>): SVGSVGElement {
  const svg = document.createElementNS(SVG, 'svg')
  const thick = swatch === 'rect' ? 4 : 2
  svg.setAttribute('width', '20')
  svg.setAttribute('height', String(thick))
  svg.setAttribute('aria-hidden', 'true')
  Object.assign(svg.style, { display: 'block', marginTop: '1px' })
  const line = document.createElementNS(SVG, swatch === 'disc' ? 'circle' : 'line')
  const attributes: Record<string, string | number> =
    swatch === 'disc'
      ? { cx: 4, cy: 4, r: 4, fill: color }
      : { x1: 0, y1: thick / 2, x2: 20, y2: thick / 2, stroke: color, 'stroke-width': thick }
  if (dash.length > 0) attributes['stroke-dasharray'] = dash.join(' ')
  if (swatch === 'disc') svg.setAttribute('height', '8')
  for (const [name, value] of Object.entries(attributes)) line.setAttribute(name, String(value))
  svg.append(line)
  return svg
}

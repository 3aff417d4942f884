import { type Context2D, paintCanvas, type Scene, type Theme, type Tongue } from '@dapplo/core/small'
import { whenIdle } from '../page/idle.ts'
import { Nearness } from '../page/near.ts'
import { soon } from '../page/rooms.ts'
import { hiddenStyle } from './hidden.ts'
import { Images } from './images.ts'
import { Notice } from './notice.ts'

let count = 0
/** The elements of a chart: two canvases, the upper one for what follows the pointer, and what those need who do not see or point. */
export class Stage {
  /** All of a chart: controls and plate. */
  readonly outer: HTMLDivElement
  /** What is drawn on, and pointed at. */
  readonly root: HTMLDivElement
  /** Takes the keyboard. */
  readonly focus: HTMLDivElement
  private readonly summary: HTMLDivElement
  private readonly voice: HTMLDivElement
  private readonly sign: Notice
  private readonly base: HTMLCanvasElement
  private readonly container: HTMLElement
  private readonly fallbackHeight: number | undefined
  private painted: { scene: Scene; density: number } | undefined
  /** What painting needs from the page. */
  readonly surroundings = new Images(() => {
    if (this.painted) this.paint(this.painted.scene, this.painted.density)
    this.pictured?.()
  })
  /** Called when a picture has come, or cannot be had. */
  pictured: (() => void) | undefined
  /** A static picture of the chart that the page came with: it stays until the first picture is painted. */
  private standIn: Element[]

  constructor(container: HTMLElement, fallbackHeight: number | undefined) {
    this.container = container
    this.fallbackHeight = fallbackHeight
    this.standIn = [...container.children]
    this.outer = document.createElement('div')
    this.outer.className = 'dapplo'
    this.outer.setAttribute('role', 'graphics-document')
    Object.assign(this.outer.style, {
      position: 'relative',
      width: '100%',
      height: '100%',
      overflow: 'hidden',
    })
    this.root = document.createElement('div')
    Object.assign(this.root.style, {
      position: 'relative',
      width: '100%',
      overflow: 'hidden',
      touchAction: 'pan-y pinch-zoom',
      // A double click would else select the picture as if it were text, and the next press would drag that away.
      userSelect: 'none',
      webkitUserSelect: 'none',
    })
    this.root.addEventListener('dragstart', event => event.preventDefault())
    this.base = canvas()
    this.summary = document.createElement('div')
    this.summary.id = `dapplo-summary-${++count}`
    this.voice = document.createElement('div')
    this.voice.setAttribute('role', 'status')
    const heard = document.createElement('div')
    Object.assign(heard.style, hiddenStyle)
    heard.append(this.summary, this.voice)
    this.focus = document.createElement('div')
    this.focus.className = 'dapplo-keys'
    this.outer.setAttribute('aria-describedby', this.summary.id)
    Object.assign(this.focus.style, {
      position: 'absolute',
      inset: '2px',
      outline: 'none',
      // A page's own rule would else put the ring where the chart ends.
      outlineOffset: '0',
      borderRadius: '3px',
    })
    // In the colour of the words, which stands out by day and night: the system's own need not.
    const ring = () => {
      this.focus.style.outline = this.focus.matches(':focus-visible') ? '2px solid currentColor' : 'none'
    }
    this.focus.addEventListener('focus', ring)
    this.focus.addEventListener('blur', ring)
    this.sign = new Notice(this.root)
    this.root.append(this.base, this.focus, heard)
    this.outer.append(this.root)
  }

  private madeTop: HTMLCanvasElement | undefined

  /** The upper canvas, made once something is marked. */
  private get top(): HTMLCanvasElement {
    if (!this.madeTop) {
      this.madeTop = canvas()
      this.madeTop.style.pointerEvents = 'none'
      this.base.after(this.madeTop)
    }
    return this.madeTop
  }

  /** What the chart itself is painted on. */
  get canvas(): HTMLCanvasElement {
    return this.base
  }

  /** Puts controls over the plate, in place of others. */
  putControls(controls: HTMLElement | undefined): void {
    this.controls?.remove()
    this.controls = controls
    if (controls) this.outer.prepend(controls)
  }

  private controls: HTMLElement | undefined
  /** The row under the plate; absent while nothing stands in it. */
  foot: HTMLElement | undefined

  private theme: Theme | undefined

  /** Takes the theme's colours and font for what lies over the plate. */
  dress(theme: Theme): void {
    if (theme === this.theme) return
    this.theme = theme
    this.root.style.color = theme.text
    this.sign.dress(theme)
  }

  /** A short notice over the plate, such as that data are old; empty for none. */
  notice(words: string): void {
    this.sign.say(words)
  }

  /** Whether what is shown waits for values that are on their way. */
  busy(waits: boolean): void {
    if (waits) this.outer.setAttribute('aria-busy', 'true')
    else this.outer.removeAttribute('aria-busy')
  }

  /** Says something to those who listen. */
  say(words: string): void {
    this.voice.textContent = words
  }

  /** Where an event happened, in pixels of the chart, also where the page has scaled or turned it. */
  placeOf(event: MouseEvent): { x: number; y: number } {
    const box = this.root.getBoundingClientRect()
    const width = this.root.clientWidth || box.width || 1
    const height = this.root.clientHeight || box.height || 1
    return {
      x: ((event.clientX - box.left) / (box.width || 1)) * width,
      y: ((event.clientY - box.top) / (box.height || 1)) * height,
    }
  }

  /** What was seen of the container and not yet taken. */
  private seen: { width: number; own: number; above: number } | undefined
  /** The container's content as it was when it was taken last. */
  private taken: { width: number; height: number } | undefined

  /** Measured without the chart itself, or a container that grows with its content would keep the height it once had. */
  letGo(): void {
    if (this.outer.parentNode === this.container) this.outer.style.height = '0'
    for (const element of this.standIn) (element as HTMLElement).style.display = 'none'
  }

  look(): void {
    const style = getComputedStyle(this.container)
    const inner = (
      sum: number,
      ...names: ('paddingLeft' | 'paddingRight' | 'paddingTop' | 'paddingBottom')[]
    ) => sum - names.reduce((all, name) => all + (Number.parseFloat(style[name]) || 0), 0)
    this.seen = {
      width: inner(this.container.clientWidth, 'paddingLeft', 'paddingRight') || 600,
      own: inner(this.container.clientHeight, 'paddingTop', 'paddingBottom'),
      above: (this.controls?.offsetHeight ?? 0) + (this.foot?.offsetHeight ?? 0),
    }
  }

  /** Whether an observed size is the one that was taken; what stands beside the plate has its height only on the page. */
  knows({ contentRect: { width, height } }: ResizeObserverEntry): boolean {
    const { taken } = this
    const beside = this.controls || this.foot
    return (
      taken !== undefined &&
      !beside &&
      Math.abs(width - taken.width) < 1 &&
      Math.abs(height - taken.height) < 1
    )
  }

  /** The room that the container gives, in pixels. */
  size(): { width: number; height: number } {
    if (!this.seen) {
      this.letGo()
      this.look()
    }
    const { width, own, above } = this.seen!
    this.seen = undefined
    for (const element of this.standIn) (element as HTMLElement).style.display = ''
    const height = own > 1 ? own : (this.fallbackHeight ?? Math.max(200, Math.round(width * 0.6))) + above
    this.outer.style.height = own > 1 ? '100%' : `${height}px`
    const plate = Math.max(1, height - above)
    this.root.style.height = `${plate}px`
    this.taken = { width, height }
    return { width, height: plate }
  }

  paint(scene: Scene, density: number): void {
    this.painted = { scene, density }
    this.near ??= new Nearness(this.container, this.container.getBoundingClientRect())
    this.near.paintSoon(() => {
      fit(this.base, scene, density)
      const context = this.base.getContext('2d')
      if (context) paintCanvas(scene, context as unknown as Context2D, density, this.surroundings)
    })
    if (this.outer.parentNode === this.container || this.entering) return
    this.entering = true
    soon(() => this.enter())
  }

  private near: Nearness | undefined

  /** Has every picture painted, also far from the window, until the returned function is called. */
  holdPainted(): () => void {
    return this.near?.hold() ?? (() => {})
  }

  private entering = false

  /** Takes the place of what the container held. */
  private enter(): void {
    this.entering = false
    if (!this.painted) return
    this.container.replaceChildren(this.outer)
    this.standIn = []
  }

  /** The upper canvas, cleared, in the scene's size, and as fine as the lower one. */
  upper(scene: Scene): CanvasRenderingContext2D | null {
    const { density } = this.painted ?? { density: 1 }
    fit(this.top, scene, density)
    const context = this.top.getContext('2d')
    context?.setTransform(density, 0, 0, density, 0, 0)
    context?.clearRect(0, 0, scene.width, scene.height)
    return context
  }

  private takesKeys = false

  /** Lets people tab into the chart, to read it by keys. */
  takeKeys(): void {
    this.takesKeys = true
    this.focus.tabIndex = 0
    this.focus.setAttribute('role', 'application')
    this.focus.setAttribute('aria-describedby', this.summary.id)
    this.outer.removeAttribute('aria-describedby')
  }

  /** Says what the picture shows to those who cannot see it; `tones`: whether they can hear its series. */
  name(scene: Scene, { say }: Tongue, tones = false): void {
    const title = scene.title || say('chart')
    this.outer.setAttribute('aria-label', title)
    this.outer.setAttribute('aria-roledescription', say('chart'))
    if (this.takesKeys) {
      const keys = tones
        ? say('{title}. Arrow keys read values, S plays them as tones.', { title })
        : say('{title}. Arrow keys read values.', { title })
      this.focus.setAttribute('aria-label', keys)
      this.focus.setAttribute('aria-roledescription', say('chart'))
    }
    // What is heard need not come with each picture: the page lays it out once it has time for that.
    this.told = scene.description
    this.telling ??= whenIdle(() => {
      this.telling = undefined
      if (this.summary.textContent !== this.told) this.summary.textContent = this.told
    })
  }

  private told = ''
  private telling: (() => void) | undefined

  remove(): void {
    this.painted = undefined
    this.telling?.()
    this.near?.leave()
    this.outer.remove()
  }
}

function canvas(): HTMLCanvasElement {
  const element = document.createElement('canvas')
  Object.assign(element.style, { position: 'absolute', left: '0', top: '0', display: 'block' })
  element.setAttribute('aria-hidden', 'true')
  return element
}

/** Sizes a canvas to whole device pixels; setting a size clears it, so only when it differs. */
function fit(element: HTMLCanvasElement, scene: Scene, density: number): void {
  const width = Math.max(1, Math.round(scene.width * density))
  const height = Math.max(1, Math.round(scene.height * density))
  if (element.width !== width) element.width = width
  if (element.height !== height) element.height = height
  element.style.width = `${scene.width}px`
  element.style.height = `${scene.height}px`
}

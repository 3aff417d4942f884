import { type Context2D, paintCanvas, type Scene, safePicture } from '@dapplo/core/small'

/** The elements of a chart: two canvases, the upper one for what follows the pointer. */
export class Stage {
  readonly root: HTMLDivElement
  readonly top: HTMLCanvasElement
  private readonly base: HTMLCanvasElement
  private readonly container: HTMLElement
  private readonly fallbackHeight: number | undefined
  private painted: { scene: Scene; density: number } | undefined
  private readonly loaded = new Map<string, HTMLImageElement>()
  /** A static picture of the chart that the page came with: it stays until the first picture is painted. */
  private standIn: Element[]

  constructor(container: HTMLElement, fallbackHeight: number | undefined) {
    this.container = container
    this.fallbackHeight = fallbackHeight
    this.standIn = [...container.children]
    this.root = document.createElement('div')
    Object.assign(this.root.style, {
      position: 'relative',
      width: '100%',
      height: '100%',
      overflow: 'hidden',
      touchAction: 'pan-y',
    })
    this.root.setAttribute('role', 'img')
    this.root.className = 'dapplo'
    this.base = canvas()
    this.top = canvas()
    this.top.style.pointerEvents = 'none'
    this.root.append(this.base, this.top)
  }

  /** The room that the container gives, in pixels. */
  size(): { width: number; height: number } {
    const style = getComputedStyle(this.container)
    const inner = (
      sum: number,
      ...names: ('paddingLeft' | 'paddingRight' | 'paddingTop' | 'paddingBottom')[]
    ) => sum - names.reduce((all, name) => all + (Number.parseFloat(style[name]) || 0), 0)
    const width = inner(this.container.clientWidth, 'paddingLeft', 'paddingRight') || 600
    // Measured without the chart itself, or a container that grows with its content would keep the height it once had.
    const before = this.root.style.height
    this.root.style.height = '0'
    for (const element of this.standIn) (element as HTMLElement).style.display = 'none'
    const own = inner(this.container.clientHeight, 'paddingTop', 'paddingBottom')
    for (const element of this.standIn) (element as HTMLElement).style.display = ''
    this.root.style.height = before
    const height = own > 1 ? own : (this.fallbackHeight ?? Math.max(200, Math.round(width * 0.6)))
    this.root.style.height = own > 1 ? '100%' : `${height}px`
    return { width, height }
  }

  paint(scene: Scene, density: number): void {
    fit(this.base, scene, density)
    const context = this.base.getContext('2d')
    this.painted = { scene, density }
    if (context) paintCanvas(scene, context as unknown as Context2D, density, this.surroundings)
    if (this.root.parentNode !== this.container) {
      this.container.replaceChildren(this.root)
      this.standIn = []
    }
  }

  /** A picture, once it has loaded; then the scene is painted again. One that cannot be loaded stays away. */
  private readonly pictures = (href: string) => {
    let image = this.loaded.get(href)
    const safe = safePicture(href)
    if (!image && safe !== undefined) {
      image = new Image()
      image.addEventListener(
        'load',
        () => this.painted && this.paint(this.painted.scene, this.painted.density),
      )
      image.src = safe
      this.loaded.set(href, image)
    }
    if (!image?.complete || image.naturalWidth === 0) return undefined
    return { source: image, width: image.naturalWidth, height: image.naturalHeight }
  }

  /** A canvas that holds a picture of colour values; the last one is kept, since it is painted again with every layer. */
  private readonly bitmap = (rgba: Uint8ClampedArray, columns: number, rows: number) => {
    if (this.dots?.rgba === rgba) return this.dots.canvas
    const canvas = document.createElement('canvas')
    canvas.width = columns
    canvas.height = rows
    canvas.getContext('2d')?.putImageData(new ImageData(new Uint8ClampedArray(rgba), columns, rows), 0, 0)
    this.dots = { rgba, canvas }
    return canvas
  }

  private dots: { rgba: Uint8ClampedArray; canvas: HTMLCanvasElement } | undefined
  private readonly surroundings = { pictures: this.pictures, bitmap: this.bitmap }

  /** The upper canvas, cleared, in the scene's size. */
  upper(scene: Scene, density: number): CanvasRenderingContext2D | null {
    fit(this.top, scene, density)
    const context = this.top.getContext('2d')
    context?.setTransform(density, 0, 0, density, 0, 0)
    context?.clearRect(0, 0, scene.width, scene.height)
    return context
  }

  /** Says what the picture shows to those who cannot see it. */
  name(scene: Scene): void {
    this.root.setAttribute('aria-label', `${scene.title}. ${scene.description}`.trim())
  }

  remove(): void {
    this.painted = undefined
    this.root.remove()
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

import { safePicture } from '@dapplo/core/internal'
import type { Finding, Surroundings } from '@dapplo/core/small'

/** Pictures for a canvas: those behind addresses, once they have loaded, and those of colour values. */
export class Images {
  private readonly loaded = new Map<string, HTMLImageElement>()
  private readonly dots = new WeakMap<Uint8ClampedArray, HTMLCanvasElement | 'seen'>()
  private readonly arrived: () => void
  private readonly failed = new Set<string>()
  /** Given by the parts that let frames follow each other. */
  dense: Surroundings['dense']

  /** `arrived`: called when a picture that was asked for has loaded, or cannot be. */
  constructor(arrived: () => void) {
    this.arrived = arrived
  }

  /** What of the pictures that were asked for cannot be shown. */
  get findings(): Finding[] {
    return [...this.failed].map(href => ({
      code: 'no-picture',
      message: `The picture ${href.slice(0, 80)} cannot be shown`,
      remedy: 'Check its address, its kind, and whether this page may load it.',
      path: 'images',
    }))
  }

  /** A picture, once it has loaded. One that cannot be loaded stays away. */
  readonly pictures = (href: string) => {
    let image = this.loaded.get(href)
    const safe = safePicture(href)
    if (!image && safe !== undefined) {
      image = new Image()
      image.addEventListener('load', this.arrived)
      image.addEventListener('error', () => {
        this.failed.add(href)
        this.arrived()
      })
      image.src = safe
      this.loaded.set(href, image)
    }
    if (!image?.complete || image.naturalWidth === 0) return undefined
    return { source: image, width: image.naturalWidth, height: image.naturalHeight }
  }

  /**
   * A canvas that holds a picture of colour values. It is kept with these once they are painted again, as with every layer
   * above them; those of a frame that passes share one, since a new one is slow to write to.
   */
  readonly bitmap = (rgba: Uint8ClampedArray, columns: number, rows: number) => {
    const known = this.dots.get(rgba)
    if (known instanceof HTMLCanvasElement) return known
    const canvas =
      known === 'seen' ? document.createElement('canvas') : (passing ??= document.createElement('canvas'))
    this.dots.set(rgba, known === 'seen' ? canvas : 'seen')
    if (canvas.width !== columns) canvas.width = columns
    if (canvas.height !== rows) canvas.height = rows
    const image = new ImageData(rgba as Uint8ClampedArray<ArrayBuffer>, columns, rows)
    canvas.getContext('2d')?.putImageData(image, 0, 0)
    return canvas
  }
}

/** Takes the pictures of frames that pass. */
let passing: HTMLCanvasElement | undefined

import { safePicture } from '@dapplo/core/internal'
import type { Finding } from '@dapplo/core/small'

/** Pictures for a canvas: those behind addresses, once they have loaded, and those of colour values. */
export class Images {
  private readonly loaded = new Map<string, HTMLImageElement>()
  private readonly dots = new WeakMap<Uint8ClampedArray, HTMLCanvasElement>()
  private readonly arrived: () => void
  private readonly failed = new Set<string>()

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

  /** A canvas that holds a picture of colour values; the last one is kept, since it is painted again with every layer. */
  readonly bitmap = (rgba: Uint8ClampedArray, columns: number, rows: number) => {
    const known = this.dots.get(rgba)
    if (known) return known
    const canvas = document.createElement('canvas')
    canvas.width = columns
    canvas.height = rows
    canvas
      .getContext('2d')
      ?.putImageData(new ImageData(rgba as Uint8ClampedArray<ArrayBuffer>, columns, rows), 0, 0)
    this.dots.set(rgba, canvas)
    return canvas
  }
}

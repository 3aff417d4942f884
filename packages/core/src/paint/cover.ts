import type { Rgb } from '../theme/contrast.ts'
import { inkPixel } from '../theme/ink-pixel.ts'

/** Pixels whose cover is looked at in one go. */
const WORD = 4

let spare: WeakRef<Cover> | undefined

/**
 * A picture in device pixels that lines are inked into. A pixel is covered by as much as its middle is near to the
 * line; where parts of one line lie on each other, it is free where both leave it free.
 */
export class Cover {
  /** Red, green, blue and opacity of each pixel, row by row; colours are not multiplied by opacity. */
  private readonly bytes: Uint8ClampedArray
  private readonly columns: number
  private readonly rows: number
  /** How much of each pixel the line covers that is being traced, 0 to 255; rows begin on whole words. */
  private readonly cover: Uint8Array
  private readonly stride: number
  /** The pixels that the line may have reached: from the first column and row up to the last. */
  private left = Number.POSITIVE_INFINITY
  private top = Number.POSITIVE_INFINITY
  private right = Number.NEGATIVE_INFINITY
  private bottom = Number.NEGATIVE_INFINITY

  /** An empty picture: the one before, where it was as large, since room that is new is slow to write to. */
  static empty(columns: number, rows: number): Cover {
    const before = spare?.deref()
    if (before?.columns === columns && before.rows === rows) {
      before.bytes.fill(0)
      return before
    }
    const cover = new Cover(columns, rows)
    spare = new WeakRef(cover)
    return cover
  }

  private constructor(columns: number, rows: number) {
    this.columns = columns
    this.rows = rows
    this.stride = Math.ceil(columns / WORD) * WORD
    this.bytes = new Uint8ClampedArray(columns * rows * 4)
    this.cover = new Uint8Array(this.stride * rows)
  }

  /** The picture, until the next one is begun: whoever keeps it copies it. */
  get rgba(): Uint8ClampedArray {
    return new Uint8ClampedArray(this.bytes.buffer)
  }

  /**
   * Covers what lies beside a segment from a point in direction u, up to `reach` and half a pixel from it, and no
   * further than its ends. Goes by lines of pixels along which the segment runs, so that there are few of them.
   */
  segment(x: number, y: number, ux: number, uy: number, length: number, reach: number): void {
    const { columns, rows, cover } = this
    this.extend(x, y, x + ux * length, y + uy * length, reach + 1)
    const steep = Math.abs(uy) > Math.abs(ux)
    const [at, beside] = steep ? [y, x] : [x, y]
    const [along, aside] = steep ? [uy, ux] : [ux, uy]
    const [most, lines] = steep ? [rows, columns] : [columns, rows]
    const [stride, between] = steep ? [this.stride, 1] : [1, this.stride]
    const outer = reach + 0.5
    const end = beside + aside * length
    const last = Math.min(lines - 1, Math.floor(Math.max(beside, end) + outer))
    for (let line = Math.max(0, Math.floor(Math.min(beside, end) - outer)); line <= last; line++) {
      const off = line + 0.5 - beside
      // Where the line of pixels enters and leaves the strip, counted from the segment's first point.
      let from = (-off * aside) / along
      let to = (length - off * aside) / along
      if (along < 0) [from, to] = [to, from]
      if (aside !== 0) {
        const [a, b] = [(off * along - outer) / aside, (off * along + outer) / aside]
        from = Math.max(from, Math.min(a, b))
        to = Math.min(to, Math.max(a, b))
      }
      // The middle of a pixel that lies on an end belongs to the beginning of a segment.
      const first = along < 0 ? Math.floor(from + at - 0.5) + 1 : Math.ceil(from + at - 0.5)
      const past = along < 0 ? Math.floor(to + at - 0.5) + 1 : Math.ceil(to + at - 0.5)
      const start = Math.max(0, first)
      const stop = line * between + Math.min(most, past) * stride
      let far = off * along - (start + 0.5 - at) * aside
      for (let pixel = line * between + start * stride; pixel < stop; pixel += stride, far -= aside) {
        const part = outer - Math.abs(far)
        const before = cover[pixel]
        if (before === 255 || part <= 0) continue
        cover[pixel] = together(before, part)
      }
    }
  }

  /** Covers what lies around a point, of what is past the end of a segment in direction u and before one in direction v. */
  joint(x: number, y: number, ux: number, uy: number, vx: number, vy: number, reach: number): void {
    const { columns, stride, cover } = this
    const outer = reach + 0.5
    const last = Math.min(this.rows - 1, Math.floor(y + outer))
    const right = Math.min(columns - 1, Math.floor(x + outer))
    for (let row = Math.max(0, Math.floor(y - outer)); row <= last; row++) {
      const down = row + 0.5 - y
      for (let column = Math.max(0, Math.floor(x - outer)); column <= right; column++) {
        const across = column + 0.5 - x
        if (across * ux + down * uy < 0 || across * vx + down * vy >= 0) continue
        const part = outer - Math.sqrt(across * across + down * down)
        if (part <= 0) continue
        const pixel = row * stride + column
        cover[pixel] = together(cover[pixel], part)
      }
    }
  }

  /** Lays a colour over the picture where the line covers it, and begins the next line. */
  ink(color: Rgb, opacity: number): void {
    const { bytes, cover, columns, stride } = this
    const [left, right] = [Math.max(0, this.left), Math.min(columns - 1, this.right)]
    const [top, bottom] = [Math.max(0, this.top), Math.min(this.rows - 1, this.bottom)]
    const words = new Uint32Array(cover.buffer)
    const whole = new Uint32Array(bytes.buffer)
    const { ink, solid } = inkPixel(color)
    for (let row = top; row <= bottom; row++) {
      const last = (row * stride + right) >> 2
      for (let word = (row * stride + left) >> 2; word <= last; word++) {
        if (words[word] === 0) continue
        for (let at = word * WORD; at < word * WORD + WORD; at++) {
          if (cover[at] === 0) continue
          const own = cover[at] * opacity
          const pixel = at - row * (stride - columns)
          const below = bytes[pixel * 4 + 3]
          if (below === 0 || own === 255) whole[pixel] = ink + (own | 0) * solid
          else this.blend(pixel * 4, color, own, own + below * (1 - own / 255))
        }
        words[word] = 0
      }
    }
    this.left = this.top = Number.POSITIVE_INFINITY
    this.right = this.bottom = Number.NEGATIVE_INFINITY
  }

  private blend(at: number, [r, g, b]: Rgb, own: number, sum: number): void {
    const { bytes } = this
    const share = own / sum
    bytes[at] += (r - bytes[at]) * share
    bytes[at + 1] += (g - bytes[at + 1]) * share
    bytes[at + 2] += (b - bytes[at + 2]) * share
    bytes[at + 3] = sum
  }

  private extend(ax: number, ay: number, bx: number, by: number, around: number): void {
    this.left = Math.min(this.left, Math.floor(Math.min(ax, bx) - around))
    this.top = Math.min(this.top, Math.floor(Math.min(ay, by) - around))
    this.right = Math.max(this.right, Math.ceil(Math.max(ax, bx) + around))
    this.bottom = Math.max(this.bottom, Math.ceil(Math.max(ay, by) + around))
  }
}

/** How much of a pixel is covered, 0 to 255, once another part of the line covers a share of it. */
const together = (before: number, part: number): number =>
  part >= 1 ? 255 : before + (255 - before) * part + 0.5

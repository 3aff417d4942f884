import stringWidth from 'string-width'
import { charactersOf, clean, MIDDLE } from '../guide/text.ts'
import type { Batch, Scene, Texts } from '../scene/scene.ts'
import type { Measure } from '../theme/text-width.ts'

/** A character of a terminal, in pixels of the scene that is painted with them. */
export const CELL = { width: 8, height: 15 }

/** Every character takes one cell; those of Chinese, Japanese and Korean and pictographs take two, combining marks none. */
export const measureTerminal: Measure = text => stringWidth(text) * CELL.width

/** Fills of a cell from below, in eighths. */
const EIGHTHS = [' ', '▁', '▂', '▃', '▄', '▅', '▆', '▇', '█']
/** Fills of a cell from the left, in eighths. */
const LEFT = [' ', '▏', '▎', '▍', '▌', '▋', '▊', '▉', '█']
/** The bits of the dots of a braille character, row by row. */
const DOTS = [
  [0x01, 0x08],
  [0x02, 0x10],
  [0x04, 0x20],
  [0x40, 0x80],
]

/**
 * The scene as text in plain Unicode: bars as blocks, lines and points as dots, words as they are. The scene must have
 * been composed with `measureTerminal`, in a frame of whole cells.
 */
export function toTerminalText(scene: Scene): string {
  const sheet = new Sheet(Math.floor(scene.width / CELL.width), Math.floor(scene.height / CELL.height))
  for (const batch of scene.batches) if (batch.part === 'data') sheet.shapes(batch)
  for (const batch of scene.batches)
    if (batch.kind === 'segments' && batch.id.startsWith('zero')) sheet.strokes(batch)
  for (const batch of scene.batches) if (batch.kind === 'texts') sheet.words(batch)
  return sheet.text
}

class Sheet {
  private readonly columns: number
  private readonly rows: number
  private readonly cells: string[]
  private readonly dots: Uint8Array

  constructor(columns: number, rows: number) {
    this.columns = columns
    this.rows = rows
    this.cells = new Array(columns * rows).fill(' ')
    this.dots = new Uint8Array(columns * rows)
  }

  get text(): string {
    const lines: string[] = []
    for (let row = 0; row < this.rows; row++) {
      let line = ''
      for (let column = 0; column < this.columns; column++) {
        const i = row * this.columns + column
        line +=
          this.cells[i] !== ' '
            ? this.cells[i]
            : this.dots[i]
              ? String.fromCodePoint(0x2800 + this.dots[i])
              : ' '
      }
      lines.push(line.trimEnd())
    }
    while (lines.length > 0 && lines[lines.length - 1] === '') lines.pop()
    while (lines.length > 0 && lines[0] === '') lines.shift()
    return lines.join('\n')
  }

  shapes(batch: Batch): void {
    if (batch.kind === 'rects') {
      const lying = batch.round.some(side => side === 2 || side === 4)
      for (let i = 0; i < batch.x.length; i++)
        if (batch.width[i] > 0 && batch.height[i] > 0)
          this.bar(batch.x[i], batch.y[i], batch.width[i], batch.height[i], lying)
    } else if (batch.kind === 'discs') {
      for (let i = 0; i < batch.x.length; i++) if (batch.radius[i] > 0) this.dot(batch.x[i], batch.y[i])
    } else if (batch.kind === 'lines') {
      for (let line = 0; line < batch.names.length; line++)
        for (let i = batch.starts[line] + 1; i < batch.starts[line + 1]; i++)
          this.stroke(batch.x[i - 1], batch.y[i - 1], batch.x[i], batch.y[i])
    } else if (batch.kind === 'areas') {
      for (let area = 0; area < batch.names.length; area++)
        for (let i = batch.starts[area] + 1; i < batch.starts[area + 1]; i++)
          this.stroke(batch.x[i - 1], batch.top[i - 1], batch.x[i], batch.top[i])
    } else if (batch.kind === 'segments') this.strokes(batch)
    else if (batch.kind === 'wedges') {
      for (let i = 0; i < batch.x.length; i++) {
        for (let angle = batch.from[i]; angle < batch.to[i]; angle += 0.01)
          this.dot(
            batch.x[i] + Math.sin(angle) * batch.outer[i],
            batch.y[i] - Math.cos(angle) * batch.outer[i],
          )
        for (let reach = batch.inner[i]; reach < batch.outer[i]; reach += 2)
          this.dot(batch.x[i] + Math.sin(batch.from[i]) * reach, batch.y[i] - Math.cos(batch.from[i]) * reach)
      }
    } else if (batch.kind === 'pixels') {
      const size = batch.width[0] / batch.columns
      for (let i = 0; i < batch.rgba.length / 4; i++)
        if (batch.rgba[i * 4 + 3] > 0)
          this.dot(batch.x[0] + (i % batch.columns) * size, batch.y[0] + Math.floor(i / batch.columns) * size)
    }
  }

  strokes(batch: Extract<Batch, { kind: 'segments' }>): void {
    for (let i = 0; i < batch.x1.length; i++) this.stroke(batch.x1[i], batch.y1[i], batch.x2[i], batch.y2[i])
  }

  words({ texts, x, y, anchor, size, turn }: Texts): void {
    texts.forEach((text, i) => {
      // Slanted words would lie across each other; the axis is read by the others.
      if (turn !== 0) return
      const letters = charactersOf(clean(text).replace(/\n/g, ' '))
      const width = stringWidth(letters.join('')) * CELL.width
      const left = anchor === 'start' ? x[i] : anchor === 'middle' ? x[i] - width / 2 : x[i] - width
      const row = Math.floor((y[i] - size * MIDDLE) / CELL.height)
      if (row < 0 || row >= this.rows) return
      let column = Math.round(left / CELL.width)
      for (const letter of letters) {
        const cells = stringWidth(letter)
        // What has no width of its own would push the rest of its line aside.
        if (cells > 0 && column >= 0 && column + cells <= this.columns) {
          const at = row * this.columns + column
          // Half of a wide letter is none: what is left of one that is written over becomes a blank.
          if (this.cells[at] === '') this.cells[at - 1] = ' '
          if (this.cells[at + cells] === '') this.cells[at + cells] = ' '
          this.cells[at] = letter
          for (let k = 1; k < cells; k++) this.cells[at + k] = ''
        }
        column += cells
      }
    })
  }

  private bar(x: number, y: number, width: number, height: number, lying: boolean): void {
    const [left, right] = [x / CELL.width, (x + width) / CELL.width]
    const [top, bottom] = [y / CELL.height, (y + height) / CELL.height]
    const overlap = (from: number, to: number, cell: number) =>
      Math.max(0, Math.min(to, cell + 1) - Math.max(from, cell))
    // A lying bar is whole rows high, around its middle: as many for each, and no more than leave room between them.
    const rows = Math.max(1, Math.floor(bottom - top + 0.1))
    const middle = Math.floor((top + bottom) / 2)
    const about = Math.round((top + bottom - rows) / 2)
    // Its name stands in the row of its middle.
    const first = lying ? Math.max(middle - rows + 1, Math.min(middle, about)) : Math.floor(top)
    const last = lying ? first + rows : bottom
    for (let row = Math.max(0, first); row < Math.min(this.rows, last); row++)
      for (let column = Math.max(0, Math.floor(left)); column < Math.min(this.columns, right); column++) {
        const across = overlap(left, right, column)
        const up = overlap(top, bottom, row)
        // Thin bars still show: the cell that holds most of one is its.
        const thin = !lying && across < 0.5 && width > CELL.width * 0.6
        if (thin) continue
        const fill = Math.round((lying ? across : up) * 8)
        if (fill > 0) this.cells[row * this.columns + column] = (lying ? LEFT : EIGHTHS)[fill]
      }
  }

  private stroke(x1: number, y1: number, x2: number, y2: number): void {
    const length = Math.hypot(x2 - x1, y2 - y1)
    if (!(length >= 0)) return
    const steps = Math.min(4000, Math.max(1, Math.ceil(length / 2)))
    for (let i = 0; i <= steps; i++) this.dot(x1 + ((x2 - x1) * i) / steps, y1 + ((y2 - y1) * i) / steps)
  }

  private dot(x: number, y: number): void {
    const column = Math.floor(x / CELL.width)
    const row = Math.floor(y / CELL.height)
    if (!(column >= 0 && column < this.columns && row >= 0 && row < this.rows)) return
    const dx = Math.min(1, Math.floor(((x / CELL.width) % 1) * 2))
    const dy = Math.min(3, Math.floor(((y / CELL.height) % 1) * 4))
    this.dots[row * this.columns + column] |= DOTS[dy][dx]
  }
}

import { clean } from '../guide/text.ts'
import type { Scene, Texts } from '../scene/scene.ts'
import type { Context2D } from './context.ts'

export function paintTexts(batch: Texts, scene: Scene, context: Context2D): void {
  const { x, y, texts, size, weight, anchor, turn, color, colors, alpha } = batch
  context.font = `${weight} ${size}px ${scene.font}`
  context.textBaseline = 'alphabetic'
  const write = batch.tabular ? inColumns(context, anchor) : plainly(context, anchor)
  for (let i = 0; i < texts.length; i++) {
    context.globalAlpha = alpha ? alpha[i] : 1
    context.fillStyle = colors[color[i]]
    const text = clean(texts[i])
    if (turn === 0) {
      if (batch.halo) {
        context.strokeStyle = batch.halo
        context.lineWidth = 3
        context.lineJoin = 'round'
        write(text, x[i], y[i], 'strokeText')
      }
      write(text, x[i], y[i], 'fillText')
      continue
    }
    context.save()
    context.translate(x[i], y[i])
    context.rotate((turn * Math.PI) / 180)
    write(text, 0, 0, 'fillText')
    context.restore()
  }
  context.globalAlpha = 1
}

type Write = (text: string, x: number, y: number, how: 'fillText' | 'strokeText') => void

function plainly(context: Context2D, anchor: Texts['anchor']): Write {
  context.textAlign = anchor === 'middle' ? 'center' : anchor === 'start' ? 'left' : 'right'
  return (text, x, y, how) => context[how](text, x, y)
}

/** A canvas cannot be told to give all figures one width, so each is put into the middle of a room as wide as a zero. */
function inColumns(context: Context2D, anchor: Texts['anchor']): Write {
  const widthOf = (text: string): number => context.measureText?.(text).width ?? 0
  const widths = Array.from('0123456789', widthOf)
  const [room] = widths
  if (widths.every(width => Math.abs(width - room) < 0.01)) return plainly(context, anchor)
  context.textAlign = 'left'
  return (text, x, y, how) => {
    const pieces = text.match(/\d|\D+/g) ?? []
    const rooms = pieces.map(piece => (/\d/.test(piece) ? room : widthOf(piece)))
    const whole = rooms.reduce((sum, room) => sum + room, 0)
    let at = anchor === 'start' ? x : anchor === 'middle' ? x - whole / 2 : x - whole
    pieces.forEach((piece, i) => {
      const own = /\d/.test(piece) ? widths[Number(piece)] : rooms[i]
      context[how](piece, at + (rooms[i] - own) / 2, y)
      at += rooms[i]
    })
  }
}

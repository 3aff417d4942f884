import type { Composition, Pane } from '@dapplo/core/internal'
import type { Reading, Theme } from '@dapplo/core/small'

type Context = CanvasRenderingContext2D

/** Marks what is pointed at on the upper canvas: a guide line with its value at the axis, and the shapes themselves. */
export function highlight(context: Context, reading: Reading, pane: Pane, composition: Composition): void {
  const { theme } = composition
  const { plot, bound } = pane
  const bars = bound.drawings.every(drawn => drawn.drawing.kind.swatch === 'rect' || drawn.drawing.kind.aside)
  if (reading.along !== 'point' && !bars) guideLine(context, reading, plot, theme)
  for (const row of reading.rows) outline(context, row.key, row.pointed, pane, theme)
  const marked = reading.series ? [{ ...reading.rows[0], series: reading.series }] : reading.rows
  for (const row of marked) {
    if (!row.series || row.series.swatch === 'rect' || Number.isNaN(row.x + row.y)) continue
    if (row.y < plot.y - 6 || row.y > plot.y + plot.height + 6) continue
    context.beginPath()
    context.arc(row.x, row.y, row.pointed || reading.along === 'point' ? 5 : 4, 0, Math.PI * 2)
    context.fillStyle = row.series.color
    context.strokeStyle = theme.surface
    context.lineWidth = 3
    context.stroke()
    context.fill()
  }
}

/** A line across the plot at a place, and the place's name at the axis. */
export function guideLine(
  context: Context,
  { along, x, y, heading }: Pick<Reading, 'along' | 'x' | 'y' | 'heading'>,
  plot: Pane['plot'],
  theme: Theme,
): void {
  const snap = (value: number) => Math.floor(value) + 0.5
  context.strokeStyle = theme.muted
  context.lineWidth = 1
  context.beginPath()
  if (along === 'x') {
    context.moveTo(snap(x), plot.y)
    context.lineTo(snap(x), plot.y + plot.height)
  } else {
    context.moveTo(plot.x, snap(y))
    context.lineTo(plot.x + plot.width, snap(y))
  }
  context.stroke()
  if (along === 'x' && heading) tag(context, heading, x, plot.y + plot.height + 3, plot, theme)
}

/** A small sign at the axis that says where the guide line stands. */
function tag(context: Context, text: string, x: number, y: number, plot: Pane['plot'], theme: Theme): void {
  context.font = `600 ${theme.sizes.caption}px ${theme.font}`
  const width = context.measureText(text).width + 10
  const height = theme.sizes.caption + 7
  const left = Math.max(plot.x - 8, Math.min(plot.x + plot.width + 8 - width, x - width / 2))
  context.fillStyle = theme.text
  context.fillRect(left, y, width, height)
  context.fillStyle = theme.background
  context.textAlign = 'left'
  context.textBaseline = 'alphabetic'
  context.fillText(text, left + 5, y + height - 5)
}

/** The edge of a bar, cell or slice that is pointed at. */
function outline(context: Context, key: string | number, pointed: boolean, pane: Pane, theme: Theme): void {
  if (!pointed) return
  context.strokeStyle = theme.text
  context.lineWidth = 2
  context.lineJoin = 'round'
  for (const batch of pane.batches) {
    if (batch.part !== 'data' || (batch.kind !== 'rects' && batch.kind !== 'wedges')) continue
    const i = indexOf(batch.keys, key)
    if (i < 0) continue
    context.beginPath()
    if (batch.kind === 'rects') {
      if (!(batch.width[i] > 0 && batch.height[i] > 0)) continue
      context.rect(
        batch.x[i] + 1,
        batch.y[i] + 1,
        Math.max(1, batch.width[i] - 2),
        Math.max(1, batch.height[i] - 2),
      )
    } else {
      const turn = -Math.PI / 2
      context.arc(batch.x[i], batch.y[i], batch.outer[i], batch.from[i] + turn, batch.to[i] + turn)
      context.arc(batch.x[i], batch.y[i], batch.inner[i], batch.to[i] + turn, batch.from[i] + turn, true)
      context.closePath()
    }
    context.stroke()
  }
}

function indexOf(keys: ArrayLike<string | number>, key: string | number): number {
  for (let i = 0; i < keys.length; i++) if (keys[i] === key) return i
  return -1
}

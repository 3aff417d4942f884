import { traceCurve } from '../scene/curve.ts'
import { MARKERS, traceMarker } from '../scene/marker.ts'
import {
  type Areas,
  type Batch,
  type Box,
  clipBox,
  type Discs,
  type Images,
  type Lines,
  type Pixels,
  type Rects,
  type Scene,
  type Segments,
  type Wedges,
} from '../scene/scene.ts'
import { isTranslucent } from '../theme/contrast.ts'
import { traceBands } from './bands.ts'
import type { Bitmap, Context2D, Pictures, Surroundings } from './context.ts'
import { boxOfBand, boxOfRect, boxOfWedge, hatchOf, hatchOver } from './hatching.ts'
import { pixelRuns } from './pixels.ts'
import { edgeRect, roundedRect } from './rounded.ts'
import { snapped } from './snap.ts'
import { paintTexts } from './texts.ts'
import { traceWedge } from './wedge.ts'

/** Paints the scene on a canvas of `width · density` by `height · density` device pixels. */
export function paintCanvas(
  scene: Scene,
  context: Context2D,
  density = 1,
  surroundings: Surroundings = {},
): void {
  context.setTransform(density, 0, 0, density, 0, 0)
  context.globalAlpha = 1
  context.clearRect(0, 0, scene.width, scene.height)
  if (scene.background) {
    context.fillStyle = scene.background
    context.fillRect(0, 0, scene.width, scene.height)
  }
  let open: number | undefined
  for (const batch of scene.batches) {
    const wanted = batch.clip ? (batch.pane ?? 0) : undefined
    if (wanted !== open) {
      if (open !== undefined) context.restore()
      if (wanted !== undefined) clipTo(context, clipBox(scene, batch), density)
      open = wanted
    }
    paintBatch(batch, scene, context, density, surroundings)
  }
  if (open !== undefined) context.restore()
  context.globalAlpha = 1
}

function clipTo(context: Context2D, { x, y, width, height }: Box, density: number): void {
  context.save()
  context.beginPath()
  // On whole device pixels: an edge between them would be blended, which costs more than all the rest.
  const left = Math.floor(x * density) / density
  const top = Math.floor(y * density) / density
  context.rect(
    left,
    top,
    Math.ceil((x + width) * density) / density - left,
    Math.ceil((y + height) * density) / density - top,
  )
  context.clip()
}

function paintBatch(
  batch: Batch,
  scene: Scene,
  context: Context2D,
  density: number,
  { pictures, bitmap, dense, shapes }: Surroundings,
): void {
  const together = (batch: Lines | Discs) =>
    !shapes && dense?.(batch, boxOf(batch, scene), context, density, bitmap)
  switch (batch.kind) {
    case 'rects':
      return paintRects(batch, context, scene.background)
    case 'discs':
      return together(batch) ? undefined : paintDiscs(batch, context)
    case 'wedges':
      return paintWedges(batch, context, scene.background)
    case 'pixels':
      return paintPixels(batch, context, bitmap)
    case 'lines':
      return together(batch) ? undefined : paintLines(batch, context)
    case 'areas':
      return paintAreas(batch, context, scene.background)
    case 'segments':
      return paintSegments(batch, context, density)
    case 'texts':
      return paintTexts(batch, scene, context)
    case 'images':
      return paintImages(batch, context, pictures)
  }
}

/** What of the scene a batch may reach. */
const boxOf = (batch: Batch, scene: Scene): Box =>
  batch.clip ? clipBox(scene, batch) : { x: 0, y: 0, width: scene.width, height: scene.height }

function paintRects(batch: Rects, context: Context2D, ground = WHITE): void {
  const { x, y, width, height, round, radius, color, colors, alpha, edge } = batch
  let before = -1
  for (let i = 0; i < x.length; i++) {
    const w = width[i]
    const h = height[i]
    if (!(w > 0 && h > 0)) continue
    if (color[i] !== before) {
      before = color[i]
      context.fillStyle = colors[before]
    }
    // Every setting is a call to the canvas, so only where it says something.
    if (alpha) context.globalAlpha = alpha[i]
    const side = round[i]
    const r = Math.min(radius, side === 1 || side === 3 ? Math.min(h, w / 2) : Math.min(w, h / 2))
    if (side === 0 || r < 0.5) context.fillRect(x[i], y[i], w, h)
    else roundedRect(context, x[i], y[i], w, h, side, r)
    const hatch = hatchOf(batch, i)
    if (hatch) hatchOver(context, boxOfRect(batch, i), hatch, ground, () => context.rect(x[i], y[i], w, h))
    if (edge) edgeRect(context, x[i], y[i], w, h, edge)
  }
  context.globalAlpha = 1
}

const TURN = Math.PI * 2
/** What stands for the ground of a picture that has none. */
const WHITE = '#ffffff'

function paintDiscs(batch: Discs, context: Context2D): void {
  const { x, y, radius, ring, color, colors, alpha } = batch
  if (ring) {
    context.strokeStyle = ring.color
    context.lineWidth = ring.width
  }
  let before = -1
  for (let i = 0; i < x.length; i++) {
    if (!(x[i] === x[i] && y[i] === y[i] && radius[i] > 0)) continue
    if (alpha) context.globalAlpha = alpha[i]
    if (color[i] !== before) {
      before = color[i]
      context.fillStyle = colors[before]
    }
    context.beginPath()
    const form = MARKERS[batch.form?.[i] ?? 0]
    if (form === 'disc') context.arc(x[i], y[i], radius[i], 0, TURN)
    else traceMarker(form, x[i], y[i], radius[i], context)
    // Half of the ring lies under the disc, so that its visible width is what was asked for outside the edge.
    if (ring) context.stroke()
    context.fill()
  }
  context.globalAlpha = 1
}

function paintWedges(batch: Wedges, context: Context2D, ground = WHITE): void {
  const { ring, color, colors, alpha } = batch
  context.lineJoin = 'round'
  for (let i = 0; i < batch.x.length; i++) {
    context.globalAlpha = alpha ? alpha[i] : 1
    context.beginPath()
    traceWedge(batch, i, context)
    context.fillStyle = colors[color[i]]
    context.fill()
    const hatch = hatchOf(batch, i)
    if (hatch) {
      hatchOver(context, boxOfWedge(batch, i), hatch, ground, () => traceWedge(batch, i, context))
      context.beginPath()
      traceWedge(batch, i, context)
    }
    if (ring.width === 0) continue
    context.strokeStyle = ring.color
    context.lineWidth = ring.width
    context.stroke()
  }
  context.globalAlpha = 1
}

function paintPixels(batch: Pixels, context: Context2D, bitmap: Bitmap | undefined): void {
  const { x, y, width, height, columns, rgba, alpha } = batch
  const rows = rgba.length / 4 / columns
  context.globalAlpha = alpha ? alpha[0] : 1
  if (bitmap) context.drawImage(bitmap(rgba, columns, rows), x[0], y[0], width[0], height[0])
  else {
    const size = width[0] / columns
    for (const { color, opacity, runs } of pixelRuns(batch)) {
      context.globalAlpha = opacity * (alpha ? alpha[0] : 1)
      context.fillStyle = color
      for (const [column, row, length] of runs)
        context.fillRect(x[0] + column * size, y[0] + row * size, length * size, size)
    }
  }
  context.globalAlpha = 1
}

/** Vertices that are stroked in one go. With many more, the edges that cross a row of pixels cost more than the pixels. */
const STRETCH = 16

function paintLines(batch: Lines, context: Context2D): void {
  const { x, y, starts, width, dash, names, color, colors, alpha } = batch
  context.lineJoin = 'round'
  context.lineCap = batch.flat ? 'butt' : 'round'
  for (let line = 0; line < names.length; line++) {
    context.globalAlpha = alpha ? alpha[line] : 1
    context.strokeStyle = colors[color[line]]
    context.lineWidth = width[line]
    const dashes = dash[line]
    if (dashes?.length) context.setLineDash([...dashes])
    const [start, end] = [starts[line], starts[line + 1]]
    // Long strokes take more than their share of time; where nothing shows through, they are drawn in short ones.
    const solid = context.globalAlpha === 1 && !isTranslucent(colors[color[line]])
    const stretch = solid && !dashes?.length && !batch.smooth ? STRETCH : end - start
    for (let from = start; from < end; from += stretch) {
      context.beginPath()
      // Round ends meet as a round join does; flat ones join as in one where the segment before is drawn again.
      const first = Math.max(start, from - (batch.flat ? 2 : 1))
      if (batch.smooth) traceCurve(x, y, start, end, context)
      else traceLine(x, y, first, Math.min(end, from + stretch), context)
      context.stroke()
    }
    if (dashes?.length) context.setLineDash([])
  }
  context.globalAlpha = 1
}

function traceLine(x: Float32Array, y: Float32Array, start: number, end: number, context: Context2D): void {
  let pen = false
  for (let i = start; i < end; i++) {
    const present = x[i] === x[i] && y[i] === y[i]
    if (present) {
      if (pen) context.lineTo(x[i], y[i])
      else context.moveTo(x[i], y[i])
    }
    pen = present
  }
}

function paintAreas(batch: Areas, context: Context2D, ground = WHITE): void {
  const { names, color, colors, alpha } = batch
  for (let i = 0; i < names.length; i++) {
    context.globalAlpha = alpha ? alpha[i] : 1
    context.fillStyle = colors[color[i]]
    context.beginPath()
    traceBands(batch, i, context, () => context.closePath())
    context.fill()
    const hatch = hatchOf(batch, i)
    if (hatch)
      hatchOver(context, boxOfBand(batch, i), hatch, ground, () =>
        traceBands(batch, i, context, () => context.closePath()),
      )
  }
  context.globalAlpha = 1
}

function paintSegments(batch: Segments, context: Context2D, density: number): void {
  const { x1, y1, x2, y2, width, dash, color, colors, alpha } = batch
  context.lineCap = 'butt'
  context.lineWidth = width
  if (dash?.length) context.setLineDash([...dash])
  for (let i = 0; i < x1.length; i++) {
    if (!Number.isFinite(x1[i] + y1[i] + x2[i] + y2[i])) continue
    context.globalAlpha = alpha ? alpha[i] : 1
    context.strokeStyle = colors[color[i]]
    const [ax, ay, bx, by] = snapped(x1[i], y1[i], x2[i], y2[i], width, density)
    context.beginPath()
    context.moveTo(ax, ay)
    context.lineTo(bx, by)
    context.stroke()
  }
  if (dash?.length) context.setLineDash([])
  context.globalAlpha = 1
}

function paintImages(batch: Images, context: Context2D, pictures: Pictures | undefined): void {
  const { x, y, width, height, hrefs, alpha } = batch
  hrefs.forEach((href, i) => {
    const picture = pictures?.(href)
    if (!picture) return
    // The proportions of the picture stay; it stands in the middle of its box.
    const across = width[i] / picture.width
    const down = height[i] / picture.height
    const scale = batch.cover ? Math.max(across, down) : Math.min(across, down)
    const w = picture.width * scale
    const h = picture.height * scale
    context.globalAlpha = alpha ? alpha[i] : 1
    context.drawImage(picture.source, x[i] + (width[i] - w) / 2, y[i] + (height[i] - h) / 2, w, h)
  })
  context.globalAlpha = 1
}

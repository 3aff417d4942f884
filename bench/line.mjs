// A line of a million rows: the first picture, and frames of zooming into it.
import { chart, compose, paintCanvas, table, View } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { createCanvas } from '@napi-rs/canvas'
import { ratio, time } from './measure.mjs'

const WIDTH = 1200
const HEIGHT = 600

function data(rows) {
  const at = new Float64Array(rows)
  const wind = new Float64Array(rows)
  let value = 12
  for (let i = 0; i < rows; i++) {
    at[i] = i
    value += ((i * 7919) % 13) - 6 + (12 - value) * 0.01
    wind[i] = value
  }
  return { at, wind }
}

const context = createCanvas(WIDTH, HEIGHT).getContext('2d')
const frame = { width: WIDTH, height: HEIGHT, measure: measureInter }
const describe = columns => chart(table(columns), { draw: 'line', x: 'at', y: 'wind' })

/** The least that could be done: one pass for the extremes of each pixel column, then the stroke. */
function barePass({ at, wind }, low, high) {
  const min = new Float64Array(WIDTH + 1).fill(Number.POSITIVE_INFINITY)
  const max = new Float64Array(WIDTH + 1).fill(Number.NEGATIVE_INFINITY)
  const factor = WIDTH / (high - low)
  for (let i = 0; i < at.length; i++) {
    const column = ((at[i] - low) * factor) | 0
    const value = wind[i]
    if (value < min[column]) min[column] = value
    if (value > max[column]) max[column] = value
  }
  return { min, max }
}

/** Strokes vertices as the painter does: same width, joins and caps. */
function bareStroke(x, y, from, to) {
  context.clearRect(0, 0, WIDTH, HEIGHT)
  context.lineWidth = 1.5
  context.lineJoin = 'round'
  context.lineCap = 'round'
  context.strokeStyle = '#057f5f'
  context.beginPath()
  context.moveTo(x[from], y[from])
  for (let i = from + 1; i < to; i++) context.lineTo(x[i], y[i])
  context.stroke()
}

const linesOf = scene => scene.batches.find(batch => batch.kind === 'lines')
/** Canvas calls are queued; reading a pixel makes them happen. */
const flush = () => context.getImageData(0, 0, 1, 1)

const million = data(1_000_000)
const drawn = linesOf(compose(describe(million), {}, frame))
const bareFirst = time(() => {
  barePass(million, 0, 1_000_000)
  bareStroke(drawn.x, drawn.y, 0, drawn.x.length)
  flush()
})
const first = time(() => {
  paintCanvas(compose(describe(million), {}, frame), context)
  flush()
})
ratio('line of 1,000,000 rows, first picture', first, bareFirst, 1.5)

function zoomCost(rows) {
  const view = new View(describe(data(rows)), {}, frame)
  const windows = Array.from({ length: 40 }, (_, i) => [rows * 0.001 * i, rows * (1 - 0.012 * i)])
  const vertices = windows.map(window => {
    view.state.value = { zoom: { x: window } }
    return linesOf(view.scene)
  })
  const bare = time(
    i => {
      const { x, y } = vertices[i % 40]
      bareStroke(x, y, 0, x.length)
      flush()
    },
    { runs: 80 },
  )
  const ours = time(
    i => {
      view.state.value = { zoom: { x: windows[i % 40] } }
      paintCanvas(view.scene, context)
      flush()
    },
    { runs: 80 },
  )
  return { ours, bare }
}
const zoomSmall = zoomCost(10_000)
const zoomMillion = zoomCost(1_000_000)
const zoomLarge = zoomCost(10_000_000)
ratio('zoom frame on 1,000,000 rows, to its stroke', zoomMillion.ours, zoomMillion.bare, 1.2)
ratio('zoom frame on 10,000,000 rows, to one on 10,000', zoomLarge.ours, zoomSmall.ours, 1.3)

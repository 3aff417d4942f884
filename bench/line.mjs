// A line of a million rows: the first picture, and frames of zooming into it.
import { chart, compose, paintCanvas, table } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { View } from '@dapplo/core/internal'
import { createCanvas } from '@napi-rs/canvas'
import { ratio, timeBoth } from './measure.mjs'
import { surroundings } from './surroundings.mjs'

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
const first = await timeBoth(
  () => {
    paintCanvas(compose(describe(million), {}, frame), context, 1, surroundings)
    flush()
  },
  () => {
    barePass(million, 0, 1_000_000)
    bareStroke(drawn.x, drawn.y, 0, drawn.x.length)
    flush()
  },
)
ratio('line of 1,000,000 rows, first picture', first.ours, first.bare, 1.5)

function zoomWork(rows) {
  const view = new View(describe(data(rows)), {}, frame)
  const windows = Array.from({ length: 40 }, (_, i) => [rows * 0.001 * i, rows * (1 - 0.012 * i)])
  const vertices = windows.map(window => {
    view.state.value = { zoom: { x: window } }
    return linesOf(view.scene)
  })
  const ours = i => {
    view.state.value = { zoom: { x: windows[i % 40] } }
    paintCanvas(view.scene, context, 1, surroundings)
    flush()
  }
  const bare = i => {
    const { x, y } = vertices[i % 40]
    bareStroke(x, y, 0, x.length)
    flush()
  }
  return { ours, bare }
}
const [small, middle, large] = [zoomWork(10_000), zoomWork(1_000_000), zoomWork(10_000_000)]
const zoom = await timeBoth(middle.ours, middle.bare, { runs: 80 })
ratio('zoom frame on 1,000,000 rows, to its stroke', zoom.ours, zoom.bare, 1.2)
const growth = await timeBoth(large.ours, small.ours, { runs: 80 })
ratio('zoom frame on 10,000,000 rows, to one on 10,000', growth.ours, growth.bare, 1.3)

// A scatter of a million points, frame by frame; and a hundred thousand discs as SVG.
import { chart, compose, paintCanvas, paintSvg, table } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { View } from '@dapplo/core/internal'
import { createCanvas } from '@napi-rs/canvas'
import { ratio, timeBoth } from './measure.mjs'
import { bitmap, surroundings } from './surroundings.mjs'

const WIDTH = 1200
const HEIGHT = 700
const COUNT = 1_000_000
const frame = { width: WIDTH, height: HEIGHT, measure: measureInter }

const cloud = rows => ({
  x: Float64Array.from({ length: rows }, (_, i) => Math.sin(i * 1.7) * (3 + ((i * 7919) % 997) / 300)),
  y: Float64Array.from({ length: rows }, (_, i) => Math.cos(i * 1.7) * (3 + ((i * 104_729) % 991) / 300)),
})
const million = cloud(COUNT)
const context = createCanvas(WIDTH, HEIGHT).getContext('2d')
const flush = () => context.getImageData(0, 0, 1, 1)

const described = points => chart(table(points), { draw: 'scatter', x: 'x', y: 'y' })
const paint = view => {
  paintCanvas(view.scene, context, 1, surroundings)
  flush()
}
const view = new View(described(million), {}, frame)
const [plot] = view.scene.plots
const columns = Math.round(plot.width)
const rows = Math.round(plot.height)

/** A picture of so many elements from counts, on the canvas. */
function write(counts) {
  const rgba = new Uint8ClampedArray(columns * rows * 4)
  for (let i = 0; i < counts.length; i++) if (counts[i] > 0) rgba[i * 4 + 3] = Math.min(255, counts[i] * 40)
  context.clearRect(0, 0, WIDTH, HEIGHT)
  context.drawImage(bitmap(rgba, columns, rows), plot.x, plot.y)
  flush()
}
function count({ x, y }) {
  const counts = new Uint32Array(columns * rows)
  const [xf, yf] = [columns / 14, rows / 14]
  for (let i = 0; i < x.length; i++) {
    const column = ((x[i] + 7) * xf) | 0
    const row = ((7 - y[i]) * yf) | 0
    counts[row * columns + column]++
  }
  return counts
}
const counted = count(million)

const millionTable = table(million)
const first = await timeBoth(
  () => paint(new View(chart(millionTable, { draw: 'scatter', x: 'x', y: 'y' }), {}, frame)),
  () => write(count(million)),
)
ratio('first picture of a scatter of 1,000,000 points', first.ours, first.bare, 2)

/** Frames in which a person zooms, each a little further, so that each is composed anew. */
const zooming = (shown, half) => i => {
  shown.state.value = { zoom: { x: [-half, half + i * 1e-6], y: [-half, half] } }
  paint(shown)
}
const far = new View(described(cloud(10 * COUNT)), {}, frame)
for (const [shown, name] of [
  [view, '1,000,000'],
  [far, '10,000,000'],
])
  for (const [half, zoom] of [
    [7, 'all of them'],
    [1.75, 'a sixteenth of the plot'],
  ]) {
    const frames = await timeBoth(zooming(shown, half), () => write(counted))
    ratio(`a zoom frame of a scatter of ${name} points, ${zoom}`, frames.ours, frames.bare, 2)
  }
const fed = table(cloud(COUNT))
const feeding = new View(chart(fed, { draw: 'scatter', x: 'x', y: 'y' }), {}, frame)
const zoomed = zooming(feeding, 1.75)
const appended = await timeBoth(
  i => {
    fed.append([{ x: (i % 5) / 5, y: (i % 7) / 7 }])
    zoomed(i)
  },
  () => write(counted),
)
ratio(
  'a zoom frame of 1,000,000 points to which one comes, a sixteenth of the plot',
  appended.ours,
  appended.bare,
  2,
)
const near = new View(described(cloud(COUNT / 10)), {}, frame)
const tenth = await timeBoth(zooming(far, 0.7), zooming(near, 7))
ratio('10,000,000 points to 100,000 in view', tenth.ours, tenth.bare, 1.3)

const discs = compose(
  chart(table(cloud(100_000)), { draw: 'scatter', x: 'x', y: 'y', style: { size: 2 } }),
  {},
  frame,
)
const points = discs.batches.find(batch => batch.kind === 'discs')
const svg = await timeBoth(
  () => paintSvg(discs).length,
  () => {
    const out = []
    for (let i = 0; i < points.x.length; i++)
      out.push(
        `<circle cx="${Math.round(points.x[i] * 100) / 100}" cy="${Math.round(points.y[i] * 100) / 100}" r="2"/>`,
      )
    return out.join('\n').length
  },
)
ratio('100,000 discs to SVG', svg.ours, svg.bare, 1.3)

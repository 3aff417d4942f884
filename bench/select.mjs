// A selection that is being dragged over one of four charts of 100,000 rows: what the others must do for each frame.
import { chart, table } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { rowsInBox, selectionsOf, View } from '@dapplo/core/internal'
import { ratio, time } from './measure.mjs'

const ROWS = 100_000
const routes = ['North Sound', 'Gannet Bay', 'Tern Point', 'Outer Skerries', 'Kelp Narrows']
const start = Date.UTC(2023, 0, 1)
const columns = {
  departed: Array.from({ length: ROWS }, (_, i) => new Date(start + i * 900_000)),
  route: Array.from({ length: ROWS }, (_, i) => routes[(i * 7) % 5]),
  wind: Float64Array.from({ length: ROWS }, (_, i) => ((i * 7919) % 997) / 20),
  delay: Float64Array.from({ length: ROWS }, (_, i) => ((i * 104_729) % 991) / 25),
}
const sailings = table(columns)
const frame = { width: 560, height: 320, measure: measureInter }
const shown = (description, respond = 'narrow') =>
  new View(chart(sailings, { ...description, respond }), {}, frame)
const scatter = shown({ draw: 'scatter', x: 'wind', y: 'delay', select: 'box' })
const others = [
  shown({ draw: 'heatmap', x: 'hour of day of departed', y: 'weekday of departed', color: 'count' }),
  shown({ draw: 'bar', x: 'route', y: 'mean of delay' }),
  shown({ draw: 'bar', x: 'month of departed', y: 'count' }),
]
const [plot] = scatter.scene.plots
const store = selectionsOf(sailings)

const drag = time(i => {
  const box = { x: plot.x + 40, y: plot.y + 20, width: 120 + (i % 40) * 4, height: 150 }
  const selected = rowsInBox(scatter.composition.value, sailings, box)
  scatter.state.value = { selected }
  store.set(scatter, selected)
  for (const view of [scatter, ...others]) void view.scene
})
ratio('a frame of a selection over 100,000 rows in four charts', drag, 1000 / 60, 1)

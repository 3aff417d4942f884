// Ten thousand bars on their way; one changed value in a chart of 100,000 rows; twenty-five years of 200 piers.
import { chart, compose, paintCanvas, table } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { between, Playback, View } from '@dapplo/core/internal'
import { createCanvas } from '@napi-rs/canvas'
import { ratio, time, timeBoth } from './measure.mjs'

const WIDTH = 1200
const HEIGHT = 600
const frame = { width: WIDTH, height: HEIGHT, measure: measureInter }
const context = createCanvas(WIDTH, HEIGHT).getContext('2d')
const flush = () => context.getImageData(0, 0, 1, 1)

/** Fills rectangles that lie between those of two scenes, in one colour: the least that motion must do. */
function bareFill(from, to, share) {
  context.clearRect(0, 0, WIDTH, HEIGHT)
  context.fillStyle = '#057f5f'
  for (let i = 0; i < to.x.length; i++)
    context.fillRect(
      from.x[i] + (to.x[i] - from.x[i]) * share,
      from.y[i] + (to.y[i] - from.y[i]) * share,
      from.width[i] + (to.width[i] - from.width[i]) * share,
      from.height[i] + (to.height[i] - from.height[i]) * share,
    )
}
const bars = scene => scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data')

const gauges = turn =>
  table(
    {
      gauge: Array.from({ length: 10_000 }, (_, i) => i),
      level: Array.from({ length: 10_000 }, (_, i) => 20 + ((i * (37 + turn)) % 80)),
    },
    { key: 'gauge' },
  )
const sceneOf = turn => compose(chart(gauges(turn), { draw: 'bar', x: 'gauge', y: 'level' }), {}, frame)
const [from, to] = [sceneOf(0), sceneOf(9)]
const motion = between(from, to)
const moving = await timeBoth(
  i => {
    paintCanvas(motion((i % 10) / 10, (i % 10) / 10), context, 1)
    flush()
  },
  i => {
    bareFill(bars(from), bars(to), (i % 10) / 10)
    flush()
  },
  { runs: 40 },
)
ratio('a frame of 10,000 bars in motion', moving.ours, moving.bare, 1.3)

const winds = table(
  {
    at: Float64Array.from({ length: 100_000 }, (_, i) => i),
    wind: Float64Array.from({ length: 100_000 }, (_, i) => (i * 7919) % 97),
  },
  { key: 'at' },
)
const view = new View(chart(winds, { draw: 'line', x: 'at', y: 'wind' }), {}, frame)
const change = await timeBoth(
  i => {
    winds.put({ at: 500 + i, wind: i % 90 })
    paintCanvas(view.scene, context, 1)
    flush()
  },
  () => {
    paintCanvas(view.scene, context, 1)
    flush()
  },
)
ratio('one changed value of 100,000 rows', change.ours, change.bare, 2)

const years = Array.from({ length: 25 }, (_, i) => 2001 + i)
const piers = table({
  year: years.flatMap(year => Array.from({ length: 200 }, () => year)),
  pier: years.flatMap(() => Array.from({ length: 200 }, (_, i) => `Pier ${i}`)),
  passengers: years.flatMap((_, y) =>
    Array.from({ length: 200 }, (_, i) => 1000 + ((i * 7919 + y * (i % 17) * 31) % 9000)),
  ),
})
const playback = new Playback(
  chart(piers, { draw: 'bar', y: 'pier', x: 'sum of passengers', order: 'ranked', through: 'year' }),
  {},
  frame,
)
for (let at = 0; at < 24; at += 0.5) playback.sceneAt(at)
const [first, second] = [playback.sceneAt(3), playback.sceneAt(4)]
const barePlay = time(i => {
  bareFill(bars(first), bars(second), (i % 10) / 10)
  flush()
})
ratio(
  'a frame of 25 years of 200 piers being played (the frame of a screen: 16.7 ms)',
  time(i => {
    paintCanvas(playback.sceneAt(3 + ((i % 9) + 1) / 10), context, 1)
    flush()
  }),
  Math.max(barePlay, 1000 / 60),
  1,
)

// Files: a PNG against encoding that very picture, a film against its encoder alone, and the command against an empty program.
import { execFileSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { paintCanvas } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { Playback } from '@dapplo/core/internal'
import { chart, openTable, reshape, sceneOf, toFilm, toPng } from '@dapplo/node'
import { createCanvas, GifEncoder } from '@napi-rs/canvas'
import { ratio, timeBoth } from './measure.mjs'

const at = path => fileURLToPath(new URL(`../${path}`, import.meta.url))

const sailings = openTable(at('demo-data/sailings.csv'))
const months = chart(sailings, {
  draw: 'bar',
  x: 'month of departed',
  y: 'sum of passengers',
  color: 'route',
})
const size = { width: 1280, height: 800 }
const canvas = createCanvas(1280, 800)
paintCanvas(sceneOf(months, size), canvas.getContext('2d'), 1)
const png = await timeBoth(
  () => toPng(months, { ...size, density: 1 }),
  () => canvas.encode('png'),
)
ratio('a PNG of 1280 × 800', png.ours, png.bare, 1.5)

const piers = reshape(openTable(at('demo-data/piers.csv')), [
  { long: { keep: ['pier'], name: 'year', value: 'passengers' } },
])
const race = chart(piers, {
  draw: 'bar',
  y: 'pier',
  x: 'sum of passengers',
  order: 'ranked',
  top: 8,
  through: 'year',
  scales: { through: { each: 600 } },
})
const frame = { width: 480, height: 300 }
const playback = new Playback(race, {}, { ...frame, measure: measureInter })
const small = createCanvas(480, 300)
const context = small.getContext('2d')
const frames = Array.from({ length: 300 }, (_, i) => {
  paintCanvas(playback.sceneAt((i / 299) * playback.length), context, 1)
  return new Uint8Array(context.getImageData(0, 0, 480, 300).data)
})
const gif = await timeBoth(
  () => toFilm(race, 'gif', { frame, rate: 299 / (playback.length * 0.6), rest: 0 }),
  () => {
    const encoder = new GifEncoder(480, 300, { repeat: 0, quality: 10 })
    for (const data of frames) encoder.addFrame(data, 480, 300, { delay: 50 })
    return encoder.finish()
  },
  { runs: 2, warm: 0 },
)
ratio('300 pictures to GIF', gif.ours, gif.bare, 1.5)

const run = args => execFileSync(process.execPath, args, { stdio: ['ignore', 'ignore', 'ignore'] })
const draw = [
  at('packages/cli/dist/dapplo.js'),
  'draw',
  at('demo-data/vessels.csv'),
  '--draw',
  'bar',
  '--x',
  'vessel',
  '--y',
  'capacity',
  '--out',
  '-',
]
const started = await timeBoth(
  () => run(draw),
  () => run(['-e', '0']),
  { runs: 30, warm: 2 },
)
ratio('dapplo draw of a small file to SVG', started.ours, started.bare, 2)

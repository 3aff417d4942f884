import { chart, mount, table } from 'dapplo'
import { panel, theme } from './theme.ts'

const BARS = 2000
const gauges = table(
  Array.from({ length: BARS }, (_, i) => ({ gauge: i, level: 50 + ((i * 37) % 50) })),
  { name: 'gauges', key: 'gauge' },
)
const label = document.createElement('label')
const slider = document.createElement('input')
Object.assign(slider, { type: 'range', min: '0', max: '3', step: '0.01', value: '1', id: 'rate' })
const rate = document.createElement('output')
label.append('Changes a second ', slider, ' ', rate)
label.style.paddingLeft = '16px'
document.getElementById('page')!.append(label)
const live = mount(
  chart(gauges, {
    title: 'Two thousand gauges',
    draw: 'bar',
    x: 'gauge',
    y: 'level',
    scales: { y: { domain: [0, 120] } },
  }),
  panel('wide'),
  { theme },
)
const times = table([{ frame: 0, milliseconds: 16 }], { name: 'frames' })
const clock = mount(
  chart(times, {
    title: 'Time from frame to frame',
    draw: 'line',
    x: 'frame',
    y: 'milliseconds',
    motion: false,
    scales: { y: { include: [0, 34] } },
  }),
  panel('small'),
  { theme },
)

const perSecond = () => Math.round(10 ** Number(slider.value))
const show = () => {
  rate.textContent = perSecond().toLocaleString('en')
}
slider.addEventListener('input', show)
show()

let owed = 0
let frames = 0
let slowest = 0
let last = performance.now()
let state = 1
const step = (now: number) => {
  const passed = now - last
  last = now
  owed += (Math.min(passed, 250) / 1000) * perSecond()
  for (; owed >= 1; owed--) {
    state = (state * 16_807) % 2_147_483_647
    gauges.put({ gauge: state % BARS, level: 10 + ((state >> 8) % 100) })
  }
  slowest = Math.max(slowest, passed)
  // The slowest of twenty frames, so that the clock itself costs little.
  if (++frames % 20 === 0) {
    times.append({ frame: frames, milliseconds: slowest })
    if (times.length > 120) times.removeWhere(row => row.frame < frames - 2400)
    slowest = 0
  }
  requestAnimationFrame(step)
}
requestAnimationFrame(step)
// For a look from the console.
Object.assign(window, { charts: [live, clock], gauges, times })

import { expect, test } from 'vitest'
import { everything } from '../../../../../tests/support/extent.ts'
import { chart, DapploError, type Description, table } from '../../index.ts'
import { View } from '../../internal.ts'
import { measureInter } from '../../theme/text-width.ts'

/** Every option changes the picture, or is told; whichever kind it is given to. */

const sailings = table(
  Array.from({ length: 24 }, (_, i) => ({
    day: `2025-01-${String(1 + (i % 12)).padStart(2, '0')}`,
    route: ['North Sound', 'Gannet Bay', 'Tern Point'][i % 3],
    pier: ['Old Mole', 'Kelp Quay'][i % 2],
    wind: (i * 7) % 23,
    boarded: 21 + ((i * 37) % 83),
  })),
)

const BASES: Readonly<Record<string, Description>> = {
  bars: { draw: 'bar', x: 'route', y: 'sum of boarded' },
  'bars in colours': { draw: 'bar', x: 'pier', y: 'sum of boarded', color: 'route' },
  'bars by day': { draw: 'bar', x: 'day of day', y: 'sum of boarded' },
  'lying bars': { draw: 'bar', x: 'sum of boarded', y: 'route' },
  lines: { draw: 'line', x: 'day', y: 'mean of boarded', color: 'route' },
  'a line of numbers': { draw: 'line', x: 'wind', y: 'boarded' },
  areas: { draw: 'area', x: 'day', y: 'sum of boarded', color: 'route' },
  points: { draw: 'scatter', x: 'wind', y: 'boarded' },
  bubbles: { draw: 'scatter', x: 'wind', y: 'boarded', size: 'boarded', color: 'wind' },
  pie: { draw: 'pie', x: 'route', y: 'sum of boarded' },
  cells: { draw: 'heatmap', x: 'route', y: 'pier', color: 'sum of boarded' },
  'a trend': { draw: ['scatter', 'trend'], x: 'wind', y: 'boarded' },
  'a reference': { draw: ['line', { as: 'reference', y: { value: 50 } }], x: 'wind', y: 'boarded' },
}

/** Values of each option, of which one at least differs from what a chart has by itself. */
const STYLE = {
  color: ['#123456'],
  opacity: [0.3],
  width: [7],
  dash: [[3, 3]],
  size: [9],
  gap: [0.7],
  caps: [false],
}
const SCALE = {
  kind: ['signed log', 'log', 'stepped'],
  domain: [
    [0, 40],
    ['Gannet Bay', 'North Sound'],
    ['2025-01-02', '2025-01-04'],
    ['Kelp Quay', 'Old Mole'],
  ],
  include: [4000],
  pad: [0.4],
  roundEnds: [true, false],
  reverse: [true],
  alignTo: ['y', 'x'],
  percentOf: [200],
  order: ['name', 'ranked'],
  each: [300],
  missing: ['hold'],
  colors: [['#ff0000', '#00ff00'], { 'North Sound': '#abcdef' }],
}
const AXIS = {
  title: ['Hello', false],
  side: ['left', 'right', 'top', 'bottom'],
  minor: [true],
  stripes: [true],
  strongAt: ['week'],
  tickLength: [6],
  images: [{ 'North Sound': 'data:image/png;base64,AA' }, { 'Old Mole': 'data:image/png;base64,AA' }],
  ticks: [1, { every: 7 }, { every: { days: 3 } }],
  grid: [true, false],
  format: [{ minimumFractionDigits: 3 }],
}
const OWN: Readonly<Record<string, readonly unknown[]>> = {
  color: ['pier'],
  series: ['pier'],
  size: ['boarded'],
  shape: ['pier'],
  dash: ['pier'],
  label: ['boarded', 'sum of boarded'],
  hole: [0.5],
  fit: [{ degree: 2 }],
  band: [true],
  between: ['hold'],
  points: [true],
  top: [1],
  rest: [true],
  order: ['name', 'ranked'],
  where: [{ pier: 'Old Mole' }],
  legend: ['right', { color: { title: 'Hello' } }],
  title: ['Hello'],
  subtitle: ['Hello'],
  caption: ['Hello'],
  source: ['Hello'],
  background: ['#eeeeee'],
}

function seen(description: Description) {
  const { scene, findings } = new View(
    chart(sailings, description),
    {},
    { width: 700, height: 420, measure: measureInter },
  )
  const scales = [...scene.scales].map(([name, { kind, domain }]) => [name, kind.name, domain])
  return { picture: JSON.stringify([scene, scales]), findings }
}

/** Whether the option is refused, told of, or to be seen. */
function noticed(base: ReturnType<typeof seen>, description: Description): boolean {
  try {
    const { picture, findings } = seen(description)
    return picture !== base.picture || findings.length > base.findings.length
  } catch (error) {
    if (error instanceof DapploError) return true
    throw error
  }
}

test.each(Object.keys(BASES).filter((_, i) => everything || i % 2 === 0))('%s', name => {
  const description = BASES[name]
  const base = seen(description)
  expect(base.findings).toEqual([])
  const silent: string[] = []
  const look = (option: string, values: readonly unknown[], make: (value: unknown) => object) => {
    const some = values.some(value => noticed(base, { ...description, ...make(value) } as Description))
    if (!some) silent.push(option)
  }
  for (const [option, values] of Object.entries(STYLE))
    look(`style.${option}`, values, value => ({ style: { [option]: value } }))
  for (const scale of ['x', 'y', 'color', 'size', 'shape', 'through'])
    for (const [option, values] of Object.entries(SCALE))
      look(`scales.${scale}.${option}`, values, value => ({ scales: { [scale]: { [option]: value } } }))
  for (const axis of ['x', 'y', 'color'])
    for (const [option, values] of Object.entries(AXIS))
      look(`axes.${axis}.${option}`, values, value => ({ axes: { [axis]: { [option]: value } } }))
  for (const [option, values] of Object.entries(OWN))
    if (!(option in description)) look(option, values, value => ({ [option]: value }))
  expect(silent).toEqual([])
})

test('what the chart says and every drawing says itself is told', () => {
  const { findings } = seen({
    draw: [{ as: 'line', style: { width: 3 } }],
    x: 'day',
    y: 'mean of boarded',
    style: { width: 9 },
  })
  expect(findings.map(({ message, path }) => [message, path])).toEqual([
    ['"style.width" of the chart changes nothing, since each drawing has its own', 'style.width'],
  ])
})

import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  type Batch,
  chart,
  compose,
  type Description,
  type Discs,
  on,
  type Rects,
  type Scene,
  type Segments,
  type Table,
  type Texts,
  table,
} from '../index.ts'
import { readAt, View } from '../internal.ts'
import type { Wedges } from '../scene/scene.ts'
import { measureInter } from '../theme/text-width.ts'

const frame = { width: 800, height: 500, measure: measureInter }
const sailings = table({
  departed: Array.from({ length: 120 }, (_, i) => new Date(Date.UTC(2024, 0, 1 + i * 3, 8))),
  route: Array.from({ length: 120 }, (_, i) => ['North Sound', 'Gannet Bay', 'Tern Point'][i % 3]),
  vessel: Array.from({ length: 120 }, (_, i) => ['Fulmar', 'Dunlin'][(i >> 1) % 2]),
  passengers: Array.from({ length: 120 }, (_, i) => 50 + ((i * 37) % 90)),
  delay: Array.from({ length: 120 }, (_, i) => ((i * 13) % 40) - 8),
})
const view = (description: unknown, over: Table = sailings, size = frame) =>
  new View(chart(over, description as Description), {}, size)
const draw = (description: unknown, over: Table = sailings, size = frame): Scene =>
  view(description, over, size).scene
const find = <B extends Batch>(scene: Scene, kind: B['kind'], id = ''): B => {
  const batch = scene.batches.find(one => one.kind === kind && one.part === 'data' && one.id.includes(id))
  if (!batch) throw new Error(`There are no ${kind}`)
  return batch as B
}
const words = (scene: Scene, id: string) =>
  scene.batches
    .filter(
      (batch): batch is Texts =>
        batch.kind === 'texts' && (id.startsWith('/') ? batch.id.includes(id) : batch.id.startsWith(id)),
    )
    .flatMap(batch => [...batch.texts])
const codes = (of: View) => of.findings.map(finding => finding.code)

describe('a pie', () => {
  test('shares the whole turn out by value, whatever the values', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.001, max: 1e9, noNaN: true }), { minLength: 1, maxLength: 12 }),
        values => {
          const parts = table({ name: values.map((_, i) => `Pier ${i}`), value: values })
          const { from, to, keys, rows } = find<Wedges>(
            draw({ draw: 'pie', x: 'name', y: 'value' }, parts),
            'wedges',
          )
          const total = values.reduce((sum, value) => sum + value, 0)
          expect(keys.length).toBe(values.length)
          for (let i = 0; i < keys.length; i++) {
            expect((to[i] - from[i]) / (Math.PI * 2)).toBeCloseTo(values[rows!(i)[0]] / total, 5)
            if (i > 0) expect(to[i] - from[i]).toBeLessThanOrEqual(to[i - 1] - from[i - 1] + 1e-5)
          }
          expect(to[keys.length - 1]).toBeCloseTo(Math.PI * 2, 4)
        },
      ),
    )
  })

  test('names its slices with their shares, and needs no legend then', () => {
    const scene = draw({ draw: 'pie', x: 'route', y: 'sum of passengers' })
    expect(words(scene, '/names').sort()).toEqual(['Gannet Bay', 'North Sound', 'Tern Point'])
    expect(words(scene, '/shares').every(text => /^\d+%$/.test(text))).toBe(true)
    expect(words(scene, 'legend')).toEqual([])
  })

  test('keeps colours when bars become a pie', () => {
    const bars = draw({ draw: 'bar', x: 'month of departed', y: 'sum of passengers', color: 'route' })
    const pie = draw({ draw: 'pie', x: 'month of departed', y: 'sum of passengers', color: 'route' })
    const colorOf = (batch: Rects | Wedges, name: string) => {
      const i = Array.from(batch.keys).findIndex(key => String(key).includes(name))
      return batch.colors[batch.color[i]]
    }
    for (const name of ['North Sound', 'Gannet Bay', 'Tern Point'])
      expect(colorOf(find<Wedges>(pie, 'wedges'), name)).toBe(colorOf(find<Rects>(bars, 'rects'), name))
  })

  test('shows the whole in the middle of a ring', () => {
    const scene = draw({ draw: 'pie', hollow: 0.6, x: 'route', y: 'sum of passengers' })
    expect(words(scene, '/whole')).toContain('Passengers')
    expect(find<Wedges>(scene, 'wedges').inner[0]).toBeGreaterThan(0)
  })

  test('is read by slice', () => {
    const made = view({ draw: 'pie', x: 'route', y: 'sum of passengers' })
    const { x, y, outer, from, to, keys } = find<Wedges>(made.scene, 'wedges')
    const angle = (from[1] + to[1]) / 2
    const reading = readAt(
      made.composition.value,
      x[0] + (Math.sin(angle) * outer[0]) / 2,
      y[0] - (Math.cos(angle) * outer[0]) / 2,
    )
    expect(reading?.rows.map(row => row.name)).toEqual([String(keys[1]), 'Share'])
    expect(reading?.rows[0].rows.length).toBe(40)
  })

  test('says what it cannot show', () => {
    const odd = (value: number[]) =>
      view({ draw: 'pie', x: 'name', y: 'value' }, table({ name: value.map(String), value }))
    expect(codes(odd([3, -1, 2]))).toContain('negative-slice')
    expect(codes(odd([0, 0]))).toContain('nothing-to-share')
    expect(words(odd([0, 0]).scene, 'nothing').join(' ')).toContain('nothing to share')
    expect(codes(odd(Array.from({ length: 40 }, (_, i) => i + 1)))).toContain('too-many-slices')
  })
})

describe('a reference', () => {
  const byRoute = { x: 'route', y: 'mean of delay' }
  test('spans the axis that nothing is bound to', () => {
    const scene = draw({ ...byRoute, draw: ['bar', { as: 'reference', y: { value: 9 }, name: 'Goal' }] })
    const { x1, x2, y1, y2 } = find<Segments>(scene, 'segments', 'reference')
    const [plot] = scene.plots
    expect([x1[0], x2[0]]).toEqual([Math.fround(plot.x), Math.fround(plot.x + plot.width)])
    expect(y1[0]).toBeCloseTo(scene.scales.get('y')!.map(9), 3)
    expect(y2[0]).toBe(y1[0])
    expect(words(scene, '/labels ')).toEqual(['Goal'])
  })

  test('stands at the mean of what is drawn, across lying bars too', () => {
    const up = draw({ x: 'route', y: 'sum of passengers', draw: ['bar', { as: 'reference', level: 'mean' }] })
    const total = Array.from({ length: 120 }, (_, i) => 50 + ((i * 37) % 90)).reduce((a, b) => a + b)
    expect(find<Segments>(up, 'segments', 'reference').y1[0]).toBeCloseTo(
      up.scales.get('y')!.map(total / 3),
      2,
    )
    const lying = draw({
      y: 'route',
      x: 'sum of passengers',
      draw: ['bar', { as: 'reference', level: 'mean' }],
    })
    const { x1, x2 } = find<Segments>(lying, 'segments', 'reference')
    expect(x1[0]).toBe(x2[0])
    expect(x1[0]).toBeCloseTo(lying.scales.get('x')!.map(total / 3), 2)
  })

  test('shades a range, and reads its times in the zone of the axis', () => {
    const range = { as: 'reference', x: { from: { value: '2024-03-01' }, to: { value: '2024-06-01' } } }
    const scene = draw({ x: 'month of departed', y: 'sum of passengers', draw: ['line', range] })
    const { x, width } = find<Rects>(scene, 'rects', 'range')
    const scale = scene.scales.get('x')!
    expect(x[0]).toBeCloseTo(scale.map(Date.UTC(2024, 2, 1)), 2)
    expect(x[0] + width[0]).toBeCloseTo(scale.map(Date.UTC(2024, 5, 1)), 2)
  })

  test('is an error bar where an extent stands at a place', () => {
    const extent = { as: 'reference', x: 'route', y: { from: 'min of delay', to: 'max of delay' } }
    const scene = draw({ ...byRoute, draw: ['bar', extent] })
    const { keys, y1, y2 } = find<Segments>(scene, 'segments', 'reference')
    const scale = scene.scales.get('y')!
    const stroke = Array.from(keys).indexOf('North Sound')
    expect(
      [scale.invert(y1[stroke]), scale.invert(y2[stroke])].map(Math.round).sort((a, b) => a - b),
    ).toEqual([-8, 31])
    // Nothing of it is outside: the scale has made room.
    expect(scale.domain[1]).toBeGreaterThanOrEqual(31)
  })

  test('needs something to stand at', () => {
    expect(() => draw({ ...byRoute, draw: ['bar', { as: 'reference' }] })).toThrow(
      'A reference needs x, y or a level',
    )
  })
})

describe('a trend', () => {
  const line = table({ x: [1, 2, 3, 4, 5], y: [3, 5, 7, 9, 11] })
  test('says its formula and how well it fits', () => {
    const scene = draw({ x: 'x', y: 'y', draw: ['scatter', 'trend'] }, line)
    expect(words(scene, '/labels ')).toEqual(['y = 1 + 2 x, R² 1.00'])
  })

  test.each([
    ['log', (x: number) => 3 + 2 * Math.log(x)],
    ['exponential', (x: number) => 3 * 1.5 ** x],
    ['power', (x: number) => 3 * x ** 1.7],
    ['local', (x: number) => 4 * x - 1],
    [{ degree: 3 }, (x: number) => x ** 3 - 4 * x],
  ] as const)('%j finds the curve that points lie on', (fit, value) => {
    const x = Array.from({ length: 30 }, (_, i) => 1 + i / 3)
    const scene = draw({ x: 'x', y: 'y', draw: { as: 'trend', fit } }, table({ x, y: x.map(value) }))
    const curve = scene.batches.find(batch => batch.kind === 'lines' && batch.part === 'data')
    if (curve?.kind !== 'lines') throw new Error('There is no curve')
    for (let i = 0; i < curve.atX.length; i++) {
      const wanted = value(curve.atX[i])
      expect(Math.abs(curve.atY[i] - wanted)).toBeLessThan(0.02 * (1 + Math.abs(wanted)))
    }
  })

  test('has a band that holds most of the noise out', () => {
    const x = Array.from({ length: 60 }, (_, i) => i)
    const noisy = table({ x, y: x.map(i => i + ((i * 7919) % 13) - 6) })
    const scene = draw({ x: 'x', y: 'y', draw: ['scatter', { as: 'trend', band: true }] }, noisy)
    const band = scene.batches.find(batch => batch.kind === 'areas')
    if (band?.kind !== 'areas') throw new Error('There is no band')
    const half = (i: number) => (band.atTop[i] - band.atBase[i]) / 2
    const middle = Math.floor(band.atX.length / 2)
    expect(half(0)).toBeGreaterThan(half(middle))
    expect(half(middle)).toBeGreaterThan(0.3)
    expect(half(middle)).toBeLessThan(2)
  })
})

describe('labels', () => {
  test('stand at bars with the values, alike in decimals', () => {
    const scene = draw({ draw: 'bar', x: 'route', y: 'sum of passengers', label: true })
    const labels = words(scene, '/labels ')
    expect(labels.every(text => /^\d,\d{3}$/.test(text))).toBe(true)
    expect(labels).toHaveLength(3)
  })

  test('are filled in from the rows they stand at', () => {
    const piers = table({ name: ['Harbour Steps', 'Gannet Slip'], x: [1, 2], y: [5, 9] })
    const scene = draw({ draw: 'scatter', x: 'x', y: 'y', label: { words: '{name}: {y} {{m}}' } }, piers)
    expect(words(scene, '/labels ').sort()).toEqual(['Gannet Slip: 9 {m}', 'Harbour Steps: 5 {m}'])
  })

  test('of titles are filled in from the rows that are drawn', () => {
    const scene = draw({
      draw: 'line',
      x: 'month of departed',
      y: 'sum of passengers',
      where: { route: 'Tern Point' },
      title: '{route}: {count} sailings {x',
    })
    expect(words(scene, 'title')).toEqual(['Tern Point: 40 sailings {x'])
    const whole = draw({
      draw: 'line',
      x: 'month of departed',
      y: 'count',
      title: '{sum of passengers} people',
    })
    expect(words(whole, 'title')[0]).toMatch(/^\d\d,\d{3} people$/)
    const odd = view({ draw: 'line', x: 'month of departed', y: 'count', title: 'Set {1}' })
    expect(words(odd.scene, 'title')).toEqual(['Set {1}'])
    expect(codes(odd)).toContain('unfilled-hole')
  })

  test('without room are left out and told of', () => {
    const many = table({
      name: Array.from({ length: 300 }, (_, i) => `A name that takes its room ${i}`),
      x: Array.from({ length: 300 }, (_, i) => i % 17),
      y: Array.from({ length: 300 }, (_, i) => (i * 7) % 19),
    })
    expect(codes(view({ draw: 'scatter', x: 'x', y: 'y', label: 'name' }, many))).toContain('labels-left-out')
  })
})

describe('legends', () => {
  const points = {
    draw: 'scatter',
    x: 'delay',
    y: 'passengers',
    color: 'route',
    shape: 'vessel',
    size: 'passengers',
  }
  test('explain colour, form and size apart', () => {
    const scene = draw(points)
    expect(words(scene, 'legend/names')).toEqual(['Route', 'North Sound', 'Gannet Bay', 'Tern Point'])
    expect(words(scene, 'legend/shape/names')).toEqual(['Vessel', 'Fulmar', 'Dunlin'])
    expect(words(scene, 'legend/size')[0]).toBe('Passengers')
    const forms = new Set(find<Discs>(scene, 'discs').form)
    expect(forms.size).toBe(2)
  })

  test('hide every series that an entry explains', () => {
    const made = new View(chart(sailings, points as Description), { hidden: ['shape\u001dFulmar'] }, frame)
    expect(find<Discs>(made.scene, 'discs').x.length).toBe(60)
  })

  test.each(['right', 'left', 'bottom', 'inside top right', 'inside bottom left'] as const)(
    'stand %s',
    at => {
      const scene = draw({
        draw: 'bar',
        x: 'month of departed',
        y: 'sum of passengers',
        color: 'route',
        legend: at,
      })
      const names = scene.batches.find(
        (batch): batch is Texts => batch.id === 'legend/names' && batch.kind === 'texts',
      )
      const [plot] = scene.plots
      const [x, y] = [names!.x[0], names!.y[0]]
      if (at === 'right') expect(x).toBeGreaterThan(plot.x + plot.width)
      if (at === 'left') expect(x).toBeLessThan(plot.x)
      if (at === 'bottom') expect(y).toBeGreaterThan(plot.y + plot.height)
      if (at.startsWith('inside')) {
        expect(x > plot.x + plot.width / 2).toBe(at.endsWith('right'))
        expect(y > plot.y + plot.height / 2).toBe(at.includes('bottom'))
      }
    },
  )

  test('can be turned off one by one', () => {
    const scene = draw({ ...points, legend: { shape: false, size: { title: 'People' } } })
    expect(words(scene, 'legend/shape')).toEqual([])
    expect(words(scene, 'legend/size')[0]).toBe('People')
  })
})

describe('the look', () => {
  test('of a crowd is a picture in which a lone point still shows', () => {
    const count = 30_000
    const crowd = table({
      x: Float64Array.from({ length: count + 1 }, (_, i) => (i === count ? 100 : (i * 7919) % 31)),
      y: Float64Array.from({ length: count + 1 }, (_, i) => (i === count ? 100 : (i * 104_729) % 37)),
    })
    const made = view({ draw: 'scatter', x: 'x', y: 'y' }, crowd)
    const picture = made.scene.batches.find(batch => batch.kind === 'pixels')
    if (picture?.kind !== 'pixels') throw new Error('There is no picture')
    const at = { x: made.scene.scales.get('x')!.map(100), y: made.scene.scales.get('y')!.map(100) }
    const column = Math.min(picture.columns - 1, Math.floor(at.x - picture.x[0]))
    const row = Math.floor(at.y - picture.y[0])
    expect(picture.rgba[(row * picture.columns + column - 1) * 4 + 3]).toBeGreaterThan(90)
    expect(readAt(made.composition.value, at.x, at.y)?.rows[0].rows).toEqual([count])
  })

  test('of the house lies over both themes, and a dark ground turns the inks light', () => {
    const plain = chart(sailings, { draw: 'bar', x: 'route', y: 'count' })
    const house = { font: 'Grotesk', palette: ['#8a2be2'], night: { background: '#101018' } }
    const scene = compose(plain, {}, { ...frame, theme: 'night', house })
    expect(scene.font).toMatch(/^Grotesk, Inter,/)
    expect(scene.background).toBe('#101018')
    expect(find<Rects>(scene, 'rects').colors).toEqual(['#8a2be2'])
    const dark = new View(plain.with({ background: '#0b2545' }), {}, frame).composition.value
    expect(dark.theme.name).toBe('night')
    expect(dark.scene.background).toBe('#0b2545')
  })

  test('of a tiny chart is shapes and two words', () => {
    const scene = draw(
      { draw: 'line', x: 'month of departed', y: 'sum of passengers', title: 'People' },
      sailings,
      { ...frame, width: 120, height: 60 },
    )
    expect(words(scene, '')).toHaveLength(2)
    expect(words(scene, 'tiny/name')).toEqual(['People'])
  })
})

test('kinds mix in one plot, in the order they are named in, from several tables', () => {
  const targets = table({ month: ['2024-01', '2024-06', '2024-12'], goal: [900, 950, 1000] })
  const scene = compose(
    chart(sailings, {
      x: 'month of departed',
      draw: [
        { as: 'bar', y: 'sum of passengers' },
        { as: 'line', y: 'mean of delay', against: 'right' },
        on(targets, { as: 'reference', x: 'month', y: 'goal' }),
        { as: 'text', y: 'sum of passengers', label: { words: '{count}' } },
      ],
    } as Description),
    {},
    frame,
  )
  const order = scene.batches.filter(batch => batch.part === 'data').map(batch => batch.id.split('/')[0])
  expect([...new Set(order)]).toEqual(['drawing 0', 'drawing 1', 'drawing 2', 'drawing 3'])
})

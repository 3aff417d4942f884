import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { chart, table } from '../index.ts'
import { View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

const days = table({
  t: Array.from({ length: 2555 }, (_, i) => new Date(Date.UTC(2018, 0, 1 + i))),
  v: Array.from({ length: 2555 }, (_, i) => i - 300),
})
const frame = { width: 1280, height: 800, measure: measureInter }
const viewOf = (axes: object) =>
  new View(chart(days, { draw: 'line', x: 't', y: 'v', axes } as never), {}, frame)
const labels = (view: View, axis: string) => {
  const texts = view.scene.batches.find(batch => batch.id === `axis ${axis}/labels`)
  return texts?.kind === 'texts' ? texts.texts : []
}

describe('ticks closer than they can be read become as close as they can be, and that is told', () => {
  test.each([
    [
      'x',
      { every: { seconds: 1 } },
      'every second on the axis "x" would be 220,665,600',
      'every quarter is drawn',
    ],
    ['x', { every: { minutes: 1 } }, 'would be 3,677,760', 'is drawn'],
    ['y', { every: 0.001 }, 'would be 2,', 'every 100 is drawn'],
    ['y', { every: 1e-300 }, 'too many', 'is drawn'],
    ['y', 1000, '1,000 ticks were asked for', 'there is room for'],
    ['x', 1e9, '1,000,000,000 ticks', 'there is room for'],
    ['y', Array.from({ length: 5000 }, (_, i) => i), 'of the 5,000 ticks asked for', 'no room'],
  ])('%s: %j', (axis, ticks, count, drawn) => {
    const view = viewOf({ [axis]: { ticks } })
    const told = view.findings.filter(finding => finding.path === `axes.${axis}.ticks`)
    expect(told).toHaveLength(1)
    expect(told[0].message).toContain(count)
    expect(told[0].message).toContain(drawn)
    expect(labels(view, axis).length).toBeGreaterThan(1)
    expect(labels(view, axis).length).toBeLessThan(100)
  })

  test('strong gridlines too', () => {
    const view = viewOf({ x: { strongAt: 'minute' } })
    expect(view.findings.map(finding => finding.path)).toEqual(['axes.x.strongAt'])
    const lines = view.scene.batches.find(batch => batch.id === 'grid x/strong')
    expect(lines?.kind === 'segments' && lines.x1.length).toBeLessThan(250)
    expect(viewOf({ x: { strongAt: 'year' } }).findings).toEqual([])
  })

  test('the interval that was asked for is drawn wherever it can be read', () => {
    fc.assert(
      fc.property(fc.constantFrom(100, 200, 250, 500, 1000), step => {
        const view = viewOf({ y: { ticks: { every: step } } })
        const shown = labels(view, 'y').map(text => Number(text.replace(/,/g, '')))
        if (view.findings.length === 0)
          for (let i = 1; i < shown.length; i++) expect(Math.abs(shown[i] - shown[i - 1])).toBe(step)
        else expect(step).toBeLessThan(200)
      }),
    )
  })

  test.each([
    { every: 0 },
    { every: -1 },
    { every: { days: 0.1 } },
    { every: { months: -1 } },
    { every: { hours: 1, minutes: 30 } },
  ])('%j is no interval', ticks => {
    expect(() => viewOf({ x: { ticks } }).scene).toThrow(/no interval/)
  })
})

test('what top leaves out of a cycle has a name and no time', () => {
  for (const role of ['x', 'color'] as const) {
    const other = role === 'x' ? {} : { x: 'month of t' }
    const view = new View(
      chart(days, {
        draw: 'bar',
        y: 'count',
        ...other,
        [role]: 'weekday of t',
        top: 3,
        rest: 'Others',
      } as never),
      {},
      frame,
    )
    const names = view.scene.batches.find(batch => batch.id === 'axis x/labels')
    // Days that were left out are not shown as if they had been empty.
    if (role === 'x') expect(names?.kind === 'texts' && names.texts).toHaveLength(4)
    expect(
      JSON.stringify(view.scene.batches.flatMap(batch => (batch.kind === 'texts' ? batch.texts : []))),
    ).toContain('Others')
  }
})

test('very many series are drawn, and too many are refused', () => {
  const of = (count: number) =>
    table({
      x: Array.from({ length: count }, (_, i) => i),
      s: Array.from({ length: count }, (_, i) => `s${i}`),
    })
  for (const draw of ['line', 'scatter'] as const) {
    const view = new View(chart(of(30_000), { draw, x: 'x', y: 'x', color: 's' }), {}, frame)
    expect(view.scene.batches.length).toBeGreaterThan(3)
    expect(() => new View(chart(of(70_000), { draw, x: 'x', y: 'x', color: 's' }), {}, frame).scene).toThrow(
      '70,000 series',
    )
  }
})

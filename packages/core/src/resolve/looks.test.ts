import { expect, test } from 'vitest'
import { builtinKinds, chart, type Description, type Kind, table } from '../index.ts'
import { View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

const sailings = table([
  { route: 'Harbour', month: 1, passengers: 120, wind: 4 },
  { route: 'Harbour', month: 2, passengers: 90, wind: 7 },
  { route: 'Tern Point', month: 1, passengers: 60, wind: 5 },
  { route: 'Tern Point', month: 2, passengers: 75, wind: 2 },
  { route: 'Tern Point', month: 3, passengers: 40, wind: 9 },
])
const viewOf = (description: Description) =>
  new View(chart(sailings, description), {}, { width: 400, height: 300, measure: measureInter })
const sceneOf = (description: Description) => JSON.stringify(viewOf(description).scene)
const found = (description: Description) =>
  viewOf(description)
    .findings.filter(({ code }) => code === 'no-effect')
    .map(({ message, path }) => [message, path])

/** Values that differ from the default of every kind. */
const LOOKS = {
  arrange: 'share',
  between: 'hold next',
  points: true,
  hollow: 0.5,
  fit: { degree: 2 },
  band: 0.9,
} as const
const BOUND: Record<keyof typeof builtinKinds, Description> = {
  line: { draw: 'line', x: 'month', y: 'passengers', color: 'route' },
  area: { draw: 'area', x: 'month', y: 'passengers', color: 'route', arrange: 'overlap' },
  bar: { draw: 'bar', x: 'month', y: 'sum of passengers', color: 'route' },
  scatter: { draw: 'scatter', x: 'wind', y: 'passengers', color: 'route' },
  pie: { draw: 'pie', color: 'route', y: 'sum of passengers' },
  heatmap: { draw: 'heatmap', x: 'month', y: 'route', color: 'sum of passengers' },
  reference: { draw: ['line', { as: 'reference', level: 'mean' }], x: 'month', y: 'sum of passengers' },
  trend: { draw: 'trend', x: 'wind', y: 'passengers' },
  text: { draw: 'text', x: 'wind', y: 'passengers', label: 'route' },
}

test.each(Object.keys(BOUND) as (keyof typeof BOUND)[])(
  '%s reads the looks that it declares, and a look that it does not read is told and changes nothing',
  name => {
    const plain = BOUND[name]
    const kinds = [builtinKinds[name], ...(name === 'reference' ? [builtinKinds.line] : [])]
    for (const [look, value] of Object.entries(LOOKS)) {
      const reads = kinds.some(
        ({ looks, arranges }: Kind) =>
          looks?.includes(look as keyof typeof LOOKS) &&
          (look !== 'arrange' || arranges === undefined || arranges.includes(LOOKS.arrange)),
      )
      const told = { ...plain, [look]: value }
      expect(sceneOf(told) !== sceneOf(plain), look).toBe(reads)
      expect(found(told).length > 0, look).toBe(!reads)
    }
  },
)

test('a look without effect says where it stands and what would read it', () => {
  expect(found({ draw: { as: 'line', hollow: 0.4 }, x: 'month', y: 'passengers' })).toEqual([
    ['"hollow" changes nothing about "line"', 'draw.hollow'],
  ])
  const both: Description = { draw: ['bar', 'line'], x: 'month', y: 'sum of passengers', points: true }
  expect(found(both)).toEqual([])
  expect(found({ ...both, draw: ['bar', { as: 'line', points: false }] })).toEqual([
    ['"points" changes nothing about "bar"', 'points'],
  ])
  const [finding] = viewOf({ ...both, points: false, hollow: 0.3 }).findings
  expect(finding.remedy).toBe('Leave it out, or use it with "pie".')
})

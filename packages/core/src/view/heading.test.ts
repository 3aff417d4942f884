import fc from 'fast-check'
import { expect, test } from 'vitest'
import { chart, type Description, spread, table } from '../index.ts'
import { View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

const PIERS = ['Old Mole', 'Kelp Quay', 'North Stairs', 'Tern Point', 'Gannet Steps']
const rowsOf = fc.array(
  fc.record({ pier: fc.constantFrom(...PIERS), boarded: fc.integer({ min: 1, max: 999 }) }),
  { minLength: 1, maxLength: 20 },
)
const viewOf = (rows: object[], description: Description) =>
  new View(
    chart(table(rows as Record<string, unknown>[]), description),
    {},
    { width: 600, height: 400, measure: measureInter },
  )

test('a heading sums up what the picture shows, names its leader, and has all where it is asked', () => {
  fc.assert(
    fc.property(
      rowsOf,
      fc.option(fc.integer({ min: 1, max: 4 }), { nil: undefined }),
      fc.boolean(),
      fc.option(fc.subarray(PIERS, { minLength: 1 }), { nil: undefined }),
      fc.boolean(),
      (rows, top, rest, piers, lying) => {
        const [x, y] = lying ? ['sum of boarded', 'pier'] : ['pier', 'sum of boarded']
        const own = { top, rest: top === undefined ? undefined : rest, where: piers && { pier: piers } }
        const view = viewOf(rows, {
          draw: { as: 'bar', ...own },
          x,
          y,
          title: '{sum of boarded}|{count in all}|{pier of the leader}|{sum of boarded of the leader}',
          top: 9,
        })
        const { marks } = view.composition.value.panes[0].bound.drawings[0]
        const values = Array.from(lying ? marks.x.at : marks.y.at)
        const [sum, all, leader, most] = view.scene.title.replaceAll(',', '').split('|')
        expect(Number(all)).toBe(rows.length)
        if (values.length === 0) return
        expect(Number(sum)).toBe(values.reduce((total, value) => total + value))
        expect(Number(most)).toBe(Math.max(...values))
        const at = values.indexOf(Number(most))
        const names = [...new Set(Array.from(marks.rowsOf(at), row => rows[row].pier))]
        if (names.length === 1) expect(leader).toBe(names[0])
      },
    ),
  )
})

test('a column that is called just so goes before', () => {
  const rows = [{ pier: 'Old Mole', boarded: 4, 'boarded in all': 40 }]
  expect(viewOf(rows, { draw: 'bar', x: 'pier', y: 'boarded', title: '{boarded in all}' }).scene.title).toBe(
    '40',
  )
})

test('the words of a spread are filled from the rows of its first chart, and what is amiss with them is told', () => {
  const piers = table([
    { pier: 'Old Mole', boarded: 4 },
    { pier: 'Kelp Quay', boarded: 5 },
  ])
  const first = chart(piers, { draw: 'bar', x: 'pier', y: 'boarded', where: { pier: 'Kelp Quay' } })
  const second = first.with({ where: null })
  const frame = { width: 500, height: 400, measure: measureInter }
  const titled = (title: string) => new View(spread([first, second], { title }), {}, frame)
  expect(titled('{sum of boarded} of {sum of boarded in all}').scene.title).toBe('5 of 9')
  const amiss = titled('{sum of bored}')
  expect(amiss.scene.title).toBe('{sum of bored}')
  expect(amiss.findings.map(({ path }) => path)).toEqual(['title'])
})

test('what has no value is a dash in a title', () => {
  const rows = [{ pier: 'Old Mole', boarded: null as number | null }]
  const told = chart(table(rows, { columns: { boarded: { type: 'number' } } }), {
    draw: 'bar',
    x: 'pier',
    y: 'count',
    title: '{sum of boarded} and {mean of boarded}',
  })
  expect(new View(told, {}, { width: 500, height: 400, measure: measureInter }).scene.title).toBe('– and –')
})

import { expect, test } from 'vitest'
import { chart, table } from '../index.ts'
import { View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

const rows = table({ route: ['Tern Point', 'Gannet Bay'], passengers: [4, 9] })
const house = { day: { background: '#fdfdf0' }, palette: ['#884411', '#116688'] }

test.each([
  ['a house style', {}, { house }],
  ['a background', { background: '#eef0f2' }, {}],
  ['neither', {}, {}],
] as const)('with %s a new size binds nothing anew, and a new theme does', (_, told, framed) => {
  const description = { draw: 'bar', x: 'route', y: 'passengers', color: 'route', ...told } as const
  const frame = { width: 400, height: 300, measure: measureInter, ...framed }
  const view = new View(chart(rows, description), {}, frame as never)
  const bound = () => view.composition.value.panes[0].bound
  const first = bound()
  view.frame.value = { ...view.frame.value, width: 500 }
  expect(view.scene.width).toBe(500)
  expect(bound()).toBe(first)
  view.frame.value = { ...view.frame.value, theme: 'night' }
  expect(bound()).not.toBe(first)
  rows.append({ route: 'North Sound', passengers: 2 })
  expect(bound().drawings[0].marks.length).toBe(rows.length)
})

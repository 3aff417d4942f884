import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, compose, type Description, type Table, table } from '../index.ts'
import { type Answer, answeredBy, askColumns, View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'
import { spread } from './spread.ts'

const FRAME = { width: 500, height: 300, measure: measureInter }
const rows = [
  { route: 'Harbour', month: '2024-01-03', passengers: 120 },
  { route: 'Harbour', month: '2024-02-03', passengers: 90 },
  { route: 'Tern Point', month: '2024-02-04', passengers: 60 },
]
const BARS = {
  title: '{sum of passengers} carried',
  draw: 'bar',
  x: 'route',
  y: 'sum of passengers',
} as const
const LINE = { draw: 'line', x: 'month of month', y: 'sum of passengers', color: 'route' } as const

/** A table whose answers wait until they are let go. */
function slowTable(own: object[] = rows) {
  const asked: { give(): void; fail(error: unknown): void }[] = []
  const slow: Table<any> = table(own as typeof rows)
  answeredBy(
    slow,
    (table, question): Answer =>
      new Promise((give, fail) => {
        asked.push({ give: () => give(askColumns(table, question)), fail })
      }),
  )
  const letGo = () => {
    for (const one of asked.splice(0)) one.give()
  }
  return { slow, asked, letGo }
}

const sceneOf = (description: Description, own: object[] = rows) =>
  compose(chart(table(own), description), {}, FRAME)
const words = (view: View) =>
  view.scene.batches.flatMap(batch => (batch.kind === 'texts' ? [...batch.texts] : []))

test('before the first answer a chart says that its values are on their way, and then it is the chart', async () => {
  const { slow, letGo } = slowTable()
  const view = new View(chart(slow, BARS), {}, FRAME)
  expect(words(view)).toEqual(['… carried', 'Passengers', 'Values are loading.'])
  expect(view.scene.description).toContain('Values are loading.')
  expect(view.findings.map(({ code }) => code)).toEqual(['on-its-way'])
  expect(view.waiting).toBe(true)
  letGo()
  await view.settled()
  expect(view.waiting).toBe(false)
  expect(view.findings).toEqual([])
  expect(JSON.stringify(view.scene)).toBe(JSON.stringify(sceneOf(BARS)))
})

test('while newer values are on their way the old picture stays, also that of another description', async () => {
  const { slow, letGo } = slowTable()
  const view = new View(chart(slow, BARS), {}, FRAME)
  void view.scene
  letGo()
  await view.settled()
  const before = JSON.stringify(view.scene)
  view.chart.value = chart(slow, LINE)
  expect(JSON.stringify(view.scene)).toBe(before)
  expect(view.waiting).toBe(true)
  slow.append({ route: 'Gull Isle', month: '2024-03-01', passengers: 200 })
  expect(JSON.stringify(view.scene)).toBe(before)
  letGo()
  await view.settled()
  expect(JSON.stringify(view.scene)).toBe(JSON.stringify(sceneOf(LINE, slow.rows())))
})

test('what fails is a finding; the picture is the last one, and a new question is asked anew', async () => {
  const { slow, asked, letGo } = slowTable()
  const view = new View(chart(slow, { draw: 'bar', x: 'route', y: 'count' }), {}, FRAME)
  void view.scene
  asked.splice(0)[0].fail(new Error('the line is dead'))
  await view.settled()
  expect(words(view)).toEqual(['Count', 'Values could not be loaded.'])
  expect(view.findings.map(({ code, message }) => [code, message])).toEqual([
    ['no-answer', 'There is no answer from the table: the line is dead'],
  ])
  slow.append({ route: 'Harbour', month: '2024-03-01', passengers: 1 })
  void view.scene
  letGo()
  await view.settled()
  expect(view.findings).toEqual([])
  const whole = JSON.stringify(view.scene)
  slow.append({ route: 'Harbour', month: '2024-03-02', passengers: 1 })
  void view.scene
  asked.splice(0)[0].fail('too large')
  await view.settled()
  expect(JSON.stringify(view.scene)).toBe(whole)
  expect(view.findings.map(({ code }) => code)).toEqual(['no-answer'])
})

test('a spread is shown when all of its charts are answered', async () => {
  const { slow, asked, letGo } = slowTable()
  const both = spread([chart(slow, LINE), chart(table(rows), BARS)])
  const view = new View(both, {}, FRAME)
  expect(words(view)).toContain('Values are loading.')
  expect(words(view)).toContain('270 carried')
  expect(asked).toHaveLength(1)
  letGo()
  await view.settled()
  const now = compose(spread([chart(table(rows), LINE), chart(table(rows), BARS)]), {}, FRAME)
  expect(JSON.stringify(view.scene)).toBe(JSON.stringify(now))
})

test('drawings that ask the same ask once, and an answer that arrives asks nothing', async () => {
  const { slow, asked, letGo } = slowTable()
  const line = { as: 'line', x: 'month of month', y: 'sum of passengers' } as const
  const view = new View(chart(slow, { draw: [line, { ...line, style: { color: '#888' } }] }), {}, FRAME)
  void view.scene
  expect(asked).toHaveLength(1)
  letGo()
  await view.settled()
  view.frame.value = { ...FRAME, width: 700 }
  view.state.value = { hidden: ['nothing'] }
  void view.scene
  expect(asked).toHaveLength(0)
})

test('in whatever order answers come, the last question has the last word', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(fc.constantFrom('append', 'show', 'answer', 'late'), fc.nat(9)), { maxLength: 12 }),
      async steps => {
        const { slow, asked, letGo } = slowTable()
        const view = new View(chart(slow, BARS), {}, FRAME)
        let now: Description = BARS
        for (const [step, n] of steps) {
          void view.scene
          if (step === 'append') slow.append({ route: `Pier ${n % 3}`, month: '2024-04-01', passengers: n })
          else if (step === 'show') view.chart.value = chart(slow, (now = n % 2 ? BARS : LINE))
          else if (asked.length > 0) asked.splice(step === 'late' ? asked.length - 1 : 0, 1)[0].give()
          await Promise.resolve()
        }
        void view.scene
        letGo()
        await view.settled()
        expect(JSON.stringify(view.scene)).toBe(JSON.stringify(sceneOf(now, slow.rows())))
      },
    ),
    { numRuns: runs(60) },
  )
})

test('while a person drags, answers that come in between are shown, and of those passed over nobody waits', async () => {
  const { slow, asked } = slowTable()
  const released: number[] = []
  answeredBy(slow, (table, question): Answer => {
    const place = asked.length
    const promise: Answer & Promise<any> = new Promise(give => {
      asked.push({ give: () => give(askColumns(table, question)), fail: () => {} })
    })
    return Object.assign(promise, { hold() {}, release: () => released.push(place) })
  })
  const until = (month: string) => chart(slow, { ...LINE, title: month, where: { month: { until: month } } })
  const view = new View(until('2024-02-01'), {}, FRAME)
  void view.scene
  asked[0].give()
  await view.settled()
  const step = (month: string) => {
    view.chart.value = until(month)
    return view.scene.title
  }
  // Each step asks anew before the one before is answered.
  expect(['2024-02-02', '2024-02-03', '2024-02-04'].map(step)).toEqual(Array(3).fill('2024-02-01'))
  expect(released).toEqual([0, 2])
  asked[1].give()
  await Promise.resolve()
  await Promise.resolve()
  expect(view.scene.title).toBe('2024-02-02')
  expect(view.waiting).toBe(true)
  asked[3].give()
  await view.settled()
  expect(view.scene.title).toBe('2024-02-04')
})

import type { Chart, Description } from 'dapplo'
import type { Locator, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { flawsOf } from './support/axe.ts'
import { engine, sample, sampled } from './support/browser.ts'
import { runs } from './support/extent.ts'
import { type Gallery, openGallery } from './support/gallery.ts'
import { still } from './support/waiting.ts'

let gallery: Gallery
beforeAll(async () => {
  gallery = await openGallery()
})
afterAll(() => gallery?.close())

/** One choice: a card to begin with, a word and what it becomes, an addition, or a text that is written. */
type Choice =
  | { begin: RegExp }
  | { word: string; to: string }
  /** `chart`: which of several, from 0; the last place is for what is said of all. */
  | { add: string; chart?: number }
  | { word: string; write: string }

/** A chart that a person wants, how it is chosen, and what it is in the end. */
interface Wish {
  name: string
  table: string
  choices: Choice[]
  sentence: string
}

const LINES = { begin: /^Draw lines of sum of passengers/ }
const wishes: Wish[] = [
  {
    name: 'bars up, with a second measure on the right',
    table: 'sailings',
    choices: [
      LINES,
      { word: 'lines', to: 'bars' },
      { add: 'stacked' },
      { add: 'a line of mean of passengers on the right' },
      { word: 'mean of passengers', to: 'mean of delay_minutes' },
    ],
    sentence:
      'Draw bars of sum of passengers for each month of departed, one colour per route, stacked; and a line of mean of delay_minutes, in one colour, read on the right.',
  },
  {
    name: 'the top nine lying, with the rest',
    table: 'piers',
    choices: [
      { begin: /^Draw lying bars/ },
      { add: 'only the 10 greatest' },
      { word: '10', write: '9' },
      { add: 'with the rest as one' },
    ],
    sentence:
      'Draw lying bars of sum of passengers for each pier, only the 9 greatest, with the rest as one, the greatest first, with values.',
  },
  {
    name: 'two charts with axes and legends of their own and one title',
    table: 'sailings',
    choices: [
      LINES,
      { add: 'a chart below' },
      { add: 'one colour per route', chart: 1 },
      { add: 'stacked', chart: 1 },
      { add: 'a title', chart: 2 },
      { word: 'A title', write: 'Two ways to see a year' },
    ],
    sentence:
      'Draw lines of sum of passengers over month of departed, one colour per route. Below it: Draw bars of sum of vehicles for each month of departed, one colour per route, stacked. The title is “Two ways to see a year”.',
  },
  {
    name: 'two panes with scales of their own and one title',
    table: 'sailings',
    choices: [
      LINES,
      { add: 'only where route' },
      { word: 'route is North Sound', to: 'or Gannet Bay' },
      { add: 'a pane for each route' },
      { add: 'scales of their own for panes' },
      { add: 'a title' },
      { word: 'A title', write: 'Two routes' },
    ],
    sentence:
      'Draw lines of sum of passengers over month of departed, one colour per route, only where route is North Sound or Gannet Bay. There is a pane for each route. Panes have scales of their own. The title is “Two routes”.',
  },
  {
    name: 'counts per quarter, with months on a click',
    table: 'sailings',
    choices: [
      LINES,
      { word: 'lines', to: 'bars' },
      { word: 'sum of passengers', to: 'count' },
      { word: 'month of departed', to: 'quarter of departed' },
      { word: 'route', to: 'Leave this out' },
      { add: 'people choose quarter of departed or month of departed' },
    ],
    sentence:
      'Draw bars of count for each quarter of departed. People choose quarter of departed or month of departed for x.',
  },
  {
    name: 'a race',
    table: 'piers',
    choices: [{ begin: /^Draw lying bars/ }, { add: 'playing through year' }],
    sentence:
      'Draw lying bars of sum of passengers for each pier, the greatest first, with values. It plays through year.',
  },
  {
    name: 'points with a trend',
    table: 'sailings',
    choices: [
      { begin: /^Draw points/ },
      { word: 'vehicles', to: 'wind_knots' },
      { word: 'passengers', to: 'delay_minutes' },
      { word: 'route', to: 'Leave this out' },
      { add: 'a trend' },
    ],
    sentence: 'Draw points at wind_knots and delay_minutes; and a trend.',
  },
  {
    name: 'cells by hour and weekday',
    table: 'sailings',
    choices: [
      LINES,
      { word: 'lines', to: 'cells' },
      { word: 'month of departed', to: 'hour of day of departed' },
      { word: 'route', to: 'weekday of departed' },
    ],
    sentence:
      'Draw cells for each hour of day of departed and weekday of departed, coloured by sum of passengers.',
  },
  {
    name: 'a ring',
    table: 'tickets',
    choices: [
      { begin: /^Draw bars of sum of sold for each kind/ },
      { word: 'bars', to: 'slices' },
      { add: 'hollow by 0.6' },
    ],
    sentence:
      'Draw slices of sum of sold, one colour per kind, the greatest first, with values, hollow by 0.6.',
  },
]

const now = (page: Page) => page.evaluate(() => window.composer.sentence)

/** By pointer. */
async function point(page: Page, choice: Choice): Promise<void> {
  if ('begin' in choice) return page.getByRole('button', { name: choice.begin }).click()
  if ('add' in choice)
    await page
      .locator('.and')
      .nth(choice.chart ?? 0)
      .click()
  else await page.getByRole('button', { name: choice.word, exact: true }).first().click()
  if ('write' in choice) {
    await page.getByRole('dialog').getByRole('textbox').first().fill(choice.write)
    return page.getByRole('button', { name: 'Set' }).click()
  }
  await page.getByRole('option', { name: 'add' in choice ? choice.add : choice.to, exact: true }).click()
}

/** The words of what has the focus, within the composer. */
const focused = (page: Page) =>
  page.evaluate(() => {
    let here: Element | null | undefined = document.activeElement
    while (here?.shadowRoot?.activeElement) here = here.shadowRoot.activeElement
    return here?.textContent ?? ''
  })

/** Which of the buttons that add has the focus, from 0. */
const focusedAdding = (page: Page) =>
  page.locator('.and').evaluateAll(all => all.findIndex(one => one.matches(':focus')))

async function tabTo(page: Page, fits: (words: string) => boolean | Promise<boolean>): Promise<void> {
  for (let i = 0; i < 60; i++) {
    if (await fits(await focused(page))) return
    await page.keyboard.press('Tab')
  }
  throw new Error(`The keyboard does not reach it; it is at "${await focused(page)}".`)
}

/** By keys alone. */
async function press(page: Page, choice: Choice): Promise<void> {
  // From the beginning, as focus is on the word that was chosen last.
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
  if ('add' in choice) await tabTo(page, async () => (await focusedAdding(page)) === (choice.chart ?? 0))
  else await tabTo(page, words => ('begin' in choice ? choice.begin.test(words) : words === choice.word))
  await page.keyboard.press('Enter')
  if ('begin' in choice) return
  if ('write' in choice) {
    await page.keyboard.press('ControlOrMeta+a')
    await page.keyboard.type(choice.write)
    return page.keyboard.press('Enter')
  }
  const wanted = 'add' in choice ? choice.add : choice.to
  const active = () =>
    page.getByRole('dialog').locator('[aria-activedescendant]').getAttribute('aria-activedescendant')
  if (await page.getByRole('combobox').count()) await page.keyboard.type(wanted)
  for (let i = 0; i < 60; i++) {
    if ((await page.locator(`#${await active()}`).textContent()) === wanted)
      return page.keyboard.press('Enter')
    await page.keyboard.press('ArrowDown')
  }
  throw new Error(`The list has no "${wanted}".`)
}

describe.each([
  ['by pointer', point, [0, 1, 5, 7]],
  // The keys walk menus that the pointer has opened already: those of few and of several charts.
  ['by keyboard', press, [8, 2]],
] as const)('a chart from nothing, %s', (_, make, places) => {
  test.each(sample(wishes, ...places))('$name', async ({ table, choices, sentence }) => {
    const { page, errors } = await gallery.openPlain(`compose.html?begin&table=${table}`)
    await page.getByRole('heading', { name: 'Choose a chart to begin with' }).waitFor()
    for (const choice of choices) {
      const before = await now(page)
      await make(page, choice)
      await page.waitForFunction(said => window.composer.sentence !== said, before)
    }
    expect(await now(page)).toBe(sentence)
    expect(choices.length).toBeLessThanOrEqual(12)
    // What the application is given is what is shown, and can be shown again.
    const description = await page.evaluate(() => JSON.stringify(window.composer.description))
    expect(await page.evaluate(() => JSON.stringify(window.steps.at(-1)))).toBe(description)
    await page.evaluate(text => window.composer.show(JSON.parse(text)), description)
    await still(page)
    expect(errors).toEqual([])
    await page.context().close()
  })
})

test.each(
  sample(
    [
      'compose.html?theme=night&lang=de',
      'compose.html',
      'compose.html?begin',
      'compose.html?begin&table=none',
      'compose.html?begin&table=many',
    ],
    ...[2, 0, 4],
  ),
)('axe finds nothing in /%s, with its menus open or not', async path => {
  const { page, errors } = await gallery.openPlain(path)
  await page.locator('.dapplo-composer').waitFor()
  expect(await flawsOf(page)).toEqual([])
  const words = await page.locator('.choice, .and').count()
  for (let i = 0; i < words; i++) {
    await page.locator('.choice, .and').nth(i).click()
    await page.getByRole('dialog').waitFor()
    expect(await flawsOf(page)).toEqual([])
    await page.keyboard.press('Escape')
    await page.getByRole('dialog').waitFor({ state: 'detached' })
  }
  expect(errors).toEqual([])
  await page.context().close()
})

test.skipIf(sampled)(
  'very many steps are undone and done again, and it goes back to how it was',
  async () => {
    const { page, errors } = await gallery.openPlain('compose.html')
    const first = await now(page)
    const steps = runs(1000)
    const at = await page.evaluate(async steps => {
      const { composer } = window
      const begin = composer.description!
      for (let i = 0; i < steps; i++) composer.show({ ...begin, title: `Step ${i}` })
      for (let i = 0; i < steps; i++) composer.undo()
      const undone = composer.sentence
      for (let i = 0; i < steps; i++) composer.redo()
      return [undone, composer.description!.title]
    }, steps)
    expect(at).toEqual([first, `Step ${steps - 1}`])
    await page.keyboard.press('Tab')
    await page.locator('.choice').first().focus()
    await page.keyboard.press('ControlOrMeta+z')
    expect(await page.evaluate(() => window.composer.description!.title)).toBe(`Step ${steps - 2}`)
    await page.getByRole('button', { name: 'Back to how it was' }).click()
    expect(await now(page)).toBe(first)
    expect(errors).toEqual([])
    await page.context().close()
  },
)

test.skipIf(sampled)(
  'what would be regretted is mended by a button; data that are dropped in are used',
  async () => {
    const { page, errors } = await gallery.openPlain('compose.html?begin&table=piers')
    await page.evaluate(() => window.composer.show({ draw: 'pie', y: 'sum of passengers', color: 'pier' }))
    await still(page)
    const mend = page.getByRole('button', { name: /^Mend this/ })
    const told = await mend.first().getAttribute('aria-label')
    await mend.first().click()
    await still(page)
    expect(await now(page)).toContain('with the rest as one')
    expect(await mend.evaluateAll(all => all.map(one => one.getAttribute('aria-label')))).not.toContain(told)
    await page.locator('.dapplo-composer').evaluate(host => {
      const data = new DataTransfer()
      data.items.add(new File(['kind,sold\nAdult,12\nChild,7\n'], 'tickets.csv', { type: 'text/csv' }))
      host
        .shadowRoot!.querySelector('.composer')!
        .dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, composed: true }))
    })
    await page.getByRole('button', { name: /^Draw bars of sold for each kind/ }).click()
    expect(await now(page)).toContain('sold for each kind')
    expect(errors).toEqual([])
    await page.context().close()
  },
)

/** Clicks on words of the picture, where the scene says they stand. */
async function clickWords(page: Page, words: string): Promise<void> {
  const { x, y } = await placeOfWords(page, words)
  // What is told about the place before would lie over these words: a person leaves it first.
  await page.mouse.move(2, 2)
  await still(page)
  await page.mouse.click(x, y)
}

/** Where the picture says something, on the screen. */
async function placeOfWords(page: Page, words: string): Promise<{ x: number; y: number }> {
  const at = await page.evaluate(text => {
    for (const batch of window.composer.live!.scene.batches) {
      if (batch.kind !== 'texts') continue
      const i = batch.texts.indexOf(text)
      if (i >= 0) return { x: batch.x[i] + { start: 4, middle: 0, end: -4 }[batch.anchor], y: batch.y[i] - 4 }
    }
    throw new Error(`The picture does not say "${text}".`)
  }, words)
  const { x, y } = (await page.locator('.dapplo-composer .chart').boundingBox())!
  return { x: x + at.x, y: y + at.y }
}

test.skipIf(sampled)('names along an axis are put in order by a click on one', async () => {
  const { page, errors } = await gallery.openPlain('compose.html')
  await page.evaluate(() => window.composer.show({ draw: 'bar', x: 'route', y: 'sum of passengers' }))
  await still(page)
  await clickWords(page, 'Tern Point')
  await page.keyboard.press('Enter')
  expect(await now(page)).toContain('for each route, the greatest first.')
  expect(errors).toEqual([])
  await page.context().close()
})

/** Drags words in the chart so far, as people do. */
async function dragWords(page: Page, words: string, by: { x?: number; y?: number }): Promise<void> {
  const { x, y } = await placeOfWords(page, words)
  const [dx, dy] = [by.x ?? 0, by.y ?? 0]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + dx / 2, y + dy / 2, { steps: 3 })
  await page.mouse.move(x + dx, y + dy, { steps: 3 })
  await page.mouse.up()
}

test('ends of a scale are dragged by its figures, and names to where they belong; a drag is one step and no click', async () => {
  const { page, errors } = await gallery.openPlain('compose.html')
  const show = (description: object) =>
    page.evaluate(one => window.composer.show(one as Description), description)
  await show({ draw: 'bar', x: 'route', y: 'sum of passengers' })
  await still(page)
  await dragWords(page, 'Tern Point', { x: -500 })
  const words = () =>
    page.evaluate(
      () => ((window.composer.description as Description).scales!.x as { domain: string[] }).domain,
    )
  expect((await words()).slice(0, 2)).toEqual(['Tern Point', 'North Sound'])
  expect(await now(page)).toContain('The scale x has the names Tern Point, North Sound, ')
  expect(await page.getByRole('dialog').count()).toBe(0)
  await still(page)
  // Down to half the height: what was 600K at the top ends the scale higher.
  await dragWords(page, '600K', { y: 170 })
  const high = await page.evaluate(
    () => ((window.composer.description as Description).scales!.y as { domain: [null, number] }).domain,
  )
  expect(high[0]).toBe(null)
  expect(high[1]).toBeGreaterThan(1_000_000)
  expect(await now(page)).toContain('The scale y goes up to ')
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  expect(await now(page)).toBe('Draw bars of sum of passengers for each route.')
  // The same in one of several charts, along time.
  await show({
    spread: [
      { draw: 'bar', x: 'route', y: 'count' },
      { draw: 'line', x: 'month of departed', y: 'count' },
    ],
  })
  await still(page)
  await dragWords(page, '2025', { x: 100 })
  expect(await now(page)).toMatch(/Below it: .*The scale x goes up to 202\d-\d\d-\d\d\.$/)
  expect(errors).toEqual([])
  await page.context().close()
})

test.skipIf(sampled)(
  'a note is written, a column is read as something else, and the application is told',
  async () => {
    const { page, errors } = await gallery.openPlain('compose.html?table=piers')
    const show = (description: object) =>
      page.evaluate(one => window.composer.show(one as Description), description)
    await show({ draw: 'bar', x: 'pier', y: 'sum of passengers' })
    await point(page, { add: 'a note at Harbour Steps' })
    await point(page, { word: 'A note', write: 'A new quay' })
    expect(await now(page)).toContain('A note at Harbour Steps says “A new quay”.')
    await still(page)
    const said = await page.evaluate(() =>
      window.composer.live!.scene.batches.some(
        batch => batch.kind === 'texts' && batch.texts.includes('A new quay'),
      ),
    )
    expect(said).toBe(true)
    await page.getByText(/^Columns/).click()
    await page.getByLabel('Read year as').selectOption('times')
    expect(await page.evaluate(() => window.types)).toEqual({ year: 'time' })
    await show({ draw: 'line', x: 'year of year', y: 'sum of passengers' })
    await still(page)
    expect(await page.evaluate(() => window.composer.live!.scene.scales.get('x')!.kind.name)).toBe('time')
    // With what it was told, the application draws the same.
    const again = await page.evaluate(() => {
      const { chartFrom, tables } = window.composing
      return (chartFrom(tables.piers, window.composer.description!, window.types) as Chart).table.column(
        'year',
      )!.type
    })
    expect(again).toBe('time')
    // What cannot be drawn any more is said, and its words are still there.
    await page.getByLabel('Read year as').selectOption('names')
    await page
      .getByRole('alert')
      .getByText(/This cannot be drawn/)
      .waitFor()
    expect(await now(page)).toContain('year of year')
    expect(errors).toEqual([])
    await page.context().close()
  },
)

test.skipIf(sampled)(
  'words in the chart are clicked: a title, the ends of a scale, the colour of a name',
  async () => {
    const { page, errors } = await gallery.openPlain('compose.html')
    await page.evaluate(() =>
      window.composer.show({ ...window.composer.description!, title: 'A year at sea' }),
    )
    await still(page)
    const click = (words: string) => clickWords(page, words)
    await click('A year at sea')
    await page.getByRole('dialog').getByRole('textbox').fill('Another year at sea')
    await page.keyboard.press('Enter')
    expect(await now(page)).toContain('The title is “Another year at sea”.')
    await still(page)
    await click('50,000')
    await page.getByRole('dialog').getByLabel('To').fill('150000')
    await page.keyboard.press('Enter')
    expect(await page.evaluate(() => (window.composer.description as Description).scales)).toEqual({
      y: { domain: [null, 150000] },
    })
    await still(page)
    await click('2024')
    await page.getByRole('dialog').getByLabel('From').fill('2024-01-01')
    await page.keyboard.press('Enter')
    expect(await page.evaluate(() => (window.composer.description as Description).scales!.x)).toEqual({
      domain: ['2024-01-01', null],
    })
    await still(page)
    await click('Tern Point')
    await page.getByRole('dialog').getByLabel('A colour').fill('#224466')
    await page.keyboard.press('Enter')
    expect(await page.evaluate(() => (window.composer.description as Description).scales!.color)).toEqual({
      colors: { 'Tern Point': '#224466' },
    })
    expect(errors).toEqual([])
    await page.context().close()
  },
)

test('by touch at 360 pixels, in German nothing is cut, and words are in another order', async () => {
  const { page, errors } = await gallery.openPlain('compose.html?lang=de&theme=night', {
    viewport: { width: 360, height: 740 },
    hasTouch: true,
    ...(engine === 'chromium' ? { isMobile: true } : {}),
  })
  // Firefox's driver has no fingers: a click stands for a tap, which makes one.
  const touch = (place: Locator) => (engine === 'chromium' ? place.tap() : place.click())
  const tap = (name: string) => touch(page.getByRole('button', { name, exact: true }).first())
  await tap('Summe von passengers')
  await touch(page.getByRole('option', { name: 'Anzahl', exact: true }))
  await page.waitForFunction(() => window.composer.sentence.includes('Anzahl'))
  await tap('und …')
  await touch(page.getByRole('option', { name: 'mit Werten', exact: true }))
  expect(await now(page)).toBe(
    'Zeichne je Monat von departed Balken für Anzahl, je route eine Farbe, gestapelt, mit Werten.',
  )
  await tap('und …')
  const inside = await page.getByRole('dialog').evaluate(menu => {
    const { left, right } = menu.getBoundingClientRect()
    return left >= 0 && right <= innerWidth && document.documentElement.scrollWidth <= innerWidth
  })
  expect(inside).toBe(true)
  // What a finger meets is large enough.
  const heights = await page
    .locator('.choice, .and, .tools button, summary')
    .evaluateAll(all => all.map(one => one.getBoundingClientRect().height))
  expect(Math.min(...heights)).toBeGreaterThanOrEqual(24)
  expect(errors).toEqual([])
  await page.context().close()
})

test.skipIf(sampled)('what a developer does not allow is said, and is no choice', async () => {
  const { page, errors } = await gallery.openPlain('compose.html')
  const offered = await page.evaluate(() => {
    const { compose, tables } = window.composing
    window.composer.destroy()
    window.composer = compose(document.querySelector('.wide')!, {
      tables: tables.sailings,
      chart: { draw: 'bar', x: 'route', y: 'sum of passengers', title: 'Fixed' },
      allow: { columns: ['route', 'revenue'], kinds: ['bar', 'line'], options: ['draw', 'y', 'color'] },
    })
    return window.composer.sentence
  })
  expect(offered).toBe('Draw bars of sum of passengers for each route. The title is “Fixed”.')
  expect(await page.locator('.choice').allTextContents()).toEqual(['bars', 'sum of passengers'])
  await page.getByRole('button', { name: 'bars' }).click()
  expect(await page.getByRole('option').allTextContents()).toEqual(['a line', 'bars'])
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'sum of passengers' }).click()
  const phrases = await page.getByRole('option').allTextContents()
  expect(phrases.length).toBeGreaterThan(4)
  expect(phrases.filter(phrase => !/revenue|route|count/.test(phrase))).toEqual([])
  expect(errors).toEqual([])
  await page.context().close()
})

test.skipIf(sampled)(
  'a description of what is gone is said with the reason, and can be mended; several stand on a page and leave no trace',
  async () => {
    const { page, errors } = await gallery.openPlain('compose.html')
    await page.evaluate(() => {
      const { compose, tables, germanWords } = window.composing
      const place = document.createElement('div')
      place.id = 'second'
      document.querySelector('main')!.append(place)
      window.composer = compose(place, {
        tables: tables.vessels,
        chart: { draw: 'bar', x: 'harbour', y: 'capacity' },
        house: { words: { ...germanWords, Count: 'Anzahl' } as never },
      })
    })
    const second = page.locator('#second')
    await second.getByRole('alert').filter({ hasText: 'There is no column "harbour"' }).waitFor()
    await second.getByRole('button', { name: 'harbour', exact: true }).click()
    await second.getByRole('option', { name: 'vessel', exact: true }).click()
    await still(page)
    expect(await now(page)).toBe('Zeichne je vessel Balken für capacity.')
    expect(await second.getByRole('alert').count()).toBe(0)
    await page.evaluate(() => window.composer.destroy())
    expect(await second.innerHTML()).toBe('')
    expect(await page.locator('.dapplo-composer').count()).toBe(1)
    expect(errors).toEqual([])
    await page.context().close()
  },
)

test.skipIf(sampled)('what is worked out of two columns is found by typing', async () => {
  const { page, errors } = await gallery.openPlain('compose.html')
  await page.getByRole('button', { name: 'sum of passengers' }).click()
  await page.keyboard.type('ratio revenue passengers')
  expect(await page.getByRole('dialog').getByRole('option').allTextContents()).toEqual([
    'ratio of passengers to revenue',
    'ratio of revenue to passengers',
  ])
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  expect(await now(page)).toContain('bars of ratio of revenue to passengers for each month of departed')
  await still(page)
  expect(errors).toEqual([])
  await page.context().close()
})

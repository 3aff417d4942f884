import fc from 'fast-check'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { at, state } from './support/charts.ts'
import { everything } from './support/extent.ts'
import { type Gallery, openGallery } from './support/gallery.ts'
import { PATIENCE, still } from './support/waiting.ts'

// What a person does in any order, each also while the last still moves, leads to the picture that a fresh chart shows.

let gallery: Gallery
beforeAll(async () => {
  gallery = await openGallery()
})
afterAll(() => gallery?.close())

/** What is done, where the chart is as it has become by now. */
type Deed = (page: Page) => Promise<unknown>
/** Its name, and for a drag the part of the plot that it goes over. */
type Named = [name: string, deed: Deed, part?: readonly [number, number]]

const drag =
  (from: number, to: number): Deed =>
  async page => {
    const [start, end] = [await at(page, from, 0.4), await at(page, to, 0.6)]
    await page.mouse.move(start.x, start.y)
    await page.mouse.down()
    await page.mouse.move((start.x + end.x) / 2, (start.y + end.y) / 2, { steps: 2 })
    await page.mouse.move(end.x, end.y, { steps: 2 })
    await page.mouse.up()
  }
const press =
  (key: string): Deed =>
  async page => {
    await page.locator('.dapplo-keys').first().focus()
    await page.keyboard.press(key)
  }
const doubleClick: Deed = async page => {
  const { x, y } = await at(page, 0.5, 0.5)
  await page.mouse.dblclick(x, y)
}
const wheel =
  (by: number, x: number): Deed =>
  async page => {
    const place = await at(page, x, 0.5)
    await page.mouse.move(place.x, place.y)
    await page.mouse.wheel(0, by)
  }
/** Something that the page itself does to its chart or table. */
const told =
  (what: string, value?: unknown): Deed =>
  page =>
    page.evaluate(
      ([what, value]) => {
        const [live] = window.charts
        const { sailings } = window as any
        if (what === 'state') live.state = value as never
        else if (what === 'with') live.show((live.chart as any).with(value))
        else if (what === 'append')
          sailings.append({
            id: 1000 + sailings.length,
            hour: 41 + (sailings.length % 7),
            route: 'Tern Point',
            load: 90,
          })
        else if (what === 'put') sailings.put({ id: 7, hour: 7, route: 'Gannet Bay', load: value })
        else if (what === 'remove') sailings.remove(sailings.row(sailings.length - 1).id)
        else if (what === 'width') live.element.style.width = `${value}px`
      },
      [what, value] as const,
    )

const RESETS: Named[] = [
  ['a double click', doubleClick],
  ['0', press('0')],
  ['Escape', press('Escape')],
  ['a state', told('state', {})],
]

const deeds = fc.oneof(
  fc.tuple(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 2, max: 9 })).map(([from, by]): Named => {
    const to = Math.min(10, from + by)
    return [`drag ${from} to ${to}`, drag(from / 10, to / 10), [from / 10, to / 10]]
  }),
  fc.constantFrom(...RESETS),
  fc.constantFrom<Named>(
    ['wheel nearer', wheel(-240, 0.3)],
    ['wheel away', wheel(240, 0.7)],
    ['plus', press('+')],
    ['to the right', press('Shift+ArrowRight')],
    ['a zoom from outside', told('state', { zoom: { x: [5, 25] } })],
    ['a hidden series', told('state', { hidden: ['Gannet Bay'] })],
    ['append', told('append')],
    ['put', told('put', 150)],
    ['put back', told('put', 20)],
    ['remove', told('remove')],
    ['bars', told('with', { draw: 'bar' })],
    ['lines', told('with', { draw: 'line' })],
    ['points', told('with', { draw: 'scatter' })],
    ['wide', told('width', 700)],
    ['narrow', told('width', 420)],
  ),
)

/** A page with one chart that moves, over a table that can change. */
async function open(): Promise<{ page: Page; errors: string[] }> {
  const { page, errors } = await gallery.openPlain('index.html', { reducedMotion: 'no-preference' })
  await page.waitForFunction(() => window.dapplo !== undefined)
  await page.evaluate(() => {
    document.body.replaceChildren()
    const { chart, mount, table } = window.dapplo
    const rows = Array.from({ length: 40 }, (_, i) => ({
      id: i,
      hour: i,
      route: i % 2 ? 'Gannet Bay' : 'Tern Point',
      load: 20 + ((i * 37) % 80),
    }))
    const sailings = table(rows, { key: 'id' })
    const place = document.createElement('div')
    place.style.cssText = 'width: 600px; height: 320px'
    document.body.append(place)
    const live = mount(
      chart(sailings, {
        draw: 'line',
        x: 'hour',
        y: 'load',
        color: 'route',
        zoom: 'x',
        motion: { duration: 180 },
      }),
      place,
    )
    Object.assign(window, { charts: [live], sailings })
  })
  await still(page)
  return { page, errors }
}

/** How far the scale reaches that is shown. */
const ends = (page: Page) =>
  page.evaluate(() => {
    const { domain } = (window.charts[0] as any).view.composition.value.panes[0].scales.get('x')
    return domain as [number, number]
  })

/** What is seen, told and known of the chart, and of a fresh one over the same table, description and state. */
const both = (page: Page) =>
  page.evaluate(async () => {
    const [live] = window.charts
    const { width, height } = live.element.getBoundingClientRect()
    const place = document.createElement('div')
    place.style.cssText = `width: ${width}px; height: ${height}px`
    document.body.append(place)
    const fresh = window.dapplo.mount((live.chart as any).with({ motion: false }), place)
    fresh.state = live.state
    for (let frames = 0; frames < 6; frames++) await new Promise(requestAnimationFrame)
    const rounded = (values: ArrayLike<number>) => Array.from(values, value => Math.round(value * 10) / 10)
    const read = (one: typeof live) => ({
      state: one.state,
      csv: one.toCsv(),
      shapes: one.scene.batches.map(batch => ({
        kind: batch.kind,
        id: batch.id,
        ...('x' in batch ? { x: rounded(batch.x) } : {}),
        ...('y' in batch ? { y: rounded(batch.y) } : {}),
        ...('texts' in batch ? { texts: [...batch.texts] } : {}),
      })),
    })
    const out = [read(live), read(fresh)] as const
    fresh.destroy()
    place.remove()
    return out
  })

test.each(RESETS)(
  'after %s, with motion, the same drag leads to the same place as the first time',
  async (_, reset) => {
    const { page, errors } = await open()
    await drag(0.1, 0.5)(page)
    await still(page)
    const first = (await state(page)).zoom!.x
    expect(first[1] - first[0]).toBeCloseTo(39 * 0.4, 0)
    await reset(page)
    await still(page)
    expect((await state(page)).zoom ?? {}).toEqual({})
    await drag(0.1, 0.5)(page)
    await still(page)
    const again = (await state(page)).zoom!.x
    for (const end of [0, 1]) expect(again[end]).toBeCloseTo(first[end], 1)
    await reset(page)
    await still(page)
    await drag(0.8, 0.9)(page)
    await still(page)
    const [low, high] = (await state(page)).zoom!.x
    expect([low, high].map(end => Math.round(end))).toEqual([31, 35])
    expect(errors).toEqual([])
    await page.context().close()
  },
)

test(
  'any sequence of deeds, each also while the last still moves, ends in the picture of a fresh chart',
  async () => {
    const { page, errors } = await open()
    const step = fc.tuple(deeds, fc.constantFrom(0, 40, 120, 'rest' as const))
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 3, maxLength: 7 }), async steps => {
        let rests = true
        for (const [[name, deed, part], pause] of steps) {
          const [low, high] = await ends(page)
          await deed(page)
          // From rest, a drag leads to the part of what was shown that it went over, whatever came before.
          if (part && rests && part[1] - part[0] < 1) {
            const { zoom } = await state(page)
            const wanted = part.map(share => low + (high - low) * share)
            for (const [i, end] of wanted.entries())
              expect(
                Math.abs((zoom?.x[i] ?? Number.NaN) - end) / (high - low),
                `${name} of ${low} to ${high}`,
              ).toBeLessThan(0.02)
          }
          rests = pause === 'rest'
          if (pause === 'rest') await still(page)
          else if (pause > 0) await page.waitForTimeout(pause)
        }
        await still(page)
        const [shown, fresh] = await both(page)
        expect({ steps: steps.map(([[name], pause]) => `${name}, ${pause}`), ...shown }).toEqual({
          steps: steps.map(([[name], pause]) => `${name}, ${pause}`),
          ...fresh,
        })
      }),
      { numRuns: everything ? 500 : 20, endOnFailure: true },
    )
    expect(errors).toEqual([])
    await page.context().close()
  },
  4 * PATIENCE,
)

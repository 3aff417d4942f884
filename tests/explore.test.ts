import AxeBuilder from 'axe-core'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { type Gallery, openGallery } from './support/gallery.ts'
import { still } from './support/waiting.ts'

let gallery: Gallery
beforeAll(async () => {
  gallery = await openGallery()
})
afterAll(() => gallery?.close())

const state = (page: Page, i = 0) => page.evaluate(i => window.charts[i].state, i)
const title = (page: Page, i: number) =>
  page.evaluate(i => {
    const texts = window.charts[i].scene.batches.find(batch => batch.id === 'title')
    return texts?.kind === 'texts' ? texts.texts.join(' ') : ''
  }, i)
/** Where a place of a chart's plot is on the page; shares from 0 to 1. */
const at = (page: Page, x: number, y: number, i = 0) =>
  page.evaluate(
    ([x, y, i]) => {
      const live = window.charts[i]
      const plate = live.element.querySelector('.dapplo-keys')!.parentElement!.getBoundingClientRect()
      const [plot] = live.scene.plots
      return { x: plate.left + plot.x + plot.width * x, y: plate.top + plot.y + plot.height * y }
    },
    [x, y, i] as const,
  )
/** The middle of a data shape, by its place in its batch. */
const shapeAt = (page: Page, kind: 'rects' | 'wedges', shape: number, i = 0) =>
  page.evaluate(
    ([kind, shape, i]) => {
      const live = window.charts[i]
      const plate = live.element.querySelector('.dapplo-keys')!.parentElement!.getBoundingClientRect()
      const batch = live.scene.batches.find(one => one.kind === kind && one.part === 'data')
      if (batch?.kind !== 'rects') throw new Error('There are no bars')
      return {
        x: plate.left + batch.x[shape] + batch.width[shape] / 2,
        y: plate.top + batch.y[shape] + batch.height[shape] / 2,
      }
    },
    [kind, shape, i] as const,
  )
/** So long after a click that the next is no double click, in milliseconds. */
const SINGLE = 500
const cards = (page: Page) =>
  page
    .locator('.dapplo-tooltip')
    .evaluateAll(all =>
      all.filter(card => getComputedStyle(card).visibility === 'visible').map(card => card.textContent ?? ''),
    )

describe('charts that share a scale', () => {
  test('answer each other: pointer, zoom by wheel, and back by a double click', async () => {
    const { page, errors } = await gallery.open('together.html')
    const middle = await at(page, 0.5, 0.5)
    await page.mouse.move(middle.x, middle.y)
    await still(page)
    const shown = await cards(page)
    expect(shown).toHaveLength(4)
    // The day is said once, where the pointer is.
    expect(shown.filter(text => text.includes('2024'))).toHaveLength(1)
    await page.mouse.wheel(0, -400)
    await still(page)
    const zooms = await Promise.all([0, 1, 2, 3].map(i => state(page, i)))
    const [from, to] = zooms[0].zoom!.x
    expect(to - from).toBeLessThan(200 * 86_400_000)
    for (const one of zooms) expect(one.zoom).toEqual(zooms[0].zoom)
    await page.mouse.dblclick(middle.x, middle.y)
    await still(page)
    for (const i of [0, 3]) expect((await state(page, i)).zoom ?? {}).toEqual({})
    expect(errors).toEqual([])
    await page.context().close()
  })

  test('zoom by a drag and by keys, move sideways, and never beyond the data', async () => {
    const { page } = await gallery.open('together.html')
    const [start, end] = [await at(page, 0.4, 0.5), await at(page, 0.6, 0.5)]
    await page.mouse.move(start.x, start.y)
    await page.mouse.down()
    await page.mouse.move(end.x, end.y, { steps: 5 })
    await page.mouse.up()
    await still(page)
    const zoom = (await state(page)).zoom!.x
    expect((zoom[1] - zoom[0]) / 86_400_000).toBeCloseTo(214 * 0.2, -1)
    await page.locator('.dapplo-keys').first().focus()
    await page.keyboard.press('+')
    await still(page)
    const nearer = (await state(page)).zoom!.x
    expect(nearer[1] - nearer[0]).toBeLessThan(zoom[1] - zoom[0])
    for (let i = 0; i < 30; i++) await page.keyboard.press('Shift+ArrowRight')
    await still(page)
    const last = (await state(page)).zoom!.x
    expect(last[1]).toBeLessThanOrEqual(Date.UTC(2024, 9, 1) + 1)
    await page.keyboard.press('Escape')
    await still(page)
    expect((await state(page)).zoom ?? {}).toEqual({})
    await page.context().close()
  })

  test('zoom by two fingers', async () => {
    const { page } = await gallery.open('together.html', { hasTouch: true })
    const client = await page.context().newCDPSession(page)
    const middle = await at(page, 0.5, 0.5)
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', apart: number) =>
      client.send('Input.dispatchTouchEvent', {
        type,
        touchPoints:
          type === 'touchEnd'
            ? []
            : [
                { x: middle.x - apart, y: middle.y, id: 1 },
                { x: middle.x + apart, y: middle.y, id: 2 },
              ],
      })
    await touch('touchStart', 40)
    for (const apart of [60, 80, 100, 120]) await touch('touchMove', apart)
    await touch('touchEnd', 0)
    await still(page)
    const [from, to] = (await state(page)).zoom!.x
    expect((to - from) / 86_400_000).toBeLessThan(120)
    await page.context().close()
  })
})

describe('cross-filtering', () => {
  test('a box in one chart filters the others, rows come out, and Escape takes it back', async () => {
    // With motion, as most people see it: charts that filter glide, and are interrupted on the way.
    const { page, errors } = await gallery.open('crossfilter.html', { reducedMotion: 'no-preference' })
    const before = await title(page, 3)
    const [start, end] = [await at(page, 0.5, 0.02), await at(page, 0.98, 0.6)]
    await page.mouse.move(start.x, start.y)
    await page.mouse.down()
    await page.mouse.move(end.x, end.y, { steps: 6 })
    await page.mouse.up()
    await still(page)
    const rows = (await page.evaluate(() => window.charts[0].selectedRows())) as { wind_knots: number }[]
    expect(rows.length).toBeGreaterThan(50)
    expect(Math.min(...rows.map(row => row.wind_knots))).toBeGreaterThan(28)
    expect(await title(page, 3)).toContain(rows.length.toLocaleString('en'))
    expect(await page.locator('#count').textContent()).toBe(
      `${rows.length.toLocaleString('en')} sailings are selected.`,
    )
    // The chart in which it was made still shows everything.
    expect(
      await page.evaluate(() => {
        const discs = window.charts[0].scene.batches.find(batch => batch.kind === 'discs')
        return discs?.kind === 'discs' ? discs.x.length : 0
      }),
    ).toBeGreaterThan(19_000)
    await page.locator('.dapplo-keys').first().focus()
    await page.keyboard.press('Escape')
    await still(page)
    expect(await title(page, 3)).toBe(before)
    expect(errors).toEqual([])
    await page.context().close()
  })

  test('selections in two charts intersect; one button clears everything', async () => {
    const { page } = await gallery.open('crossfilter.html')
    const bar = await shapeAt(page, 'rects', 0, 2)
    await page.mouse.click(bar.x, bar.y)
    await still(page)
    const route = await page.evaluate(
      () => new Set(window.charts[2].selectedRows().map(row => (row as { route: string }).route)).size,
    )
    expect(route).toBe(1)
    const cell = await shapeAt(page, 'rects', 3, 1)
    await page.mouse.click(cell.x, cell.y)
    await still(page)
    const both = Number((await page.locator('#count').textContent())!.replace(/\D/g, ''))
    const each = await page.evaluate(() => [1, 2].map(i => window.charts[i].selectedRows().length))
    // The second chart showed only the route by then, so that its cell holds nothing else.
    expect(both).toBeGreaterThan(0)
    expect(both).toBe(each[0])
    expect(both).toBeLessThan(each[1] / 10)
    await page.click('#clear')
    await still(page)
    expect(await page.locator('#count').textContent()).toBe('Nothing is selected: all sailings are shown.')
    await page.context().close()
  })

  test('a name at the axis selects what stands there', async () => {
    const { page } = await gallery.open('crossfilter.html')
    await page.getByRole('button', { name: 'Select Tern Point' }).click()
    await still(page)
    const routes = await page.evaluate(() => [
      ...new Set(window.charts[2].selectedRows().map(row => (row as { route: string }).route)),
    ])
    expect(routes).toEqual(['Tern Point'])
    await page.context().close()
  })

  test('a tooltip tells other columns of the row', async () => {
    const { page } = await gallery.open('crossfilter.html')
    const place = await at(page, 0.3, 0.8)
    await page.mouse.move(place.x, place.y)
    await still(page)
    const [card] = await cards(page)
    expect(card).toMatch(/Vessel(Fulmar|Guillemot|Sandpiper|Dunlin|Great Skua)/)
    await page.context().close()
  })
})

test('a lasso selects what it goes around, and a link is followed', async () => {
  const { page } = await gallery.open('')
  await page.evaluate(() => {
    const { chart, mount, table } = window.dapplo
    const place = document.createElement('div')
    place.style.cssText = 'position: fixed; inset: 0; background: white; z-index: 5'
    document.body.append(place)
    const rows = table([
      { n: 1, m: 1, at: '#one' },
      { n: 5, m: 5, at: 'javascript:alert(1)' },
      { n: 9, m: 9, at: '#nine' },
    ])
    const live = mount(chart(rows, { draw: 'scatter', x: 'n', y: 'm', link: 'at', select: 'lasso' }), place)
    window.charts = [live]
  })
  await still(page)
  const points = await page.evaluate(() => {
    const discs = window.charts[0].scene.batches.find(
      batch => batch.kind === 'discs' && batch.part === 'data',
    )
    return discs?.kind === 'discs' ? Array.from(discs.x, (x, i) => ({ x, y: discs.y[i] })) : []
  })
  const around = (turn: number) => ({
    x: points[1].x + Math.cos(turn) * 40,
    y: points[1].y + Math.sin(turn) * 40,
  })
  await page.mouse.move(around(0).x, around(0).y)
  await page.mouse.down()
  for (let turn = 0.3; turn < 6.4; turn += 0.3) await page.mouse.move(around(turn).x, around(turn).y)
  await page.mouse.up()
  await still(page)
  expect(await page.evaluate(() => window.charts[0].selectedRows())).toMatchObject([{ n: 5 }])
  const [opened] = await Promise.all([
    page.context().waitForEvent('page'),
    page.mouse.click(points[0].x, points[0].y),
  ])
  expect(opened.url()).toContain('#one')
  await page.mouse.click(points[1].x, points[1].y)
  await still(page)
  expect(page.context().pages()).toHaveLength(2)
  await page.context().close()
})

describe('a detail', () => {
  test('explains what leads, then what is selected, in its colour', async () => {
    const { page } = await gallery.open('detail.html')
    expect(await title(page, 1)).toBe('North Sound, by vessel')
    const bar = await shapeAt(page, 'rects', 2)
    await page.mouse.click(bar.x, bar.y)
    await still(page)
    const [bars, shades, ground] = await page.evaluate(() => {
      const [one, ring] = window.charts.map(
        live => live.scene.batches.find(batch => batch.kind === 'rects' || batch.kind === 'wedges')!,
      )
      return [
        one.colors[one.color[2]],
        [...ring.color].map(i => ring.colors[i]),
        window.charts[1].scene.background!,
      ] as const
    })
    const channels = (hex: string) => [1, 3, 5].map(i => Number.parseInt(hex.slice(i, i + 2), 16))
    // Every slice is the bar's colour, or lies between it and the ground.
    for (const shade of shades)
      channels(shade).forEach((value, i) => {
        const ends = [channels(bars)[i], channels(ground)[i]]
        expect(value).toBeGreaterThanOrEqual(Math.min(...ends))
        expect(value).toBeLessThanOrEqual(Math.max(...ends))
      })
    expect(await title(page, 1)).toBe('Tern Point, by vessel')
    await page.context().close()
  })
})

describe('controls and the menu', () => {
  test('set parts of the description', async () => {
    const { page, errors } = await gallery.open('period.html')
    await page.getByText('Years', { exact: true }).click()
    await still(page)
    expect(await page.evaluate(() => window.charts[0].chart.toJSON())).toMatchObject({
      x: 'year of departed',
    })
    await page.getByText('Lines', { exact: true }).click()
    await page.getByRole('combobox', { name: 'Shows' }).selectOption({ label: 'Delay' })
    await page.getByRole('slider', { name: 'Largest routes' }).press('ArrowLeft')
    await page.getByRole('checkbox', { name: 'Tern Point' }).uncheck()
    await still(page)
    expect(await page.evaluate(() => window.charts[0].chart.toJSON())).toMatchObject({
      draw: 'line',
      y: 'mean of delay_minutes',
      top: 4,
      where: { route: ['North Sound', 'Gannet Bay', 'Outer Skerries', 'Kelp Narrows'] },
    })
    expect(errors).toEqual([])
    await page.context().close()
  })

  test('save pictures and data, and show the data as a table', async () => {
    const { page } = await gallery.open('period.html')
    for (const [item, ending, begins] of [
      ['Save as PNG', 'png', '\u0089PNG'],
      ['Save as SVG', 'svg', '<svg'],
      ['Save data as CSV', 'csv', 'Departed,North Sound'],
    ] as const) {
      await page.getByRole('button', { name: 'Chart menu' }).click()
      const [download] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('menuitem', { name: item }).click(),
      ])
      expect(download.suggestedFilename()).toBe(`passengers-of-the-skerry-line.${ending}`)
      const stream = await download.createReadStream()
      const first = await new Promise<Buffer>(resolve => stream.once('data', resolve))
      expect(first.toString('latin1').startsWith(begins)).toBe(true)
    }
    await page.getByRole('button', { name: 'Chart menu' }).press('Enter')
    await page.keyboard.press('End')
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('Enter')
    const table = page.getByRole('dialog').getByRole('table')
    expect(await table.getByRole('columnheader').allTextContents()).toContain('Gannet Bay')
    expect(await table.getByRole('row').count()).toBe(13)
    await page.keyboard.press('Escape')
    expect(await page.getByRole('dialog').count()).toBe(0)
    await page.context().close()
  })
})

test('a house speaks its own words: menu, play bar, legend, tables and the picture', async () => {
  const { page, errors } = await gallery.open('period.html')
  await page.evaluate(() =>
    window.charts[0].reframe({
      house: {
        locale: 'de',
        words: {
          'Chart menu': 'Menü',
          'Show data': 'Zahlen zeigen',
          Close: 'Schließen',
          '{what} per quarter': '{what} je Quartal',
          '{title}. Arrow keys read values.': '{title}. Pfeiltasten lesen die Werte.',
          '{name}, shown': '{name}, gezeigt',
        },
      },
    }),
  )
  await still(page)
  const chart = page.locator('.dapplo').first()
  expect(await chart.locator('.dapplo-keys').getAttribute('aria-label')).toMatch(
    /Pfeiltasten lesen die Werte/,
  )
  await expect.poll(() => chart.getByRole('button', { name: 'Gannet Bay, gezeigt' }).count()).toBe(1)
  const texts = await page.evaluate(() =>
    window.charts[0].scene.batches.flatMap(batch => (batch.kind === 'texts' ? batch.texts : [])),
  )
  expect(texts).toContain('Passengers je Quartal')
  await page.getByRole('button', { name: 'Menü' }).click()
  await page.getByRole('menuitem', { name: 'Zahlen zeigen' }).click()
  await page.getByRole('button', { name: 'Schließen' }).click()
  expect(errors).toEqual([])
  await page.context().close()
})

describe('legends', () => {
  test('preview, hide and isolate series, by pointer and by keys', async () => {
    const { page } = await gallery.open('period.html')
    const entry = page.getByRole('button', { name: /^Gannet Bay/ })
    await entry.hover()
    await still(page)
    const faded = await page.evaluate(() => {
      const bars = window.charts[0].scene.batches.find(
        batch => batch.kind === 'rects' && batch.part === 'data',
      )!
      return new Set(bars.colors).size
    })
    expect(faded).toBe(5)
    await entry.click()
    await still(page)
    expect((await state(page)).hidden).toEqual(['Gannet Bay'])
    expect(await entry.getAttribute('aria-pressed')).toBe('false')
    await entry.click()
    await page.waitForTimeout(SINGLE)
    await entry.dblclick()
    await still(page)
    expect((await state(page)).hidden).toHaveLength(4)
    await entry.focus()
    await page.waitForTimeout(SINGLE)
    await page.keyboard.press('Shift+Enter')
    await still(page)
    expect((await state(page)).hidden).toBeUndefined()
    await page.context().close()
  })
})

describe('without a mouse, without sight', () => {
  test('arrow keys walk from value to value and say them; Enter shows the rows behind', async () => {
    const { page } = await gallery.open('detail.html')
    const keys = page.locator('.dapplo-keys').first()
    const said = () => page.locator('.dapplo').first().getByRole('status').textContent()
    await keys.focus()
    await page.keyboard.press('ArrowRight')
    expect(await said()).toMatch(/North Sound.*€2,1/)
    await page.keyboard.press('End')
    await page.keyboard.press('Enter')
    const dialog = page.getByRole('dialog')
    expect(await dialog.getByRole('columnheader').allTextContents()).toContain('revenue')
    await page.keyboard.press('Escape')
    await still(page)
    expect(await page.evaluate(() => document.activeElement?.className)).toBe('dapplo-keys')
    await page.keyboard.press('Escape')
    await still(page)
    expect(await cards(page)).toEqual([])
    await page.context().close()
  })

  test.each([
    '',
    'kinds.html?kind=bar',
    'kinds.html?kind=pie&theme=night',
    'together.html',
    'crossfilter.html',
    'detail.html',
    'period.html',
    'axes.html',
    'race.html',
    'stress.html',
  ])('axe finds nothing in /%s', async path => {
    const { page } = await gallery.open(path)
    await page.addScriptTag({ content: AxeBuilder.source })
    const found = await page.evaluate(async () => {
      const { axe } = window as unknown as {
        axe: { run(): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }> }
      }
      const { violations } = await axe.run()
      return violations.map(one => `${one.id}: ${one.nodes[0].html.slice(0, 160)}`)
    })
    expect(found).toEqual([])
    await page.context().close()
  })

  test('forced colours, and pages that run from right to left, still give readable charts', async () => {
    const { page, errors } = await gallery.open('detail.html', { forcedColors: 'active' })
    await page.evaluate(() => {
      document.documentElement.dir = 'rtl'
    })
    const bar = await shapeAt(page, 'rects', 0)
    await page.mouse.move(bar.x, bar.y)
    await still(page)
    expect((await cards(page))[0]).toContain('North Sound')
    expect(errors).toEqual([])
    await page.context().close()
  })
})

test.each(['', 'together.html', 'crossfilter.html', 'detail.html', 'period.html', 'race.html'])(
  'whatever is done to /%s while it moves, it comes to rest without an error',
  async path => {
    const { page, errors } = await gallery.open(path, { reducedMotion: 'no-preference' })
    const chart = page.locator('.dapplo').first()
    await chart.scrollIntoViewIfNeeded()
    const { x, y, width, height } = (await chart.boundingBox())!
    const [left, right] = [x + width * 0.35, x + width * 0.7]
    const middle = y + height * 0.6
    const entry = chart.locator('button[aria-pressed]').first()
    const entries = await entry.count()
    for (let round = 0; round < 2; round++) {
      await page.mouse.move(left, middle)
      await page.mouse.wheel(0, round === 0 ? -300 : 500)
      if (entries > 0) await entry.click({ force: true })
      await page.mouse.move(left, middle - height * 0.2)
      await page.mouse.down()
      await page.mouse.move(right, middle, { steps: 4 })
      await page.mouse.up()
      await page.keyboard.press('Escape')
      await page.setViewportSize({ width: 1280 - round * 300, height: 900 })
    }
    await still(page)
    expect(errors).toEqual([])
    await page.context().close()
  },
)

test('a finger reads values: by a tap, and by drawing it over the plot', async () => {
  const { page } = await gallery.open('detail.html', { hasTouch: true })
  const client = await page.context().newCDPSession(page)
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', point?: { x: number; y: number }) =>
    client.send('Input.dispatchTouchEvent', { type, touchPoints: point ? [point] : [] })
  const [top, bottom] = [await shapeAt(page, 'rects', 0), await shapeAt(page, 'rects', 2)]
  await touch('touchStart', top)
  await still(page)
  expect((await cards(page))[0]).toContain('North Sound')
  await touch('touchMove', { x: top.x + 20, y: top.y + 1 })
  await touch('touchEnd')
  await still(page)
  // The card stays after the finger has gone, to be read.
  expect((await cards(page))[0]).toContain('North Sound')
  await touch('touchStart', bottom)
  await touch('touchEnd')
  await still(page)
  expect((await cards(page))[0]).toContain('Tern Point')
  await page.context().close()
})

test('paper gets the drawing, not the pixels', async () => {
  const { page } = await gallery.open('detail.html')
  const seen = await page.evaluate(() => {
    window.dispatchEvent(new Event('beforeprint'))
    const during = document.querySelectorAll('.dapplo svg text').length
    window.dispatchEvent(new Event('afterprint'))
    return [during, document.querySelectorAll('.dapplo svg text').length]
  })
  expect(seen[0]).toBeGreaterThan(10)
  expect(seen[1]).toBe(0)
  expect((await page.pdf()).subarray(0, 5).toString()).toBe('%PDF-')
  await page.context().close()
})

describe('when things go wrong', () => {
  test('a tooltip stands beside its point in scrolled, scaled and turned pages', async () => {
    const { page } = await gallery.open('detail.html')
    await page.evaluate(() => {
      document.body.style.cssText =
        'transform: scale(0.8); transform-origin: 0 0; padding-top: 900px; height: 3000px'
      window.scrollTo(0, 700)
    })
    await still(page)
    const place = await page.evaluate(() => {
      const live = window.charts[0]
      const plate = live.element.querySelector('.dapplo-keys')!.parentElement!.getBoundingClientRect()
      const batch = live.scene.batches.find(one => one.kind === 'rects' && one.part === 'data')
      if (batch?.kind !== 'rects') throw new Error('There are no bars')
      const k = plate.width / live.scene.width
      return {
        x: plate.left + (batch.x[1] + batch.width[1] / 2) * k,
        top: plate.top + batch.y[1] * k,
        bottom: plate.top + (batch.y[1] + batch.height[1]) * k,
      }
    })
    await page.mouse.move(place.x, (place.top + place.bottom) / 2)
    await still(page)
    expect((await cards(page))[0]).toContain('Gannet Bay')
    const card = (await page.locator('.dapplo-tooltip').first().boundingBox())!
    const covers = card.y < place.bottom && card.y + card.height > place.top
    expect(covers).toBe(false)
    expect(card.x).toBeGreaterThanOrEqual(0)
    await page.context().close()
  })

  test('a zoom into nothing, gone rows, twin ids and throwing listeners break nothing', async () => {
    const { page, errors } = await gallery.open('')
    const result = await page.evaluate(async () => {
      const { chart, mount, table } = window.dapplo
      const frames = async (count: number) => {
        for (let i = 0; i < count; i++) await new Promise(requestAnimationFrame)
      }
      const place = document.createElement('div')
      place.style.cssText = 'width: 400px; height: 240px'
      document.body.append(place)
      const rows = table(
        [1, 2, 3].map(at => ({ id: at, at, n: at * 2 })),
        { key: 'id' },
      )
      const description = {
        id: 'twin',
        draw: 'scatter',
        x: 'at',
        y: 'n',
        zoom: 'xy',
        select: 'click',
        tooltip: () => {
          throw new Error('tooltip')
        },
      } as const
      const live = mount(chart(rows, description as never), place)
      const other = document.createElement('div')
      document.body.append(other)
      const twin = mount(chart(rows, description as never), other)
      live.watch(() => {
        throw new Error('listener')
      })
      live.state = { zoom: { x: [2, 2], y: [Number.NaN, 1] }, selected: [0, 1, 77] }
      await frames(3)
      rows.remove(1)
      await frames(3)
      const left = live.selectedRows().length
      place.style.display = 'none'
      await frames(2)
      place.style.display = ''
      other.remove()
      rows.append({ id: 9, at: 9, n: 9 })
      await frames(3)
      live.destroy()
      twin.destroy()
      return { left, nodes: document.querySelectorAll('.dapplo').length }
    })
    expect(result).toEqual({ left: 1, nodes: 1 })
    expect([...new Set(errors.filter(text => !text.includes('listener')))]).toEqual([])
    await page.context().close()
  })

  test('a thousand charts come and go without a trace', async () => {
    const { page } = await gallery.open('')
    const client = await page.context().newCDPSession(page)
    const rounds = (count: number) =>
      page.evaluate(async count => {
        const { chart, mount, table } = window.dapplo
        const rows = table(Array.from({ length: 50 }, (_, i) => ({ at: i, n: (i * 7) % 13 })))
        const place = document.createElement('div')
        place.style.cssText = 'width: 300px; height: 200px'
        document.body.append(place)
        for (let i = 0; i < count; i++) {
          mount(chart(rows, { draw: 'line', x: 'at', y: 'n', zoom: 'x', select: 'click' }), place, {
            menu: true,
          }).destroy()
          if (i % 50 === 0) await new Promise(requestAnimationFrame)
        }
        place.remove()
      }, count)
    const used = async () => {
      await client.send('HeapProfiler.collectGarbage')
      const { usedSize } = await client.send('Runtime.getHeapUsage')
      const { nodes, jsEventListeners } = await client.send('Memory.getDOMCounters')
      return { megabytes: usedSize / 1e6, nodes, jsEventListeners }
    }
    await rounds(100)
    const before = await used()
    await rounds(1000)
    const after = await used()
    expect(after.megabytes - before.megabytes).toBeLessThan(4)
    expect(after.nodes - before.nodes).toBeLessThan(200)
    expect(after.jsEventListeners - before.jsEventListeners).toBeLessThan(100)
    await page.context().close()
  })
})

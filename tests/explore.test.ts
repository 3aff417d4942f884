import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { engine, sampled } from './support/browser.ts'
import { at, cards, SINGLE, shapeAt, stamp, state, title } from './support/charts.ts'
import { everything } from './support/extent.ts'
import { fingersOn } from './support/fingers.ts'
import { type Gallery, openGallery } from './support/gallery.ts'
import { still } from './support/waiting.ts'

let gallery: Gallery
beforeAll(async () => {
  gallery = await openGallery()
})
afterAll(() => gallery?.close())

describe('charts that share a scale', () => {
  test.skipIf(sampled)('line up, in containers of their own, also after one needs more room', async () => {
    const { page } = await gallery.open('together.html')
    await still(page)
    const plots = () =>
      page.evaluate(() =>
        window.charts.map(({ scene, view }: any) => {
          const [{ x, width }] = scene.plots
          return { x, width, own: view.composition.value.insets.left }
        }),
      )
    const before = await plots()
    // By themselves their labels need different room.
    expect(new Set(before.map(({ own }) => own)).size).toBeGreaterThan(1)
    expect(new Set(before.map(({ x, width }) => `${x} ${width}`)).size).toBe(1)
    await page.evaluate(() => {
      const [live] = window.charts
      live.show((live.chart as any).with({ axes: { y: { format: { minimumFractionDigits: 6 } } } }))
    })
    await page.waitForFunction(x => window.charts.every(({ scene }) => scene.plots[0].x > x), before[0].x)
    await still(page)
    const after = await plots()
    expect(new Set(after.map(({ x, width }) => `${x} ${width}`)).size).toBe(1)
    await page.context().close()
  })

  test.skipIf(sampled)('answer each other: pointer, zoom by wheel, and back by a double click', async () => {
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

  test.skipIf(sampled)('zoom by two fingers', async () => {
    const { page } = await gallery.open('together.html', { hasTouch: true })
    const fingers = await fingersOn(page)
    const middle = await at(page, 0.5, 0.5)
    const apart = (by: number) => [
      { x: middle.x - by, y: middle.y, id: 1 },
      { x: middle.x + by, y: middle.y, id: 2 },
    ]
    await fingers.down(...apart(40))
    for (const by of [60, 80, 100, 120]) await fingers.move(...apart(by))
    await fingers.up()
    await still(page)
    const [from, to] = (await state(page)).zoom!.x
    expect((to - from) / 86_400_000).toBeLessThan(120)
    await page.context().close()
  })
})

test.skipIf(!everything)('a double click does not spoil the drags that follow', async () => {
  const { page, errors } = await gallery.open('earnings.html')
  const from = await at(page, 0.2, 0.2)
  const to = await at(page, 0.5, 0.7)
  for (let round = 0; round < 2; round++) {
    await page.mouse.dblclick(from.x, from.y)
    // Everything on the page is marked, as a double click beside a text does.
    await page.evaluate(() => getSelection()?.selectAllChildren(document.body))
    await still(page)
    await page.mouse.move(from.x, from.y)
    await page.mouse.down()
    await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 })
    await page.mouse.move(to.x, to.y, { steps: 4 })
    await page.mouse.up()
    await page.waitForFunction(() => (window.charts[0].state.selected?.length ?? 0) > 0)
    await page.keyboard.press('Escape')
    await page.waitForFunction(() => !window.charts[0].state.selected?.length)
  }
  expect(errors).toEqual([])
  await page.context().close()
})

describe('charts about what is chosen', () => {
  test('a box in one chart filters the others, rows come out, and Escape takes it back', async () => {
    // With motion, as most people see it: charts that filter glide, and are interrupted on the way.
    const { page, errors } = await gallery.open('earnings.html', { reducedMotion: 'no-preference' })
    const before = await stamp(page, 3)
    const [start, end] = [await at(page, 0.5, 0.02), await at(page, 0.98, 0.6)]
    await page.mouse.move(start.x, start.y)
    const card = page.locator('.dapplo-tooltip:visible')
    await card.waitFor()
    await page.mouse.down()
    await page.mouse.move(end.x, end.y, { steps: 6 })
    // A card would lie over what the box is drawn around.
    await page.evaluate(() => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done))))
    expect(await card.count()).toBe(0)
    await page.mouse.up()
    await page.mouse.move(end.x - 4, end.y)
    await card.waitFor()
    await still(page)
    const rows = (await page.evaluate(() => window.charts[0].selectedRows())) as { fuel_litres: number }[]
    expect(rows.length).toBeGreaterThan(50)
    const least = await page.evaluate(() => {
      const { plots, scales } = window.charts[0].scene
      return scales.get('x')!.invert(plots[0].x + plots[0].width * 0.5)
    })
    expect(Math.min(...rows.map(row => row.fuel_litres))).toBeGreaterThan(least - 5)
    expect(await stamp(page, 3)).toBe(rows.length.toLocaleString('en'))
    expect(await page.locator('#chosen').textContent()).toMatch(/^What is chosen earned €[\d,]+\.$/)
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
    expect(await stamp(page, 3)).toBe(before)
    expect(errors).toEqual([])
    await page.context().close()
  })

  test.skipIf(sampled)('selections in two charts intersect; one button clears everything', async () => {
    const { page } = await gallery.open('earnings.html')
    const bar = await shapeAt(page, 'rects', 0, 2)
    await page.mouse.click(bar.x, bar.y)
    await still(page)
    const route = await page.evaluate(
      async () => new Set((await window.charts[2].selectedRows()).map(row => row.route)).size,
    )
    expect(route).toBe(1)
    const cell = await shapeAt(page, 'rects', 0, 3)
    await page.mouse.click(cell.x, cell.y)
    await still(page)
    const both = await page.evaluate(async () => (await (window as any).chosen()).length)
    const each = await page.evaluate(() =>
      Promise.all([2, 3].map(async i => (await window.charts[i].selectedRows()).length)),
    )
    // The last chart showed only the route by then, so that its bar holds nothing else.
    expect(both).toBeGreaterThan(0)
    expect(both).toBe(each[1])
    expect(both).toBeLessThan(each[0])
    await page.click('#all')
    await still(page)
    expect(await page.locator('#chosen').textContent()).toBe('Choose a box, a cell, a bar or a name.')
    await page.context().close()
  })

  test.skipIf(sampled)(
    'what a person does is told with the rows behind it, and can be prevented',
    async () => {
      const { page, errors } = await gallery.open('earnings.html')
      await page.evaluate(() => {
        const told: unknown[] = []
        const w = window as any
        w.told = told
        w.prevents = false
        const [, , bars] = window.charts
        bars.show((bars.chart as any).with({ legend: 'top', zoom: 'x' }))
        for (const what of ['pointed', 'clicked', 'doubleClicked', 'selected', 'hidden', 'zoomed'] as const)
          bars.when(what, async happening => {
            if (w.prevents) happening.prevent()
            const { key, reading, state } = happening
            const rows = (await happening.rows()) as { route: string }[]
            const routes = [...new Set(rows.map(({ route }) => route))]
            told.push({ what, key, said: reading?.heading, routes, selected: state.selected?.length })
          })
      })
      await still(page)
      const told = (what: string) =>
        page.evaluate(what => (window as any).told.filter((one: any) => one.what === what), what)
      const bar = await shapeAt(page, 'rects', 1, 2)
      await page.mouse.move(bar.x, bar.y)
      await page.waitForFunction(() => (window as any).told.some((one: any) => one.what === 'pointed'))
      const [pointed] = await told('pointed')
      expect(pointed.routes).toHaveLength(1)
      expect(pointed.said).toBe(pointed.routes[0])
      // A click is told, and does nothing where that is prevented.
      await page.evaluate(() => {
        ;(window as any).prevents = true
      })
      await page.mouse.click(bar.x, bar.y)
      await page.waitForFunction(() => (window as any).told.some((one: any) => one.what === 'clicked'))
      await still(page)
      expect(await page.evaluate(() => window.charts[2].state.selected)).toBeUndefined()
      await page.evaluate(() => {
        ;(window as any).prevents = false
      })
      await page.waitForTimeout(SINGLE)
      await page.mouse.click(bar.x, bar.y)
      await page.waitForFunction(() => (window as any).told.some((one: any) => one.what === 'selected'))
      const [selected] = await told('selected')
      expect(selected.routes).toEqual(pointed.routes)
      const rows = await page.evaluate(async () => (await window.charts[2].selectedRows()).length)
      expect(selected.selected).toBe(rows)
      await page.keyboard.press('Escape')
      await page
        .locator('.dapplo')
        .nth(2)
        .getByRole('button', { name: /^(Hide )?Tern Point/ })
        .first()
        .click()
      await page.waitForFunction(() => (window as any).told.some((one: any) => one.what === 'hidden'))
      const [hidden] = await told('hidden')
      expect([hidden.key, hidden.routes]).toEqual(['Tern Point', ['Tern Point']])
      await page.locator('.dapplo-keys').nth(2).focus()
      await page.keyboard.press('+')
      await page.waitForFunction(() => (window as any).told.some((one: any) => one.what === 'zoomed'))
      await page.evaluate(() => {
        ;(window as any).prevents = true
      })
      const zoom = JSON.stringify((await state(page, 2)).zoom)
      await page.keyboard.press('+')
      await page.waitForFunction(
        () => (window as any).told.filter((one: any) => one.what === 'zoomed').length > 1,
      )
      expect(JSON.stringify((await state(page, 2)).zoom)).toBe(zoom)
      expect(errors).toEqual([])
      await page.context().close()
    },
  )

  test.skipIf(sampled)('a name at the axis selects what stands there', async () => {
    const { page } = await gallery.open('earnings.html')
    await page.locator('.dapplo').nth(2).getByRole('button', { name: 'Select Tern Point' }).click()
    await still(page)
    const routes = await page.evaluate(async () => [
      ...new Set((await window.charts[2].selectedRows()).map(row => row.route)),
    ])
    expect(routes).toEqual(['Tern Point'])
    await page.context().close()
  })

  test.skipIf(!everything)('a name that is cut off says itself whole to those who point at it', async () => {
    const { page, errors } = await gallery.open('')
    const long = 'Gannet Bay by way of the Inner Loop and the old lighthouse pier'
    const shown = await page.evaluate(name => {
      const { chart, mount, table } = window.dapplo
      const place = document.createElement('div')
      place.style.cssText =
        'position: fixed; inset: 0 auto auto 0; width: 600px; background: white; z-index: 5'
      document.body.append(place)
      const rows = Array.from({ length: 9 }, (_, i) => ({ route: `${name} ${i}`, passengers: i + 1 }))
      const live = mount(chart(table(rows), { draw: 'bar', x: 'route', y: 'passengers' }), place)
      const names = live.scene.batches.find(({ id }) => id === 'axis x/labels') as any
      return { text: names.texts[3], turn: names.turn, svg: live.toSvg() }
    }, long)
    expect(shown.text).toMatch(/…$/)
    expect(shown.turn).not.toBe(0)
    expect(shown.svg).toContain(`<title>${long} 3</title>`)
    const name = page.getByRole('img', { name: `${long} 3`, exact: true })
    await name.waitFor()
    expect(await name.getAttribute('title')).toBe(`${long} 3`)
    expect(errors).toEqual([])
    await page.context().close()
  })

  test.skipIf(sampled)('a tooltip tells other columns of the row', async () => {
    const { page } = await gallery.open('earnings.html')
    const place = await at(page, 0.3, 0.8)
    await page.mouse.move(place.x, place.y)
    await still(page)
    const [card] = await cards(page)
    expect(card).toMatch(/Vessel(Fulmar|Guillemot|Sandpiper|Dunlin|Great Skua)/)
    // Of several series at one place, the further lines say whose they are; by keys they are said as well.
    await page.evaluate(() => {
      const [live] = window.charts
      live.show(
        (live.chart as any).with({
          draw: 'line',
          x: 'month of departed',
          y: 'mean of delay_minutes',
          color: 'route',
          tooltip: ['mean of delay_minutes', { max: 'delay_minutes', label: 'Worst' }],
        }),
      )
    })
    await page.waitForFunction(() => !window.charts[0].moving)
    await page.mouse.move(place.x + 3, place.y)
    await page.waitForFunction(() => document.querySelector('.dapplo-tooltip-whose') !== null)
    const [lines] = await cards(page)
    const whose = await page.locator('.dapplo-tooltip-whose').first().textContent()
    expect(lines.split(whose!)).toHaveLength(3)
    expect(lines).toMatch(/Worst\d+ minutes/)
    await page.locator('.dapplo-keys').first().focus()
    await page.keyboard.press('End')
    const said = await page.locator('.dapplo').first().getByRole('status').textContent()
    expect(said).toMatch(/, Worst \d+ minutes$/)
    await page.context().close()
  })
})

test.skipIf(sampled)('a lasso selects what it goes around, and a link is followed', async () => {
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
  await opened.waitForURL(/#one$/)
  await page.mouse.click(points[1].x, points[1].y)
  await still(page)
  expect(page.context().pages()).toHaveLength(2)
  await page.context().close()
})

describe('a detail', () => {
  test.skipIf(sampled)('explains what leads, then what is selected, in its colour', async () => {
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
  test.skipIf(sampled)('set parts of the description', async () => {
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

  // Firefox's driver tells of no file that a page makes.
  test.skipIf(engine !== 'chromium')('save pictures and data, and show the data as a table', async () => {
    const { page } = await gallery.open('period.html')
    for (const [item, ending, begins] of [
      ['Save picture', 'png', '\u0089PNG'],
      ['Save drawing', 'svg', '<svg'],
      ['Save values', 'csv', 'Departed,North Sound'],
    ] as const) {
      await page.getByRole('button', { name: 'Save or print' }).click()
      const [download] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('menuitem', { name: item }).click(),
      ])
      expect(download.suggestedFilename()).toBe(`passengers-of-the-skerry-line.${ending}`)
      const stream = await download.createReadStream()
      const first = await new Promise<Buffer>(resolve => stream.once('data', resolve))
      expect(first.toString('latin1').startsWith(begins)).toBe(true)
    }
    await page.getByRole('button', { name: 'Save or print' }).press('Enter')
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

test.skipIf(sampled)(
  'a house speaks its own words: menu, play bar, legend, tables and the picture',
  async () => {
    const { page, errors } = await gallery.open('period.html')
    await page.evaluate(() =>
      window.charts[0].reframe({
        house: {
          locale: 'de',
          words: {
            'Save or print': 'Menü',
            'Show values': 'Zahlen zeigen',
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
  },
)

describe('legends', () => {
  test('preview, hide and isolate series, by pointer and by keys', async () => {
    const { page } = await gallery.open('period.html')
    const entry = page.getByRole('button', { name: /^Gannet Bay/ })
    const { width: wide, height: high } = (await entry.boundingBox())!
    expect(Math.min(wide, high)).toBeGreaterThanOrEqual(24)
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
    const { x, y, width, height } = (await entry.boundingBox())!
    await page.mouse.dblclick(x + width / 2, y + height / 2)
    await still(page)
    expect((await state(page)).hidden).toHaveLength(4)
    await entry.focus()
    await page.waitForTimeout(SINGLE)
    await page.keyboard.press('Shift+Enter')
    await still(page)
    expect((await state(page)).hidden).toBeUndefined()
    await page.context().close()
  })

  test.skipIf(sampled)(
    'without room for all are leafed through, by pointer and by keys, round to the first',
    async () => {
      const { page } = await gallery.open('period.html')
      await page.evaluate(() => {
        const { charts } = window as any
        charts[0].show(charts[0].chart.with({ color: 'month of departed', legend: 'top' }))
        charts[0].element.style.width = '300px'
      })
      await still(page)
      const names = () =>
        page.evaluate(() =>
          window.charts[0].scene.batches.flatMap(batch =>
            batch.kind === 'texts' && batch.id === 'legend/names' ? [...batch.texts] : [],
          ),
        )
      const first = await names()
      expect(first.at(-1)).toMatch(/^and \d+ more$/)
      const more = page.getByRole('button', { name: /^and \d+ more$/ }).first()
      await more.click()
      await still(page)
      const second = await names()
      expect(second[0]).not.toBe(first[0])
      const seen = new Set([...first, ...second].filter(name => !name.startsWith('and ')))
      for (let turn = 0; turn < 40 && (await names())[0] !== first[0]; turn++) {
        await more.focus()
        await page.keyboard.press('Enter')
        await still(page)
        for (const name of await names()) if (!name.startsWith('and ')) seen.add(name)
      }
      expect((await names())[0]).toBe(first[0])
      expect(seen.size).toBe(36)
      await page.context().close()
    },
  )
})

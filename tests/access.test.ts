import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { engine, sample, sampled } from './support/browser.ts'
import { cards, shapeAt } from './support/charts.ts'
import { type Gallery, openGallery } from './support/gallery.ts'
import { still } from './support/waiting.ts'

let gallery: Gallery
beforeAll(async () => {
  gallery = await openGallery()
})
afterAll(() => gallery?.close())

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

  test('forced colours, and pages that run from right to left, still give readable charts', async () => {
    const { page, errors } = await gallery.open('detail.html', { forcedColors: 'active' })
    const forced = await page.evaluate(() => {
      document.documentElement.dir = 'rtl'
      return matchMedia('(forced-colors: active)').matches
    })
    expect(forced).toBe(true)
    const bar = await shapeAt(page, 'rects', 0)
    await page.mouse.move(bar.x, bar.y)
    await still(page)
    expect((await cards(page))[0]).toContain('North Sound')
    expect(errors).toEqual([])
    await page.context().close()
  })
})

const PAGES = ['together.html', '', 'earnings.html', 'detail.html', 'period.html', 'race.html']
test.each(sample(PAGES, 0, 5))(
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

test.skipIf(sampled)('paper gets the drawing, not the pixels', async () => {
  const { page } = await gallery.open('detail.html')
  const seen = await page.evaluate(() => {
    window.dispatchEvent(new Event('beforeprint'))
    const during = document.querySelectorAll('.dapplo svg text').length
    window.dispatchEvent(new Event('afterprint'))
    return [during, document.querySelectorAll('.dapplo svg text').length]
  })
  expect(seen[0]).toBeGreaterThan(10)
  expect(seen[1]).toBe(0)
  // A page at night is printed by day, and is as it was afterwards.
  await page.evaluate(() => (globalThis as any).charts[0].reframe({ theme: 'night' }))
  await page.waitForFunction(() => (globalThis as any).charts[0].scene.background === '#15191c')
  const inks = await page.evaluate(() => {
    const live = (globalThis as any).charts[0]
    const night = live.scene.background
    window.dispatchEvent(new Event('beforeprint'))
    const paper = document.querySelector('.dapplo svg > rect')!.getAttribute('fill')
    window.dispatchEvent(new Event('afterprint'))
    return { night, paper, after: live.scene.background }
  })
  expect(inks.paper).toBe('#fdfcf9')
  expect(inks.night).not.toBe(inks.paper)
  expect(inks.after).toBe(inks.night)
  expect((await page.pdf()).subarray(0, 5).toString()).toBe('%PDF-')
  await page.context().close()
})

test.skipIf(sampled)(
  'paper has the values under the picture where that is wished for, and the page is as it was afterwards',
  async () => {
    const { page, errors } = await gallery.open('')
    const seen = await page.evaluate(async () => {
      const { chart, mount, table } = window.dapplo
      const place = document.createElement('div')
      place.style.height = '300px'
      const after = document.createElement('p')
      document.body.append(place, after)
      const rows = table({ route: ['Tern Point', 'Gannet Bay'], passengers: [120, 95] })
      mount(chart(rows, { draw: 'bar', x: 'route', y: 'passengers' }), place, {
        printsTable: true,
        theme: 'night',
      })
      // It stands on the page once the running code has ended.
      await Promise.resolve()
      const look = () => ({
        cells: [...place.querySelectorAll('table th, table td')].map(cell => cell.textContent),
        height: place.style.height,
        below: Math.round(after.getBoundingClientRect().top - place.getBoundingClientRect().top),
      })
      const before = look()
      window.dispatchEvent(new Event('beforeprint'))
      const during = look()
      const table_ = place.querySelector('table')!
      const ink = getComputedStyle(table_).color
      const end = Math.round(table_.getBoundingClientRect().bottom - place.getBoundingClientRect().top)
      window.dispatchEvent(new Event('afterprint'))
      return { before, during, ink, end, after: look() }
    })
    expect(seen.during.cells).toEqual(['Route', 'Passengers', 'Tern Point', '120', 'Gannet Bay', '95'])
    expect(seen.during.below).toBeGreaterThanOrEqual(seen.end)
    expect(seen.ink).toBe('rgb(28, 35, 40)')
    expect(seen.before.cells).toEqual([])
    expect(seen.after).toEqual(seen.before)
    expect(errors).toEqual([])
    await page.context().close()
  },
)

describe('when things go wrong', () => {
  test.skipIf(sampled)('a tooltip stands beside its point in scrolled, scaled and turned pages', async () => {
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

  test.skipIf(sampled)(
    'a zoom into nothing, gone rows, twin ids and throwing listeners break nothing',
    async () => {
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
        const refused = [
          null,
          { zoom: { x: [2, 2] } },
          { zoom: { y: [Number.NaN, 1] } },
          { hidden: 5 },
          { selected: 'zz' },
        ]
        const codes = refused.map(state => {
          try {
            live.state = state as never
          } catch (error) {
            return (error as { code: string }).code
          }
          return 'taken'
        })
        try {
          live.show({} as never)
        } catch (error) {
          codes.push((error as { code: string }).code)
        }
        live.state = { zoom: { x: [2, 2.0000001] }, selected: [0, 1, 77] }
        await frames(3)
        rows.remove(1)
        await frames(3)
        const left = (await live.selectedRows()).length
        place.style.display = 'none'
        await frames(2)
        place.style.display = ''
        other.remove()
        rows.append({ id: 9, at: 9, n: 9 })
        await frames(3)
        live.destroy()
        twin.destroy()
        return { codes, left, nodes: document.querySelectorAll('.dapplo').length }
      })
      expect(result).toEqual({ codes: [...Array(5).fill('bad-state'), 'bad-chart'], left: 1, nodes: 1 })
      expect([...new Set(errors.filter(text => !text.includes('listener')))]).toEqual([])
      await page.context().close()
    },
  )

  test.skipIf(engine !== 'chromium')('a thousand charts come and go without a trace', async () => {
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

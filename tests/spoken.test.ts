import { afterAll, beforeAll, expect, test } from 'vitest'
import { sample } from './support/browser.ts'
import { type Gallery, openGallery } from './support/gallery.ts'
import { still } from './support/waiting.ts'

/** What is heard of a page, kept as text so that people read it when it changes. */

let gallery: Gallery
beforeAll(async () => {
  gallery = await openGallery()
})
afterAll(() => gallery?.close())

const KEYS = ['ArrowRight', 'ArrowRight', 'ArrowDown', 'End', 'Home', 'Enter', 'Escape']

const PAGES = ['index', 'together', 'period', 'detail', 'earnings', 'kinds', 'race', 'compose']
test.each(sample(PAGES, 3, 0, 5, 7))('what is heard of /%s.html is what has been read', async name => {
  const { page, errors } = await gallery.openPlain(`${name}.html`)
  await page.getByRole('application').first().waitFor()
  await still(page)
  const heard = [await page.locator('body').ariaSnapshot()]
  const chart = page.getByRole('application').first()
  await chart.focus()
  for (const key of KEYS) {
    await page.keyboard.press(key)
    await still(page)
    // What is said last is said first by those who are asked what they heard.
    const said = await page.getByRole('status').allTextContents()
    heard.push(`${key}: ${said.filter(Boolean).join(' | ')}`)
  }
  await expect(`${heard.join('\n')}\n`).toMatchFileSnapshot(`spoken/${name}.txt`)
  expect(errors).toEqual([])
  await page.context().close()
})

test('a series is heard by S: pitch by value, from left to right, silence at gaps, and a click at zero', async () => {
  const { page, errors } = await gallery.openPlain('index.html')
  const values = [1, 4, null, 2, -2, 0.5]
  const heard = await page.evaluate(async values => {
    const RATE = 44_100
    // The chart plays into a recording instead of the loudspeaker.
    class Recording extends OfflineAudioContext {
      constructor() {
        super(2, RATE * 3, RATE)
        ;(window as any).recording = this
      }
      close() {
        return Promise.resolve()
      }
    }
    Object.assign(window, { AudioContext: Recording })
    const { chart, mount, table } = window.dapplo
    const place = document.createElement('div')
    place.style.cssText = 'width: 500px; height: 300px'
    document.body.append(place)
    const rows = table(values.map((value, at) => ({ at, value })))
    const live = mount(chart(rows, { draw: 'line', x: 'at', y: 'value' }), place, { tones: true })
    await new Promise(resolve => setTimeout(resolve, 100))
    const keys = place.querySelector<HTMLElement>('[role=application]')!
    keys.focus()
    keys.dispatchEvent(new KeyboardEvent('keydown', { key: 's', bubbles: true }))
    while (!(window as any).recording) await new Promise(requestAnimationFrame)
    // What makes the tones is loaded now.
    await new Promise(resolve => setTimeout(resolve, 500))
    const sound = await ((window as any).recording as OfflineAudioContext).startRendering()
    const [left, right] = [sound.getChannelData(0), sound.getChannelData(1)]
    const step = Math.max(0.025, Math.min(0.22, 6 / values.length))
    const loudness = (channel: Float32Array, from: number, to: number) =>
      Math.sqrt(channel.subarray(from, to).reduce((sum, one) => sum + one * one, 0) / (to - from))
    const steps = values.map((_, i) => {
      // Well within the step, away from its edges and from a click at its beginning.
      const [from, to] = [0.3, 0.85].map(share => Math.round((0.05 + (i + share) * step) * RATE))
      let rises = 0
      for (let at = from; at < to; at++)
        if (left[at] + right[at] < 0 && left[at + 1] + right[at + 1] >= 0) rises++
      const [begin, soon] = [0, 0.008].map(after => Math.round((0.05 + i * step + after) * RATE))
      let turns = 0
      for (let at = begin; at < soon; at++) if (left[at] < 0 !== left[at + 1] < 0) turns++
      return {
        pitch: (rises * RATE) / (to - from),
        left: loudness(left, from, to),
        right: loudness(right, from, to),
        turns,
      }
    })
    const { domain } = live.scene.scales.get('y')!
    const label = keys.getAttribute('aria-label')
    live.destroy()
    return { steps, domain, label }
  }, values)
  const [low, high] = heard.domain
  heard.steps.forEach(({ pitch, left, right }, i) => {
    const value = values[i]
    if (value === null) {
      expect(left + right).toBeLessThan(0.001)
      return
    }
    expect(left + right).toBeGreaterThan(0.05)
    const expected = 196 * 2 ** (3 * ((value - low) / (high - low)))
    expect(Math.abs(pitch - expected)).toBeLessThan(12)
  })
  expect(heard.steps[0].left).toBeGreaterThan(heard.steps[0].right * 2)
  expect(heard.steps[5].right).toBeGreaterThan(heard.steps[5].left * 2)
  // Zero is passed on the way to the fifth value, and on the way to the sixth.
  const clicks = heard.steps.map(({ turns, pitch }) => turns > 2 * pitch * 0.008 + 6)
  expect(clicks).toEqual([false, false, false, false, true, true])
  expect(heard.label).toContain('S plays them as tones.')
  expect(errors).toEqual([])
  await page.context().close()
})

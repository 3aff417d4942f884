import { afterAll, beforeAll, expect, test } from 'vitest'
import { type Gallery, openGallery } from './support/gallery.ts'
import { still } from './support/waiting.ts'

/** What is heard of a page, kept as text so that people read it when it changes. */

let gallery: Gallery
beforeAll(async () => {
  gallery = await openGallery()
})
afterAll(() => gallery?.close())

const KEYS = ['ArrowRight', 'ArrowRight', 'ArrowDown', 'End', 'Home', 'Enter', 'Escape']

test.each(['index', 'together', 'period', 'detail', 'earnings', 'kinds', 'race', 'compose'])(
  'what is heard of /%s.html is what has been read',
  async name => {
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
  },
)

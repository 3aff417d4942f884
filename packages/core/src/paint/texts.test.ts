import { expect, test } from 'vitest'
import { chart, type Scene, type Texts, table } from '../index.ts'
import { View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'
import type { Context2D } from './context.ts'
import { paintSvg } from './svg.ts'
import { paintTexts } from './texts.ts'

const scene: Scene = new View(
  chart(table({ at: [1, 2, 3], value: [111, 940, 1118] }), { draw: 'line', x: 'at', y: 'value' }),
  {},
  { width: 500, height: 400, measure: measureInter },
).scene
const batch = scene.batches.find(({ id }) => id === 'axis y/labels') as Texts

/** Where a canvas is asked to write each piece, by its middle. */
function written(texts: readonly string[]): { text: string; middle: number; y: number }[] {
  const out: { text: string; middle: number; y: number }[] = []
  const measureText = (text: string) => ({ width: measureInter(text, batch) })
  const context = {
    measureText,
    fillText: (text: string, x: number, y: number) =>
      out.push({ text, middle: x + measureText(text).width / 2, y }),
  } as unknown as Context2D
  paintTexts({ ...batch, texts, halo: undefined }, scene, context)
  return out
}

test('figures at an upright axis stand in columns, whatever width the font gives them', () => {
  expect(batch.tabular).toBe(true)
  expect(measureInter('1', batch)).toBeLessThan(measureInter('8', batch) - 1)
  const numbers = ['1,111', '8,888'].flatMap((text, i) =>
    written(batch.texts.map((_, j) => (j === i ? text : ''))),
  )
  const columns = (row: number) => numbers.slice(row * 5, row * 5 + 5).map(({ middle }) => middle)
  expect(numbers.map(({ text }) => text).join('')).toBe('1,1118,888')
  for (const [i, middle] of columns(0).entries()) expect(middle).toBeCloseTo(columns(1)[i], 6)
  // An SVG says so to whoever draws it.
  expect(paintSvg(scene)).toContain('font-variant="tabular-nums"')
})

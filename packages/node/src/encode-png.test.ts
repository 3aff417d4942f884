import { createCanvas, loadImage } from '@napi-rs/canvas'
import { expect, test } from 'vitest'
import { encodePng } from './encode-png.ts'

test('a PNG holds the pixels of its canvas, half clear ones and none too', async () => {
  const canvas = createCanvas(61, 37)
  const context = canvas.getContext('2d')
  for (let i = 0; i < 40; i++) {
    context.fillStyle = `rgb(${(i * 37) % 256} ${(i * 91) % 256} ${(i * 13) % 256} / ${(i % 5) / 4})`
    context.fillRect((i * 17) % 50, (i * 7) % 30, 9.5, 5.3)
  }
  const again = createCanvas(61, 37)
  const { width, height } = canvas
  again.getContext('2d').drawImage(await loadImage(await encodePng(canvas)), 0, 0)
  const pixels = (of: typeof canvas) => of.getContext('2d').getImageData(0, 0, width, height).data
  expect(pixels(again)).toEqual(pixels(canvas))
})

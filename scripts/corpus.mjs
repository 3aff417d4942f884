// Draws some three hundred pictures of tables unlike in shape to the demo's, checks each, and puts them on contact sheets.
// Usage: npm run corpus -- [--out corpus] [--only "long names"] [--size 640x400] [--no-sheets]
import './build.mjs'

import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { createCanvas, loadImage } from '@napi-rs/canvas'
import { PICTURES } from '../tests/corpus/charts.mjs'
import { drawPicture } from '../tests/corpus/draw.mjs'
import { faultsOf } from '../tests/corpus/faults.mjs'

const { values } = parseArgs({
  options: {
    out: { type: 'string', default: 'corpus' },
    only: { type: 'string' },
    size: { type: 'string' },
    'no-sheets': { type: 'boolean' },
  },
})
const pictures = PICTURES.filter(
  ({ name, frame }) =>
    (!values.only || name.includes(values.only)) &&
    (!values.size || values.size === `${frame.width}x${frame.height}`),
)
const { paintPng } = await import('@dapplo/node')
const kinds = new Map()
const sheets = new Map()
for (const picture of pictures) {
  const { scene, findings, refusal } = drawPicture(picture)
  for (const fault of refusal ? [] : faultsOf(scene)) {
    console.log(`${picture.name}: ${fault}`)
    const kind = fault.replace(/"[^"]*"/g, '…').replace(/[\d.]+/g, '#')
    kinds.set(kind, (kinds.get(kind) ?? 0) + 1)
  }
  if (values['no-sheets']) continue
  const size = `${picture.frame.width}x${picture.frame.height}`
  sheets.set(size, [...(sheets.get(size) ?? []), { picture, scene, findings, refusal }])
}
console.log(
  `${pictures.length} pictures; ${[...kinds].map(([kind, count]) => `${count} × ${kind}`).join('; ') || 'no faults'}`,
)

/** A sheet is about as large as a screen. */
const SHEET = { width: 1920, height: 1280, gap: 10, caption: 16 }
mkdirSync(values.out, { recursive: true })
for (const [size, drawn] of sheets) {
  const [width, height] = size.split('x').map(Number)
  const shown = Math.min(width, 470, (width / height) * 420)
  const tall = (shown / width) * height
  const columns = Math.floor(SHEET.width / (shown + SHEET.gap))
  const lines = Math.max(1, Math.floor(SHEET.height / (tall + SHEET.gap + SHEET.caption)))
  for (let from = 0, number = 1; from < drawn.length; from += columns * lines, number++) {
    const canvas = createCanvas(SHEET.width, SHEET.height)
    const context = canvas.getContext('2d')
    context.fillStyle = '#8a8a8a'
    context.fillRect(0, 0, SHEET.width, SHEET.height)
    for (const [i, { picture, scene, findings, refusal }] of drawn
      .slice(from, from + columns * lines)
      .entries()) {
      const x = SHEET.gap / 2 + (i % columns) * (shown + SHEET.gap)
      const y = Math.floor(i / columns) * (tall + SHEET.gap + SHEET.caption)
      context.fillStyle = '#ffffff'
      context.font = '11px sans-serif'
      const told = refusal ?? findings.map(({ code }) => code).join(' ')
      context.fillText(`${picture.name.replace(/ \d+x\d+$/, '')}: ${told}`, x, y + 12, shown)
      if (scene)
        context.drawImage(await loadImage(await paintPng(scene, 2)), x, y + SHEET.caption, shown, tall)
    }
    writeFileSync(join(values.out, `${size}-${number}.png`), canvas.toBuffer('image/png'))
  }
}
process.exitCode = kinds.size > 0 ? 1 : 0

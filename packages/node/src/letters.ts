import type { Finding, Scene } from '@dapplo/core'
import { canvasModule } from './fonts.ts'

/** Letters that Inter, which comes with the package, may not have: all but Latin, Greek, Cyrillic and common signs. */
const ELSEWHERE = /[^\0-\u052f\u1e00-\u1fff\u2000-\u20cf\u2100-\u23ff\u2500-\u25ff]/gu
/** No font has a letter here: what is drawn for it is drawn for all that are missing. */
const NOWHERE = '\u{10fffd}'
const SIDE = 24

const known = new Map<string, boolean>()

/** Tells of letters for which no font on this machine has a shape: pictures of pixels and PDF show boxes in their place. */
export function missingLetters(scene: Scene): Finding[] {
  const letters = new Set<string>()
  for (const batch of scene.batches)
    if (batch.kind === 'texts')
      for (const text of batch.texts) for (const [letter] of text.matchAll(ELSEWHERE)) letters.add(letter)
  const missing = [...letters].filter(
    letter => /[\p{L}\p{N}\p{Co}]/u.test(letter) && !isDrawn(letter, scene.font),
  )
  if (missing.length === 0) return []
  return [
    {
      code: 'no-letters',
      message: `No font on this machine has ${missing.length === 1 ? 'the letter' : 'letters such as'} "${missing.slice(0, 3).join('')}", so a picture of pixels shows boxes in their place`,
      remedy: 'Install a font that has them, take one from a file by addFont, or write SVG.',
      path: '',
    },
  ]
}

function isDrawn(letter: string, font: string): boolean {
  const name = `${font}\0${letter}`
  let drawn = known.get(name)
  if (drawn === undefined) {
    drawn = pixelsOf(letter, font) !== pixelsOf(NOWHERE, font)
    known.set(name, drawn)
  }
  return drawn
}

function pixelsOf(letter: string, font: string): string {
  const context = canvasModule().createCanvas(SIDE, SIDE).getContext('2d')
  context.font = `16px ${font}`
  context.fillText(letter, 2, 18)
  return Buffer.from(context.getImageData(0, 0, SIDE, SIDE).data.buffer).toString('latin1')
}

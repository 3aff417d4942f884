import { readFileSync } from 'node:fs'
import type { GlobalFonts as Fonts } from '@napi-rs/canvas'
import { partOf } from './parts.ts'

let registered = false

/** Makes Inter, the font that charts are measured with, known to the canvas. */
export function registerInter(fonts: typeof Fonts): void {
  if (registered) return
  registered = true
  for (const file of ['400Regular/Inter_400Regular.ttf', '600SemiBold/Inter_600SemiBold.ttf']) {
    fonts.registerFromPath(partOf(`@expo-google-fonts/inter/${file}`), 'Inter')
  }
}

/** Inter as style rules that hold the font itself: its Latin letters, in both weights. */
export function interFaces(): string {
  const face = (weight: number) => {
    const file = readFileSync(partOf(`@fontsource/inter/files/inter-latin-${weight}-normal.woff2`))
    return `@font-face{font-family:Inter;font-weight:${weight};src:url(data:font/woff2;base64,${file.toString('base64')}) format("woff2")}`
  }
  return `${face(400)}${face(600)}`
}

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

import { readFileSync } from 'node:fs'
import { basename, extname } from 'node:path'
import { DapploError, type Frame, type Measure } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { firstFont, fontsOf } from '@dapplo/core/internal'
import type { GlobalFonts as Fonts } from '@napi-rs/canvas'
import { loadPart, partOf } from './parts.ts'

let loaded: typeof import('@napi-rs/canvas') | undefined

/** The canvas of Node, with Inter, the font that charts are measured with; loaded only where it is needed. */
export function canvasModule(): typeof import('@napi-rs/canvas') {
  if (!loaded) {
    loaded = loadPart('@napi-rs/canvas') as typeof import('@napi-rs/canvas')
    registerInter(loaded.GlobalFonts)
  }
  return loaded
}

function registerInter(fonts: typeof Fonts): void {
  for (const file of ['400Regular/Inter_400Regular.ttf', '600SemiBold/Inter_600SemiBold.ttf'])
    fonts.registerFromPath(partOf(`@expo-google-fonts/inter/${file}`), 'Inter')
}

/** Files of fonts, by their names. */
const added = new Map<string, string[]>()

/**
 * Takes a font from a file, TrueType, OpenType or WOFF2, for pictures, films and PDF of charts whose theme or house style
 * names it. `name`: what it is called there, default what the file is called without its ending. Each weight is a file of
 * its own, under one name. Returns the name. Throws `no-file` and `not-a-font`.
 */
export function addFont(file: string, name = basename(file, extname(file))): string {
  let bytes: Buffer
  try {
    bytes = readFileSync(file)
  } catch {
    throw new DapploError('no-file', `There is no file ${file}`, 'font', 'Name a font file that is there.')
  }
  if (!canvasModule().GlobalFonts.register(bytes, name))
    throw new DapploError(
      'not-a-font',
      `${file} is no font`,
      'font',
      'Name a TrueType, OpenType or WOFF2 file.',
    )
  added.set(name, [...(added.get(name) ?? []), file])
  return name
}

/** Whether pictures can be drawn in a font. */
export const hasFont = (name: string): boolean => name === 'Inter' || canvasModule().GlobalFonts.has(name)

const measures = new Map<string, Measure>()

/** How wide words are in the fonts of a frame. */
export function measureIn(frame: Pick<Frame, 'theme' | 'house'>): Measure {
  const fonts = fontsOf(frame)
  if (firstFont(fonts) === 'Inter') return measureInter
  let measure = measures.get(fonts)
  if (!measure) {
    const context = canvasModule().createCanvas(1, 1).getContext('2d')
    measure = (text, { size, weight }) => {
      context.font = `${weight} ${size}px ${fonts}`
      return context.measureText(text).width
    }
    measures.set(fonts, measure)
  }
  return measure
}

const MEDIA: Record<string, string> = { '.ttf': 'ttf', '.otf': 'otf', '.woff': 'woff', '.woff2': 'woff2' }

/** The fonts of a chart as style rules that hold them: those that were added, else Inter's Latin letters in both weights. */
export function fontFaces(fonts = 'Inter'): string {
  const name = firstFont(fonts)
  const files = added.get(name)
  if (!files) return interFaces()
  return files
    .map(file => {
      const type = MEDIA[extname(file).toLowerCase()] ?? 'ttf'
      return `@font-face{font-family:${JSON.stringify(name)};src:url(data:font/${type};base64,${readFileSync(file).toString('base64')})}`
    })
    .join('')
}

/** Inter as style rules that hold the font itself: its Latin letters, in both weights. */
export function interFaces(): string {
  const face = (weight: number) => {
    const file = readFileSync(partOf(`@fontsource/inter/files/inter-latin-${weight}-normal.woff2`))
    return `@font-face{font-family:Inter;font-weight:${weight};src:url(data:font/woff2;base64,${file.toString('base64')}) format("woff2")}`
  }
  return `${face(400)}${face(600)}`
}

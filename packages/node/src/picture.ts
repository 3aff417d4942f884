import {
  type Chart,
  type Context2D,
  compose,
  type Frame,
  paintCanvas,
  type Scene,
  type State,
  toSvgText,
} from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { registerInter } from './fonts.ts'

/** The frame of a picture: as for a page, but sizes have defaults and text is measured as Inter. */
export type PictureFrame = Partial<Frame>

const SIZE = { width: 1280, height: 800 }

/** The scene of a chart in a frame of 1280 × 800 pixels, unless told otherwise. */
export function sceneOf(chart: Chart, frame: PictureFrame = {}, state: State = {}): Scene {
  return compose(chart, state, { ...SIZE, measure: measureInter, ...frame })
}

/** The chart as a standalone SVG document. */
export function toSvg(chart: Chart, frame: PictureFrame = {}, state: State = {}): string {
  return toSvgText(sceneOf(chart, frame, state))
}

/** The chart as a PNG. `density` is the number of device pixels per pixel; default 2, sharp on most screens. */
export async function toPng(chart: Chart, frame: PictureFrame = {}, state: State = {}): Promise<Uint8Array> {
  return paintPng(sceneOf(chart, { density: 2, ...frame }, state), frame.density ?? 2)
}

/** A scene as a PNG. */
export async function paintPng(scene: Scene, density: number): Promise<Uint8Array> {
  const { createCanvas, GlobalFonts } = await import('@napi-rs/canvas')
  registerInter(GlobalFonts)
  const canvas = createCanvas(
    Math.max(1, Math.round(scene.width * density)),
    Math.max(1, Math.round(scene.height * density)),
  )
  paintCanvas(scene, canvas.getContext('2d') as unknown as Context2D, density)
  return canvas.encode('png')
}

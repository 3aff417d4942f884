import {
  type Chart,
  type Context2D,
  compose,
  type Frame,
  paintCanvas,
  type Scene,
  type Spread,
  type State,
  toSvgText,
} from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { registerInter } from './fonts.ts'
import { withPictures } from './picture-files.ts'

/** The frame of a picture: as for a page, but sizes have defaults and text is measured as Inter. */
export type PictureFrame = Partial<Frame> & {
  /** Where pictures named by a relative path lie. Default: the current folder. */
  folder?: string
}

const SIZE = { width: 1280, height: 800 }

/** The scene of a chart in a frame of 1280 × 800 pixels, unless told otherwise. */
export function sceneOf(chart: Chart | Spread, frame: PictureFrame = {}, state: State = {}): Scene {
  return withPictures(
    compose(chart, state, { ...SIZE, measure: measureInter, ...frame }),
    frame.folder ?? '.',
  )
}

/** The chart as a standalone SVG document. */
export function toSvg(chart: Chart | Spread, frame: PictureFrame = {}, state: State = {}): string {
  return toSvgText(sceneOf(chart, frame, state))
}

/** The chart as a PNG. `density` is the number of device pixels per pixel; default 2, sharp on most screens. */
export async function toPng(
  chart: Chart | Spread,
  frame: PictureFrame = {},
  state: State = {},
): Promise<Uint8Array> {
  return paintPng(sceneOf(chart, { density: 2, ...frame }, state), frame.density ?? 2)
}

/** A scene as a PNG. */
export async function paintPng(scene: Scene, density: number): Promise<Uint8Array> {
  const { createCanvas, GlobalFonts, loadImage } = await import('@napi-rs/canvas')
  registerInter(GlobalFonts)
  const canvas = createCanvas(
    Math.max(1, Math.round(scene.width * density)),
    Math.max(1, Math.round(scene.height * density)),
  )
  const pictures = new Map<string, Awaited<ReturnType<typeof loadImage>>>()
  for (const batch of scene.batches) {
    if (batch.kind !== 'images') continue
    for (const href of batch.hrefs) {
      // Only pictures that are data by now: files were read, and nothing is fetched from the network.
      if (href.startsWith('data:')) pictures.set(href, await loadImage(href))
    }
  }
  paintCanvas(scene, canvas.getContext('2d') as unknown as Context2D, density, {
    pictures: href => {
      const source = pictures.get(href)
      return source && { source, width: source.width, height: source.height }
    },
    bitmap: (rgba, columns, rows) => {
      const picture = createCanvas(columns, rows)
      const data = picture.getContext('2d').createImageData(columns, rows)
      data.data.set(rgba)
      picture.getContext('2d').putImageData(data, 0, 0)
      return picture
    },
  })
  return canvas.encode('png')
}

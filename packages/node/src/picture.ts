import {
  type Chart,
  type Context2D,
  compose,
  type Finding,
  type Frame,
  paintCanvas,
  paintSvg,
  type Scene,
  Spread,
  type State,
  type Surroundings,
} from '@dapplo/core'
import {
  type Composition,
  escapeXml,
  Playback,
  paintDense,
  periodsInTime,
  View,
  withCommon,
} from '@dapplo/core/internal'
import { encodePng } from './encode-png.ts'
import { canvasModule, fontFaces, hasFont, measureIn } from './fonts.ts'
import { missingLetters } from './letters.ts'
import { withPictures } from './picture-files.ts'

/** The frame of a picture: as for a page, but sizes have defaults and text is measured as Inter. */
export type PictureFrame = Partial<Frame> & {
  /** Where pictures named by a relative path lie. Default: the current folder. */
  folder?: string
}

const SIZE = { width: 1280, height: 800 }

/** A frame with all that it leaves out. */
export const wholeFrame = (frame: PictureFrame, size = SIZE): Frame => ({
  ...size,
  measure: measureIn({ ...frame, house: withCommon(frame.house) }),
  hasFont,
  ...frame,
})

/** The scene of a chart in a frame of 1280 × 800 pixels, unless told otherwise. */
export function sceneOf(chart: Chart | Spread, frame: PictureFrame = {}, state: State = {}): Scene {
  const whole = wholeFrame(frame)
  return withPictures(
    momentOf(chart, state, whole)?.scene ?? compose(chart, state, whole),
    frame.folder ?? '.',
  )
}

/** The same, once tables that answer in time have answered. */
const sceneInTime = async (chart: Chart | Spread, frame: PictureFrame, state: State): Promise<Scene> =>
  (await shownInTime(chart, frame, state)).scene

/** The scene, and what it is read from, once tables that answer in time have answered. */
export async function shownInTime(
  chart: Chart | Spread,
  frame: PictureFrame,
  state: State,
): Promise<{ scene: Scene; composition: Composition }> {
  const whole = wholeFrame(frame)
  const view = new View(chart, state, whole)
  await view.settled()
  await periodsInTime(chart, state, whole)
  const moment = momentOf(chart, state, whole)
  return {
    scene: withPictures(moment?.scene ?? view.scene, frame.folder ?? '.'),
    composition: moment?.composition ?? view.composition.value,
  }
}

/** A chart that is played stands still in a picture: at the place that the state says, else at its end. */
function momentOf(chart: Chart | Spread, state: State, frame: Frame) {
  if (chart instanceof Spread || !chart.resolved.throughMeaning) return undefined
  const playback = new Playback(chart, state, frame)
  const at = state.at ?? playback.length
  return { scene: playback.sceneAt(at), composition: playback.compositionAt(at) }
}

/**
 * Likely mistakes in the chart and its data, in the frame of a picture: each with what to do about it. Also letters for
 * which no font on this machine has a shape (`no-letters`).
 */
export function findingsOf(
  chart: Chart | Spread,
  frame: PictureFrame = {},
  state: State = {},
): readonly Finding[] {
  const view = new View(chart, state, wholeFrame(frame))
  return [...view.findings, ...missingLetters(view.scene)]
}

/** How the letters of an SVG find their font: by its name, or from the document itself. */
export type SvgFonts = 'named' | 'embedded'

/** The chart as a standalone SVG document. With `fonts: 'embedded'`, its font is written into it. */
export function toSvg(
  chart: Chart | Spread,
  frame: PictureFrame & { fonts?: SvgFonts } = {},
  state: State = {},
): string {
  const scene = sceneOf(chart, frame, state)
  const embedded = frame.fonts === 'embedded'
  return paintSvg(scene, {
    style: embedded ? fontFaces(scene.font) : undefined,
    measure: embedded ? undefined : wholeFrame(frame).measure,
  })
}

/** The chart as an SVG whose letters are outlines: alike everywhere, but no text any more. */
export async function toOutlinedSvg(
  chart: Chart | Spread,
  frame: PictureFrame = {},
  state: State = {},
): Promise<string> {
  const scene = await sceneInTime(chart, frame, state)
  const { createCanvas, SvgExportFlag } = canvasModule()
  const canvas = createCanvas(scene.width, scene.height, SvgExportFlag.ConvertTextToPaths)
  const surroundings = { ...(await surroundingsOf(scene)), shapes: true }
  paintCanvas(scene, canvas.getContext('2d') as unknown as Context2D, 1, surroundings)
  const svg = canvas.getContent().toString()
  const words = `<title>${escapeXml(scene.title)}</title><desc>${escapeXml(scene.description)}</desc>`
  return svg.replace(/<svg [^>]*>/, open => `${open.replace('<svg ', '<svg role="img" ')}${words}`)
}

/** The chart as a PNG. `density` is the number of device pixels per pixel; default 2, sharp on most screens. */
export async function toPng(
  chart: Chart | Spread,
  frame: PictureFrame = {},
  state: State = {},
): Promise<Uint8Array> {
  return paintPng(await sceneInTime(chart, { density: 2, ...frame }, state), frame.density ?? 2)
}

/** A scene as a PNG. */
export async function paintPng(scene: Scene, density: number): Promise<Uint8Array> {
  const { createCanvas } = canvasModule()
  const canvas = createCanvas(
    Math.max(1, Math.round(scene.width * density)),
    Math.max(1, Math.round(scene.height * density)),
  )
  const surroundings = await surroundingsOf(scene)
  paintCanvas(scene, canvas.getContext('2d') as unknown as Context2D, density, surroundings)
  return encodePng(canvas)
}

/** The chart as a PDF of one page: lines and letters, not pixels, with the fonts in it. A pixel is 1/96 of an inch. */
export async function toPdf(
  chart: Chart | Spread,
  frame: PictureFrame = {},
  state: State = {},
): Promise<Uint8Array> {
  const scene = await sceneInTime(chart, frame, state)
  const { PDFDocument } = canvasModule()
  const document = new PDFDocument({ title: scene.title, subject: scene.description, creator: 'Dapplo' })
  const context = document.beginPage(scene.width * POINTS, scene.height * POINTS)
  const surroundings = { ...(await surroundingsOf(scene)), shapes: true }
  paintCanvas(scene, context as unknown as Context2D, POINTS, surroundings)
  document.endPage()
  return document.close()
}

/** Points to a pixel: PDF counts in 1/72 of an inch. */
const POINTS = 0.75

/** What painting a scene needs: its pictures, loaded, and a way to put colour values on a canvas. */
export async function surroundingsOf(scene: Scene): Promise<Surroundings> {
  const { createCanvas, ImageData, loadImage } = canvasModule()
  const pictures = new Map<string, Awaited<ReturnType<typeof loadImage>>>()
  for (const batch of scene.batches) {
    if (batch.kind !== 'images') continue
    for (const href of batch.hrefs) {
      // Only pictures that are data by now: files were read, and nothing is fetched from the network.
      if (href.startsWith('data:')) pictures.set(href, await loadImage(href))
    }
  }
  return {
    pictures: href => {
      const source = pictures.get(href)
      return source && { source, width: source.width, height: source.height }
    },
    bitmap: (rgba, columns, rows) => {
      const picture = createCanvas(columns, rows)
      picture.getContext('2d').putImageData(new ImageData(rgba, columns, rows), 0, 0)
      return picture
    },
    dense: paintDense,
  }
}

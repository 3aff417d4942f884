import { type Composition, csvText, dataTables } from '@dapplo/core/internal'
import { paintCanvas, type Scene, type Surroundings } from '@dapplo/core/small'

/** Device pixels per pixel of saved pictures: sharp on most screens. */
const DENSITY = 2

/** The picture as a PNG. */
export function pngOf(scene: Scene, surroundings: Surroundings): Promise<Blob> {
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(scene.width * DENSITY)
  canvas.height = Math.round(scene.height * DENSITY)
  const context = canvas.getContext('2d')
  if (context) paintCanvas(scene, context as never, DENSITY, surroundings)
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      blob => (blob ? resolve(blob) : reject(new Error('The picture cannot be written.'))),
      'image/png',
    ),
  )
}

/** The values of a chart as CSV: plain numbers, and times by ISO 8601. */
export const csvOf = (composition: Composition): string =>
  csvText(dataTables(composition, Number.POSITIVE_INFINITY, 'plain'))

/** Hands a file to the person. */
export function download(blob: Blob, name: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}

/** A file name made of a title. */
export function fileName(title: string, ending: string): string {
  const plain = title
    .normalize('NFKD')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60)
    .toLowerCase()
  return `${plain || 'chart'}.${ending}`
}

/** Prints the picture alone, as drawn for paper: lines and letters rather than pixels; `below`: what stands under it. */
export function printed(svg: string, title: string, below: readonly HTMLElement[]): void {
  const frame = document.createElement('iframe')
  Object.assign(frame.style, { position: 'fixed', width: '0', height: '0', border: '0' })
  document.body.append(frame)
  const inner = frame.contentDocument!
  const picture = new DOMParser().parseFromString(svg, 'image/svg+xml').documentElement
  picture.setAttribute('style', 'width:100%;height:auto')
  inner.body.append(inner.importNode(picture, true))
  inner.body.append(...below.map(element => inner.importNode(element, true)))
  inner.title = title
  const view = frame.contentWindow!
  view.addEventListener('afterprint', () => frame.remove())
  view.print()
}

import { clean } from '../guide/text.ts'
import { MARKERS, traceMarker } from '../scene/marker.ts'
import {
  type Areas,
  type Batch,
  type Box,
  clipBox,
  type Discs,
  type Images,
  type Lines,
  type Pixels,
  type Rects,
  type Scene,
  type Segments,
  safePicture,
  type Texts,
  type Wedges,
} from '../scene/scene.ts'
import { inFigures, type Measure } from '../theme/text-width.ts'
import { traceBands } from './bands.ts'
import { fillOf, hatchDefinitions } from './hatching.ts'
import { short } from './hundredths.ts'
import { pixelRuns } from './pixels.ts'
import { snapped } from './snap.ts'
import { linePath, pathText, roundedPath } from './svg-paths.ts'
import { traceWedge } from './wedge.ts'

/** What is written into an SVG document beside its shapes. */
export interface SvgOptions {
  /** Style rules written into the document, such as those of a font. They must hold no markup. */
  style?: string
  /** Attributes of the outermost element beyond its own, such as a class. Values are escaped. */
  attributes?: Record<string, string>
  /** How wide words are, in pixels. Their lengths are then stated, and hold where the font is missing. */
  measure?: Measure
}

/** Text as it may stand in XML, between tags and inside quotes. */
export function escapeXml(text: string): string {
  return clean(text).replace(/[&<>"']/g, character => `&#${character.charCodeAt(0)};`)
}

/** The scene as a standalone SVG document. */
export function paintSvg(scene: Scene, options: SvgOptions = {}): string {
  const { width, height } = scene
  const extra = Object.entries(options.attributes ?? {}).map(
    ([name, value]) => ` ${name.replace(/[^\w:-]/g, '')}="${escapeXml(value)}"`,
  )
  const out: string[] = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${short(width)}" height="${short(height)}" viewBox="0 0 ${short(width)} ${short(height)}" font-family="${escapeXml(scene.font)}" role="img" aria-label="${escapeXml(scene.title)}"${extra.join('')}>`,
  ]
  if (scene.title) out.push(`<title>${escapeXml(scene.title)}</title>`)
  if (scene.description) out.push(`<desc>${escapeXml(scene.description)}</desc>`)
  if (options.style) out.push(`<style>${options.style.replace(/</g, '')}</style>`)
  const patterns = hatchDefinitions(scene, escapeXml)
  if (patterns) out.push(patterns)
  if (scene.background) out.push(`<rect width="100%" height="100%" fill="${escapeXml(scene.background)}"/>`)
  // A nested svg clips without needing an id, so charts on one page cannot get in each other's way.
  let open: number | undefined
  for (const batch of scene.batches) {
    const wanted = batch.clip ? (batch.pane ?? 0) : undefined
    if (wanted !== open) {
      if (open !== undefined) out.push('</svg>')
      if (wanted !== undefined) out.push(openClip(clipBox(scene, batch)))
      open = wanted
    }
    paintBatch(batch, out, options.measure)
  }
  if (open !== undefined) out.push('</svg>')
  out.push('</svg>')
  return out.join('\n')
}

function openClip({ x, y, width, height }: Box): string {
  const box = `${short(x)} ${short(y)} ${short(width)} ${short(height)}`
  return `<svg x="${short(x)}" y="${short(y)}" width="${short(width)}" height="${short(height)}" viewBox="${box}">`
}

function paintBatch(batch: Batch, out: string[], measure: Measure | undefined): void {
  switch (batch.kind) {
    case 'rects':
      return paintRects(batch, out)
    case 'discs':
      return paintDiscs(batch, out)
    case 'wedges':
      return paintWedges(batch, out)
    case 'pixels':
      return paintPixels(batch, out)
    case 'lines':
      return paintLines(batch, out)
    case 'areas':
      return paintAreas(batch, out)
    case 'segments':
      return paintSegments(batch, out)
    case 'texts':
      return paintTexts(batch, out, measure)
    case 'images':
      return paintImages(batch, out)
  }
}

/** Runs of neighbouring shapes that look alike share a group, which keeps files small. */
function grouped(
  batch: Batch,
  count: number,
  out: string[],
  attribute: 'fill' | 'stroke',
  paint: (i: number) => string,
): void {
  const { color, colors } = batch
  let open = false
  let nowColor = -1
  let nowAlpha = -1
  for (let i = 0; i < count; i++) {
    const shape = paint(i)
    if (shape === '') continue
    const alpha = batch.alpha ? batch.alpha[i] : 1
    // Numbers are compared rather than texts: most shapes look like the one before them.
    if (color[i] !== nowColor || alpha !== nowAlpha) {
      if (open) out.push('</g>')
      open = true
      nowColor = color[i]
      nowAlpha = alpha
      const opacity = alpha < 1 ? ` ${attribute}-opacity="${short(alpha)}"` : ''
      const paint = attribute === 'fill' ? fillOf(batch, nowColor) : colors[nowColor]
      out.push(`<g ${attribute}="${escapeXml(paint)}"${opacity}>`)
    }
    const link = batch.links?.(i)
    out.push(link ? `<a href="${escapeXml(link)}">${shape}</a>` : shape)
  }
  if (open) out.push('</g>')
}

function paintRects(batch: Rects, out: string[]): void {
  if (batch.edge) out.push(`<g stroke="${escapeXml(batch.edge)}" stroke-width="1">`)
  const { x, y, width, height, round, radius } = batch
  grouped(batch, x.length, out, 'fill', i => {
    if (!(width[i] > 0 && height[i] > 0)) return ''
    const side = round[i]
    const r = Math.min(
      radius,
      side === 1 || side === 3 ? Math.min(height[i], width[i] / 2) : Math.min(width[i], height[i] / 2),
    )
    if (side === 0 || r < 0.5)
      return `<rect x="${short(x[i])}" y="${short(y[i])}" width="${short(width[i])}" height="${short(height[i])}"/>`
    return `<path d="${roundedPath(x[i], y[i], width[i], height[i], side, r)}"/>`
  })
  if (batch.edge) out.push('</g>')
}

function paintDiscs(batch: Discs, out: string[]): void {
  const { x, y, radius, ring } = batch
  if (ring)
    out.push(`<g stroke="${escapeXml(ring.color)}" stroke-width="${short(ring.width)}" paint-order="stroke">`)
  if (!batch.form && !batch.alpha && !batch.links) {
    plainDiscs(batch, out)
    if (ring) out.push('</g>')
    return
  }
  grouped(batch, x.length, out, 'fill', i => {
    const r = radius[i]
    if (!(x[i] === x[i] && y[i] === y[i] && r > 0)) return ''
    const form = batch.form ? MARKERS[batch.form[i]] : 'disc'
    if (form === 'disc') return `<circle cx="${short(x[i])}" cy="${short(y[i])}" r="${short(r)}"/>`
    const path = pathText()
    traceMarker(form, x[i], y[i], radius[i], path)
    return `<path d="${path.parts.join('')}"/>`
  })
  if (ring) out.push('</g>')
}

/** Discs of one opacity, without a call for each: clouds have hundreds of thousands. */
function plainDiscs({ x, y, radius, color, colors }: Discs, out: string[]): void {
  let text = ''
  let now = -1
  let size = Number.NaN
  let end = ''
  for (let i = 0; i < x.length; i++) {
    const r = radius[i]
    if (!(x[i] === x[i] && y[i] === y[i] && r > 0)) continue
    if (color[i] !== now) {
      text += `${now < 0 ? '' : '</g>\n'}<g fill="${escapeXml(colors[color[i]])}">\n`
      now = color[i]
    }
    if (r !== size) {
      size = r
      end = `" r="${short(r)}"/>\n`
    }
    text += `<circle cx="${short(x[i])}" cy="${short(y[i])}${end}`
  }
  if (now >= 0) out.push(`${text}</g>`)
}

function paintWedges(batch: Wedges, out: string[]): void {
  const { ring } = batch
  out.push(
    `<g stroke="${escapeXml(ring.color)}" stroke-width="${short(ring.width)}" stroke-linejoin="round">`,
  )
  grouped(batch, batch.x.length, out, 'fill', i => {
    const path = pathText()
    traceWedge(batch, i, path)
    return path.parts.length === 0 ? '' : `<path d="${path.parts.join('')}"/>`
  })
  out.push('</g>')
}

/** Neighbouring picture elements of one colour become one stroke of a path, each colour one path. */
function paintPixels(batch: Pixels, out: string[]): void {
  const [x, y] = [batch.x[0], batch.y[0]]
  const size = batch.width[0] / batch.columns
  out.push(
    `<g transform="translate(${short(x)} ${short(y)}) scale(${Number(size.toFixed(6))})" shape-rendering="crispEdges">`,
  )
  for (const { color, opacity, runs } of pixelRuns(batch)) {
    const path = runs.map(([column, row, length]) => `M${column} ${row}h${length}v1h-${length}z`).join('')
    out.push(`<path fill="${color}"${opacity < 1 ? ` fill-opacity="${short(opacity)}"` : ''} d="${path}"/>`)
  }
  out.push('</g>')
}

function paintLines(batch: Lines, out: string[]): void {
  out.push(`<g fill="none" stroke-linejoin="round"${batch.flat ? '' : ' stroke-linecap="round"'}>`)
  grouped(batch, batch.names.length, out, 'stroke', i => {
    const d = linePath(batch, i)
    const dash = batch.dash[i]?.length ? ` stroke-dasharray="${batch.dash[i].map(short).join(' ')}"` : ''
    return d === '' ? '' : `<path d="${d}" stroke-width="${short(batch.width[i])}"${dash}/>`
  })
  out.push('</g>')
}

function paintAreas(batch: Areas, out: string[]): void {
  grouped(batch, batch.names.length, out, 'fill', i => {
    const path = pathText()
    traceBands(batch, i, path, () => path.parts.push('Z'))
    return path.parts.length === 0 ? '' : `<path d="${path.parts.join('')}"/>`
  })
}

function paintSegments(batch: Segments, out: string[]): void {
  const { x1, y1, x2, y2, width, dash } = batch
  out.push(
    `<g stroke-width="${short(width)}"${dash?.length ? ` stroke-dasharray="${dash.map(short).join(' ')}"` : ''}>`,
  )
  grouped(batch, x1.length, out, 'stroke', i => {
    if (!Number.isFinite(x1[i] + y1[i] + x2[i] + y2[i])) return ''
    const [ax, ay, bx, by] = snapped(x1[i], y1[i], x2[i], y2[i], width, 1)
    return `<path d="M${short(ax)} ${short(ay)}L${short(bx)} ${short(by)}"/>`
  })
  out.push('</g>')
}

function paintImages(batch: Images, out: string[]): void {
  const { x, y, width, height, hrefs, words } = batch
  hrefs.forEach((href, i) => {
    const safe = safePicture(href)
    if (safe === undefined) return
    out.push(
      `<image x="${short(x[i])}" y="${short(y[i])}" width="${short(width[i])}" height="${short(height[i])}" href="${escapeXml(safe)}"${batch.cover ? ' preserveAspectRatio="xMidYMid slice"' : ''} aria-label="${escapeXml(words[i])}"/>`,
    )
  })
}

function paintTexts(batch: Texts, out: string[], measure: Measure | undefined): void {
  const { x, y, texts, size, weight, anchor, turn } = batch
  out.push(
    `<g font-size="${short(size)}"${weight === 400 ? '' : ` font-weight="${weight}"`}${anchor === 'start' ? '' : ` text-anchor="${anchor}"`}${batch.tabular ? ' font-variant="tabular-nums"' : ''}${
      batch.halo
        ? ` stroke="${escapeXml(batch.halo)}" stroke-width="3" stroke-linejoin="round" paint-order="stroke"`
        : ''
    }>`,
  )
  grouped(batch, texts.length, out, 'fill', i => {
    const turned = turn === 0 ? '' : ` transform="rotate(${short(turn)} ${short(x[i])} ${short(y[i])})"`
    const length =
      measure && texts[i].length > 1
        ? ` textLength="${short(measure(batch.tabular ? inFigures(texts[i]) : texts[i], batch))}" lengthAdjust="spacingAndGlyphs"`
        : ''
    const all = batch.whole?.[i]
    const whole = all === undefined ? '' : `<title>${escapeXml(all)}</title>`
    return `<text x="${short(x[i])}" y="${short(y[i])}"${turned}${length}>${whole}${escapeXml(texts[i])}</text>`
  })
  out.push('</g>')
}

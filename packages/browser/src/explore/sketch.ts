import { cornersOf, type Point } from './outline.ts'

/** What lies under a finger, in pixels to either side. */
const FINGER = 22

const SVG = 'http://www.w3.org/2000/svg'

/** The outline of a drag, over the plate; made once something is drawn. */
export class Sketch {
  private readonly above: HTMLElement
  private outline: SVGPolygonElement | undefined

  /** `above`: what the outline lies under. */
  constructor(above: HTMLElement) {
    this.above = above
  }

  /** Undefined takes the outline away. */
  draw(corners: readonly (readonly [number, number])[] | undefined): void {
    if (!corners && !this.outline) return
    this.outline ??= this.made()
    this.outline.setAttribute('points', (corners ?? []).map(([x, y]) => `${x},${y}`).join(' '))
  }

  /** A mark under a finger that rests. */
  mark({ x, y }: Point): void {
    this.draw(
      cornersOf([
        { x: x - FINGER, y: y - FINGER },
        { x: x + FINGER, y: y + FINGER },
      ]),
    )
  }

  private made(): SVGPolygonElement {
    const svg = document.createElementNS(SVG, 'svg')
    svg.setAttribute('aria-hidden', 'true')
    Object.assign(svg.style, {
      position: 'absolute',
      inset: '0',
      width: '100%',
      height: '100%',
      pointerEvents: 'none',
    })
    const outline = document.createElementNS(SVG, 'polygon')
    outline.setAttribute('fill', 'currentColor')
    outline.setAttribute('stroke', 'currentColor')
    outline.setAttribute('fill-opacity', '0.12')
    svg.append(outline)
    this.above.before(svg)
    return outline
  }
}

import type { Figures, Rects, Segments, Texts } from '../scene/scene.ts'

/** Gathers texts of one style into a batch. */
export class TextBuilder {
  private readonly xs: number[] = []
  private readonly ys: number[] = []
  private readonly texts: string[] = []
  private readonly keys: (string | number)[] = []
  private readonly at: number[] = []
  private readonly figures: (Figures | undefined)[] = []
  private readonly wholes: (string | undefined)[] = []
  private readonly colors: string[] = []
  private readonly color: number[] = []
  private readonly id: string
  private readonly style: Pick<Texts, 'size' | 'weight' | 'anchor'> & {
    turn?: number
    along?: Texts['along']
    tabular?: boolean
  }

  constructor(
    id: string,
    style: Pick<Texts, 'size' | 'weight' | 'anchor'> & {
      turn?: number
      along?: Texts['along']
      tabular?: boolean
    },
  ) {
    this.id = id
    this.style = style
  }

  /** `key`: what the text is recognised by; `at`: its value on the scale it belongs to; `figures`: the numbers in it; `whole`: all that it says, where it is shortened. */
  add(
    text: string,
    x: number,
    y: number,
    color: string,
    key: string | number = text,
    at = Number.NaN,
    figures?: Figures,
    whole?: string,
  ): void {
    let index = this.colors.indexOf(color)
    if (index < 0) index = this.colors.push(color) - 1
    this.xs.push(x)
    this.ys.push(y)
    this.texts.push(text)
    this.keys.push(key)
    this.at.push(at)
    this.figures.push(figures)
    this.wholes.push(whole === text ? undefined : whole)
    this.color.push(index)
  }

  build(): Texts[] {
    if (this.texts.length === 0) return []
    const { size, weight, anchor, turn = 0, along, tabular } = this.style
    return [
      {
        kind: 'texts',
        id: this.id,
        part: 'guide',
        clip: false,
        keys: this.keys,
        colors: this.colors,
        color: Uint16Array.from(this.color),
        x: Float32Array.from(this.xs),
        y: Float32Array.from(this.ys),
        texts: this.texts,
        size,
        weight,
        anchor,
        turn,
        ...(tabular ? { tabular } : {}),
        along,
        at: along ? Float64Array.from(this.at) : undefined,
        figures: this.figures.some(Boolean) ? this.figures : undefined,
        whole: this.wholes.some(Boolean) ? this.wholes : undefined,
      },
    ]
  }
}

/** Level or upright lines across the plot, at values of a scale. */
export function segments(
  id: string,
  lines: { x1: number; y1: number; x2: number; y2: number; key: string | number; at?: number }[],
  look: { color: string; width: number; along?: Segments['along']; clip?: boolean; dash?: readonly number[] },
): Segments[] {
  if (lines.length === 0) return []
  return [
    {
      kind: 'segments',
      id,
      part: 'guide',
      clip: look.clip ?? false,
      keys: lines.map(stroke => stroke.key),
      colors: [look.color],
      color: new Uint16Array(lines.length),
      x1: Float32Array.from(lines, stroke => stroke.x1),
      y1: Float32Array.from(lines, stroke => stroke.y1),
      x2: Float32Array.from(lines, stroke => stroke.x2),
      y2: Float32Array.from(lines, stroke => stroke.y2),
      width: look.width,
      dash: look.dash,
      along: look.along,
      at: Float64Array.from(lines, stroke => stroke.at ?? Number.NaN),
    },
  ]
}

/** Plain filled rectangles of a guide. */
export function boxes(
  id: string,
  list: { x: number; y: number; width: number; height: number; color: string; key: string | number }[],
  radius = 0,
): Rects[] {
  if (list.length === 0) return []
  const colors = [...new Set(list.map(rect => rect.color))]
  return [
    {
      kind: 'rects',
      id,
      part: 'guide',
      clip: false,
      keys: list.map(rect => rect.key),
      colors,
      color: Uint16Array.from(list, rect => colors.indexOf(rect.color)),
      x: Float32Array.from(list, rect => rect.x),
      y: Float32Array.from(list, rect => rect.y),
      width: Float32Array.from(list, rect => rect.width),
      height: Float32Array.from(list, rect => rect.height),
      round: new Uint8Array(list.length),
      radius,
    },
  ]
}

import type { Description } from '@dapplo/core'
import { type Drawn, putAt, type SettingPath } from '@dapplo/core/sentence'

/** The description with something set at a place; undefined takes it away, with what is empty then. */
export function setAt<D extends Drawn>(description: D, path: SettingPath, value: unknown): D {
  let out = putAt<unknown>(description, path, value)
  if (value === undefined)
    for (let up = path.slice(0, -1); up.length > 0; up = up.slice(0, -1)) {
      const here = valueAt(out, up)
      if (here === null || typeof here !== 'object' || Array.isArray(here) || Object.keys(here).length > 0)
        break
      out = putAt(out, up, undefined)
    }
  return out as D
}

export function valueAt(description: unknown, path: SettingPath): unknown {
  let here: unknown = description
  for (const key of path) {
    if (here === null || typeof here !== 'object' || !Object.hasOwn(here, key)) return undefined
    here = (here as Record<string | number, unknown>)[key]
  }
  return here
}

/** The drawings of a description as a list. */
export const drawingsOf = ({ draw }: Description): readonly unknown[] => (Array.isArray(draw) ? draw : [draw])

/** What kind a drawing is of; empty for a kind of a developer's own. */
export function kindOf(drawing: unknown): string {
  const kind = typeof drawing === 'string' ? drawing : valueAt(drawing, ['as'])
  return typeof kind === 'string' ? kind : ''
}

export const kindsOf = (description: Description): string[] => drawingsOf(description).map(kindOf)

/** The description with one more drawing, which lies on top. */
export const withDrawing = (description: Description, drawing: object | string): Description =>
  ({ ...description, draw: [...drawingsOf(description), drawing] }) as Description

/** The description without one of its drawings; the only one stays. */
export function withoutDrawing(description: Description, index: number): Description {
  const left = drawingsOf(description).filter((_, i) => i !== index)
  if (left.length === 0) return description
  return { ...description, draw: left.length === 1 ? left[0] : left } as Description
}

/** Which drawing a place is in, where there are several. */
export const drawingIndex = ([first, second]: SettingPath): number | undefined =>
  first === 'draw' && typeof second === 'number' ? second : undefined

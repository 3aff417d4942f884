import type { Scene, Texts } from '@dapplo/core'
// @ts-expect-error A plain module, so that commands run without a build; its types stand here.
import * as boxes from './text-boxes.mjs'

export interface TextBox {
  text: string
  /** The batch that it is of, and its place in it. */
  batch: Texts
  shape: number
  left: number
  right: number
  top: number
  bottom: number
}

/** The box of every text of a scene, in pixels; turned texts are left out. */
export const textBoxes: (scene: Scene) => TextBox[] = boxes.textBoxes

/** Pairs of texts that touch, as `"a" touches "b"`. */
export const touching: (boxes: readonly TextBox[]) => string[] = boxes.touching

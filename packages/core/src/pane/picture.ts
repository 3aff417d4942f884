import type { PositionScale } from '../scale/scale.ts'
import type { Batch, Box, Scene } from '../scene/scene.ts'
import { chartInput, mostOf } from './chart-input.ts'
import { layoutPane, marginOf } from './compose.ts'
import { groundShapes } from './ground.ts'
import type { Composition, PictureInput } from './model.ts'

/** Composes a chart, or the charts of a spread, into one scene. */
export function composePicture(input: PictureInput): Composition {
  const { frame, theme } = input
  const width = Math.max(1, frame.width)
  const height = Math.max(1, frame.height)
  const margin = marginOf(width, height)
  const box: Box = {
    x: margin,
    y: margin,
    width: Math.max(1, width - margin * 2),
    height: Math.max(1, height - margin * 2),
  }
  const words: Batch[] = []
  const panes = input.spread
    ? input.spread.compose(input, input.spread, box, words)
    : [
        layoutPane({
          ...chartInput(input, 0),
          box,
          pane: 0,
          prefix: '',
          beyond: input.beside?.beyond && new Map([['x', input.beside.beyond]]),
        }).draw(input.beside),
      ]
  const scales = new Map<string, PositionScale>()
  panes.forEach((pane, i) => {
    for (const [name, scale] of pane.scales) scales.set((input.spread ? `${i}/` : '') + name, scale)
  })
  const scene: Scene = {
    width,
    height,
    background: frame.background === false ? undefined : theme.background,
    font: theme.font,
    plots: panes.map(pane => pane.plot),
    batches: [
      ...(frame.background === false ? [] : groundShapes(input.background, width, height, theme)),
      ...words,
      ...panes.flatMap(pane => pane.batches),
    ],
    ...input.words,
    scales,
  }
  const aligned = panes.every(({ plot }) => plot.x === panes[0].plot.x)
  const insets = aligned ? mostOf(panes.map(pane => pane.insets)) : undefined
  return { scene, panes, insets, theme, tongue: input.tongue }
}

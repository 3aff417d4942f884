import { paintSvg } from '@dapplo/core/small'
import type { Part } from '../live/model.ts'
import { putOnPaper } from './on-paper.ts'
import { paperScene } from './paper.ts'
import { record } from './record.ts'
import { csvOf, pngOf } from './save.ts'

/** Pictures, films and data of the chart as files, and its drawing for paper. */
export const saving: Part = {
  name: 'saving',
  install({ can, stage, live, view }) {
    can.png = scene => pngOf(scene, stage.surroundings)
    can.svg = scene => paintSvg(scene, { measure: view.frame.value.measure })
    can.paper = () =>
      paintSvg(paperScene(view, live.scene, live.moving || can.playing !== undefined), {
        measure: view.frame.value.measure,
      })
    let offPaper: (() => void) | undefined
    can.print = prints => {
      offPaper?.()
      offPaper = undefined
      if (prints) offPaper = putOnPaper(can.paper!(), can.paperTables?.() ?? [], stage, live.element)
      stage.canvas.style.visibility = prints ? 'hidden' : ''
    }
    can.csv = csvOf
    can.film = async options => {
      const release = stage.holdPainted()
      try {
        return await record(can.playing, stage.canvas, () => live.moving, options)
      } finally {
        release()
      }
    }
    return {}
  },
}

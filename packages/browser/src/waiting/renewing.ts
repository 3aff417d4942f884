import { answeredElsewhere, tablesOf } from '@dapplo/core/internal'
import { DapploError } from '@dapplo/core/small'
import { element } from '../live/elements.ts'
import type { Part } from '../live/model.ts'
import { Sign } from './sign.ts'

/** Milliseconds after which it is said that values are being renewed. */
const PATIENCE = 400

/**
 * Says on a chart whose rows are elsewhere that its values are being renewed, and where they could not be, why, with a way to
 * try again. The old picture stays meanwhile.
 */
export const renewing: Part = {
  name: 'renewing',
  install({ view, stage, options }) {
    const tables = () => tablesOf(view.chart.peek()).filter(answeredElsewhere)
    if (tables().length === 0) return {}
    // It stands on the chart, whose place may have no room under it.
    const place = element('div', '', { position: 'absolute', insetInline: '0', bottom: '0', zIndex: '4' })
    stage.outer.append(place)
    const sign = new Sign(place, () => options)
    let timer: ReturnType<typeof setTimeout> | undefined
    let told = ''
    const fail = (why: string) => {
      if (why === told) return
      told = why
      if (why === '') sign.clear()
      else sign.failed(why, again)
    }
    const again = () => {
      told = ''
      sign.clear()
      Promise.all(tables().map(table => table.refresh?.())).catch(error =>
        fail(error instanceof DapploError ? error.sentence : String(error)),
      )
    }
    return {
      drawn() {
        if (view.waiting) {
          timer ??= setTimeout(() => stage.notice(view.tongue.peek().say('Values are loading.')), PATIENCE)
          return
        }
        if (timer !== undefined) stage.notice('')
        clearTimeout(timer)
        timer = undefined
        const [failure] = view.failures
        fail(failure ? `${failure.message}.` : '')
      },
      remove() {
        clearTimeout(timer)
        place.remove()
      },
    }
  },
}

import type { Part } from '../live/model.ts'
import { Telling } from '../point/telling.ts'
import { Hearing } from './hearing.ts'
import { Keys } from './keys.ts'

/** Reading by keys: arrows from value to value, each of them said; Enter for the rows behind; Escape out. */
export const keyboard: Part = {
  name: 'keyboard',
  install(host) {
    const { can, pointer, stage } = host
    stage.takeKeys()
    const telling = new Telling(host.view)
    const hearing = new Hearing()
    const keys = new Keys(stage.focus, {
      composition: () => host.composition,
      pointAt: place => pointer.pointAt(place),
      more: reading => telling.more(reading),
      say: words => host.say(words),
      select: (reading, adds) => can.select?.(reading, adds),
      open: reading => can.openRows?.(reading),
      zoom: (factor, x, y) => can.zoomBy?.(factor, x, y),
      resetZoom: () => can.setZoom?.({}, true),
      hear: standing => {
        if (!host.options.tones) return false
        void hearing.toggle(host.composition, standing)
        return true
      },
      escape() {
        if (pointer.isPinned) pointer.pin(false)
        else if (can.clearSelection?.()) return true
        else if (can.setZoom && Object.keys(host.state.zoom ?? {}).length > 0) can.setZoom({}, true)
        else return false
        return true
      },
    })
    return {
      drawn: () => keys.refresh(),
      remove: () => {
        hearing.stop()
        keys.remove()
      },
    }
  },
}

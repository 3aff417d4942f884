import { putFoot } from '../live/foot.ts'
import type { Part } from '../live/model.ts'
import { Playing } from './playing.ts'

/** Plays a chart through its periods, with a bar of controls under it. */
export const playback: Part = {
  name: 'playback',
  install(host) {
    const { can, view } = host
    // A chart with periods has controls to play it; one that lost them has none.
    const settle = () => {
      const plays = view.first.resolved.throughMeaning !== undefined
      if (plays === (can.playing !== undefined)) return
      can.playing?.remove()
      can.playing = plays
        ? new Playing(view, {
            state: () => host.state,
            setState: state => {
              host.state = state
            },
            allow: (state, rows) => host.allow('played', { state, rows }),
            say: words => host.say(words),
            smooth: () => host.glides,
          })
        : undefined
      putFoot(host.stage, 'play', can.playing?.bar.element)
      host.refresh()
    }
    return {
      settle,
      drawn(composition) {
        settle()
        can.playing?.bar.dress(composition)
      },
      remove: () => can.playing?.remove(),
    }
  },
}

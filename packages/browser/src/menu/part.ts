import type { Sentence } from '@dapplo/core/small'
import { putFoot } from '../live/foot.ts'
import type { Part } from '../live/model.ts'
import { Menu } from './menu.ts'
import { menuItems } from './menu-items.ts'

/** A button under the chart with what can be done with the chart, where `mount` is told `menu: true`. */
export const menu: Part = {
  name: 'menu',
  install(host) {
    if (!host.options.menu) return {}
    const say = (sentence: Sentence, action?: Sentence) => {
      const { tongue } = host.view
      host.say(tongue.value.say(sentence, action && { action: tongue.value.say(action) }))
    }
    const list = new Menu(menuItems(host, say), action => say("{action} isn't available here.", action))
    return {
      settle: () => putFoot(host.stage, 'menu', list.element),
      drawn: composition => list.dress(composition),
      remove: () => list.remove(),
    }
  },
}

import type { Description } from '@dapplo/core/small'
import type { Part } from '../live/model.ts'
import { Controls, type Settings } from './controls.ts'
import { readSetting, writeSetting } from './setting.ts'

/** Menus, segments, sliders and boxes above the chart, as its description asks for. */
export const controls: Part = {
  name: 'controls',
  install(host) {
    let shown: Controls | undefined
    const settings: Settings = {
      read: path => readSetting(host, path),
      write(path, value) {
        writeSetting(host, path, value)
        // What could not be set is not shown as if it were.
        shown?.update()
      },
    }
    const settle = () => {
      const list = (host.view.chart.value.description as Description).controls ?? []
      const tongue = host.view.tongue.value
      if (shown?.isFor(list, tongue) || (!shown && list.length === 0)) return
      shown = list.length === 0 ? undefined : new Controls(list, tongue, settings)
      host.stage.putControls(shown?.element)
      host.refresh()
    }
    return {
      settle,
      drawn(composition) {
        settle()
        shown?.update()
        shown?.dress(composition)
      },
    }
  },
}

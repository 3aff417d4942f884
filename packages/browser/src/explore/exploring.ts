import { hotspots, paintDense, readAt } from '@dapplo/core/internal'
import type { Part } from '../live/model.ts'
import { Gestures } from './gestures.ts'
import { Selecting } from './selecting.ts'
import { Spots } from './spots.ts'
import { directionsOf, type Zoom } from './zoom.ts'

/** Zooming and selecting by wheel, drag, pinch and click; entries of legends that preview, hide and isolate. */
export const exploring: Part = {
  name: 'exploring',
  install(host) {
    const { can, view, stage } = host
    stage.surroundings.dense = paintDense
    const selecting = new Selecting(view, {
      shown: () => host.composition,
      setState: state => {
        host.jump()
        host.state = state
      },
      allow: (what, details) => host.allow(what, details),
      say: words => host.say(words),
    })
    const setZoom = (zoom: Zoom, gently: boolean) => {
      if (JSON.stringify(zoom) === JSON.stringify(host.state.zoom ?? {})) return
      const { zoom: _, ...rest } = host.state
      const state = Object.keys(zoom).length > 0 ? { ...rest, zoom } : rest
      if (!host.allow('zoomed', { state })) return
      if (!gently) host.jump()
      host.state = state
    }
    const gestures = new Gestures(stage, {
      composition: () => host.composition,
      directions: () => directionsOf(view.first.description.zoom),
      gestures: () => selecting.gestures,
      zoom: () => host.state.zoom ?? {},
      setZoom,
      clicked: (place, adds) => host.clicked(place, adds),
      doubleClicked: ({ x, y }) => host.allow('doubleClicked', { reading: readAt(host.composition, x, y) }),
      outlined: drag => (drag ? selecting.outline(drag) : selecting.breakOff()),
      rested: () => host.pointer.pin(true),
      dragging: drags => host.pointer.pause(drags),
    })
    const selects = () => selecting.gestures.length > 0
    const spots = new Spots(stage.root, {
      selects,
      preview: key => {
        host.jump()
        view.preview.value = key
      },
      toggle: (key, alone) => selecting.toggle(key, alone),
      leaf: shown => {
        // Forms and dashes have legends of their own, in which there are never many.
        const all = host.composition.panes.flatMap(({ bound }) => bound.legend)
        const colors = new Set(all.filter(({ by = 'color' }) => by === 'color').map(({ key }) => key))
        const next = view.listedFrom.value + shown.filter(key => colors.has(key)).length
        host.jump()
        // After the last come the first again.
        view.listedFrom.value = next < colors.size ? next : 0
      },
      selectEntry: (key, adds) => selecting.entry(key, adds),
      selectPlace: (pane, scale, value, adds) => selecting.place(pane, scale, value, adds),
    })
    // Wherever in the chart the focus is, such as on an entry of its legend.
    const clear = (event: KeyboardEvent) => {
      if (event.key === 'Escape' && !event.defaultPrevented && selecting.clear()) event.preventDefault()
    }
    stage.root.addEventListener('keydown', clear)
    can.setZoom = setZoom
    can.zoomBy = (factor, x, y) => gestures.byKey(factor, x, y)
    can.select = (reading, adds) => selects() && selecting.reading(reading, adds)
    can.clearSelection = () => selecting.clear()
    can.click = (place, adds) => {
      if (selecting.gestures.includes('click')) selecting.click(place, adds)
      else if (selects()) selecting.clear()
      else return false
      return true
    }
    return {
      drawn(composition) {
        gestures.update(composition)
        spots.show(hotspots(composition, view.frame.value.measure), composition.tongue)
      },
      remove() {
        stage.root.removeEventListener('keydown', clear)
        gestures.remove()
        spots.remove()
      },
    }
  },
}

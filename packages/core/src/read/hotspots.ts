import { unitOf } from '../bind/naming.ts'
import { textBox } from '../guide/label-room.ts'
import type { Composition } from '../pane/model.ts'
import { momentText } from '../scale/time-format.ts'
import type { Box, Texts } from '../scene/scene.ts'
import type { Measure } from '../theme/text-width.ts'

/** A word of the picture that a person can act on. */
export interface Hotspot {
  /** `legend`: an entry that names series; `more`: what says how many others there are; `label`: a category's or bucket's name at an axis. */
  kind: 'legend' | 'more' | 'label'
  /** Of a legend: the key of its entry. Of a label: the scale's name, and the value. */
  key: string
  scale: string | undefined
  value: number
  /** What it says, also where the picture shortens it. */
  name: string
  /** Whether the picture shortens it. */
  shortened: boolean
  pane: number
  hidden: boolean
  /** In pixels, with room around the word. */
  box: Box
  /** Degrees by which the word and its box are turned, and around which point. */
  turn?: { by: number; x: number; y: number }
}

/** Room around a word that belongs to it, in pixels. */
const AROUND = { x: 4, y: 4 }

/** The words of a picture that answer to a person: entries of legends, and names at the axes. */
export function hotspots(composition: Composition, measure: Measure): Hotspot[] {
  const out: Hotspot[] = []
  const entries = new Map(
    composition.panes.flatMap(({ bound }) => bound.legend).map(entry => [entry.key, entry]),
  )
  // A legend of all panes stands with none of them.
  const apart = composition.scene.batches.filter(({ id }) => /^legend/.test(id))
  composition.panes.forEach((pane, i) => {
    for (const batch of i === 0 && pane.prefix !== '' ? [...pane.batches, ...apart] : pane.batches) {
      if (batch.kind !== 'texts') continue
      const id = batch.id.startsWith(pane.prefix) ? batch.id.slice(pane.prefix.length) : batch.id
      if (/^(legend|ends)(\/\w+)?\/names$/.test(id)) {
        batch.texts.forEach((name, t) => {
          const entry = entries.get(String(batch.keys[t]))
          const box = boxOf(batch, t, measure)
          if (!entry) {
            if (batch.keys[t] === 'rest')
              out.push({
                kind: 'more',
                key: 'rest',
                scale: undefined,
                value: Number.NaN,
                name,
                pane: i,
                hidden: false,
                shortened: false,
                box,
              })
            return
          }
          // The run of stroke under a name, and the disc before it, belong to it too.
          if (entry.swatch === 'disc') Object.assign(box, { x: box.x - 12, width: box.width + 12 })
          const { key, hidden } = entry
          out.push({
            kind: 'legend',
            key,
            scale: undefined,
            value: Number.NaN,
            name: batch.whole?.[t] ?? name,
            shortened: batch.whole?.[t] !== undefined,
            pane: i,
            hidden,
            box: { ...box, height: box.height + 3 },
          })
        })
      }
      const axis = /^axis (.+)\/labels$/.exec(id)?.[1]
      if (axis === undefined) continue
      const use = pane.bound.scales.get(axis)?.uses[0]
      if (!use || (use.positions.from === undefined && pane.scales.get(axis)?.kind.name !== 'category'))
        continue
      if (use.positions.spans) continue
      batch.texts.forEach((name, t) => {
        const value = batch.at?.[t] ?? Number.NaN
        if (Number.isNaN(value)) return
        const key = `${axis} ${value}`
        // A name in several lines is one word.
        const known = out.find(spot => spot.kind === 'label' && spot.pane === i && spot.key === key)
        const box = boxOf(batch, t, measure)
        // Of a time all of it is said: there is a first quarter in every year.
        const { values } = use
        const whole =
          values.cells.type === 'time'
            ? momentText(value, unitOf(values), composition.tongue.locale, values.zone)
            : batch.whole?.[t]
        if (known)
          Object.assign(known, { name: whole ?? `${known.name} ${name}`, box: around(known.box, box) })
        else
          out.push({
            kind: 'label',
            key,
            scale: axis,
            value,
            name: whole ?? name,
            shortened: batch.whole?.[t] !== undefined,
            pane: i,
            hidden: false,
            box,
            ...(batch.turn === 0 ? {} : { turn: { by: batch.turn, x: batch.x[t], y: batch.y[t] } }),
          })
      })
    }
  })
  return out
}

function boxOf(batch: Texts, i: number, measure: Measure): Box {
  const { x, y, width, height } = textBox(
    measure(batch.texts[i], batch),
    batch,
    batch.x[i],
    batch.y[i],
    batch.anchor,
  )
  return { x: x - AROUND.x, y: y - AROUND.y, width: width + AROUND.x * 2, height: height + AROUND.y * 2 }
}

function around(a: Box, b: Box): Box {
  const x = Math.min(a.x, b.x)
  const y = Math.min(a.y, b.y)
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  }
}

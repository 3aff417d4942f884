// What an eye would find wrong in a picture, found by reading its scene: words that touch or are cut, marks that are
// sliced or look alike, ticks that are uneven, labels of one drawing in two forms or over the lines of others.
import { differenceCiede2000, wcagContrast } from 'culori'
import { textBoxes, touching } from '../support/text-boxes.mjs'

/** Differences of colour (CIEDE2000) under which two things look alike. */
const ALIKE = 9
const difference = differenceCiede2000()

export const faultsOf = scene => [
  ...wordFaults(scene),
  ...alikeFaults(scene),
  ...slicedFaults(scene),
  ...tickFaults(scene),
  ...formFaults(scene),
  ...crossedFaults(scene),
]

const texts = scene => scene.batches.filter(({ kind }) => kind === 'texts')

function wordFaults(scene) {
  const all = textBoxes(scene)
  const cut = all
    .filter(
      b => b.left < -0.5 || b.top < -0.5 || b.right > scene.width + 0.5 || b.bottom > scene.height + 0.5,
    )
    .map(({ text }) => `"${text}" is cut at the edge of the picture`)
  const faint = all
    .filter(({ batch, shape }) => {
      const ground =
        batch.halo ??
        (batch.part === 'guide' && !/label|shares/.test(batch.id) ? scene.background : undefined)
      return ground && (wcagContrast(batch.colors[batch.color[shape]], ground) ?? 21) < 4.45
    })
    .map(({ text }) => `"${text}" is faint`)
  return [...cut, ...touching(all), ...faint]
}

/** Shapes of data by what tells them apart: colour, and dash, form or pattern. */
function alikeFaults(scene) {
  const out = []
  for (const batch of scene.batches) {
    if (batch.part !== 'data' || batch.alongColor || batch.kind === 'pixels' || /heatmap/.test(batch.id))
      continue
    const looks = new Map()
    const count = batch.names?.length ?? batch.color.length
    for (let i = 0; i < count && looks.size < 30; i++) {
      const color = batch.colors[batch.color[i]]
      const more = JSON.stringify([batch.dash?.[i], batch.form?.[i], batch.pattern?.[i]])
      looks.set(`${color} ${more}`, { color, more })
    }
    const list = [...looks.values()]
    for (const [i, a] of list.entries())
      for (const b of list.slice(0, i)) {
        if (a.more !== b.more) continue
        const apart = difference(a.color, b.color)
        if (apart < ALIKE) out.push(`${a.color} and ${b.color} look alike (${apart.toFixed(1)})`)
      }
  }
  return out
}

/** Points and bars that the edge of the plot cuts. */
function slicedFaults(scene) {
  return scene.batches.flatMap(batch => {
    if (batch.kind !== 'discs' || batch.part !== 'data' || !batch.clip) return []
    const plot = scene.plots[batch.pane ?? 0]
    return [...batch.x.keys()].flatMap(i => {
      const [x, y, r] = [batch.x[i], batch.y[i], batch.radius[i]]
      const beyond = Math.max(
        plot.x - x + r,
        x + r - plot.x - plot.width,
        plot.y - y + r,
        y + r - plot.y - plot.height,
      )
      const centred = x >= plot.x && x <= plot.x + plot.width && y >= plot.y && y <= plot.y + plot.height
      return centred && beyond > 4.6 ? [`a point is sliced by ${beyond.toFixed(1)} px`] : []
    })
  })
}

/** Ticks of a scale of numbers stand in even steps. */
function tickFaults(scene) {
  return texts(scene).flatMap(batch => {
    const axis = /^axis (\S+)\/labels/.exec(batch.id)?.[1]
    const scale = axis && scene.scales.get(axis)
    if (scale?.kind.name !== 'linear' || !batch.at || batch.texts.length < 3) return []
    const steps = [...batch.at]
      .sort((a, b) => a - b)
      .map((at, i, all) => at - all[i - 1])
      .slice(1)
    const even = steps.every(step => Math.abs(step - steps[0]) < Math.abs(steps[0]) * 0.02)
    return even ? [] : [`ticks of ${axis} are uneven: ${batch.texts.join(' ')}`]
  })
}

/** Labels of one drawing have one number of decimals, and one of short and long forms. */
function formFaults(scene) {
  const byDrawing = new Map()
  for (const batch of texts(scene)) {
    if (!batch.of || !batch.figures) continue
    byDrawing.set(batch.of, [...(byDrawing.get(batch.of) ?? []), ...batch.texts])
  }
  return [...byDrawing].flatMap(([of, words]) => {
    const forms = new Set(
      words
        .filter(word => /\d/.test(word) && !/^0\D*$/.test(word))
        .map(
          word =>
            `${(/[.,٫](\d{1,2}|\d{4,})(?!\d)/.exec(word)?.[1] ?? '').length} decimals ${/[KMBTE×]/.test(word) ? 'short' : 'long'}`,
        ),
    )
    return forms.size > 1
      ? [`labels of ${of} have ${forms.size} forms: ${words.slice(0, 5).join(' | ')}`]
      : []
  })
}

/** Names and values at lines and points that lie over the line of another. */
function crossedFaults(scene) {
  const lines = scene.batches.filter(
    ({ kind, part, smooth }) => kind === 'lines' && part === 'data' && !smooth,
  )
  return textBoxes(scene)
    .filter(({ batch }) => /labels (start|middle|end)/.test(batch.id) && !batch.id.startsWith('axis'))
    .flatMap(box => lines.filter(line => crosses(line, box)).map(() => `"${box.text}" lies over a line`))
}

/** Whether a line runs through the middle of a box. */
function crosses(batch, { left, right, top, bottom }) {
  for (let line = 0; line < batch.names.length; line++)
    for (let i = batch.starts[line]; i < batch.starts[line + 1] - 1; i++) {
      const [x1, x2, y1, y2] = [batch.x[i], batch.x[i + 1], batch.y[i], batch.y[i + 1]]
      if (!(x2 > left && x1 < right)) continue
      for (let share = 0; share <= 1; share += 0.05) {
        const [x, y] = [x1 + (x2 - x1) * share, y1 + (y2 - y1) * share]
        if (x > left + 1 && x < right - 1 && y > top + 2 && y < bottom - 2) return true
      }
    }
  return false
}

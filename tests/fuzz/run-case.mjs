// Draws one random case through everything that reads a chart, and says what is wrong with what comes back.

/** The library, with what it is made with. */
export const loadCore = async () => ({
  ...(await import('@dapplo/core')),
  ...(await import('@dapplo/core/internal')),
  ...(await import('@dapplo/core/internal-files')),
})

/** Words that no picture contains unless something was written that is none. */
const NONSENSE = /\bNaN\b|\bInfinity\b|\bundefined\b|\[object /

/**
 * Undefined when all is well: a picture of finite numbers, or one typed sentence. `core`: the library. `work` is told the
 * shapes that were drawn, so that cost can be counted rather than timed.
 */
export function runCase(core, { data, file, description, state, frame }, work = () => undefined) {
  const measure = (text, font) => text.length * font.size * 0.55
  try {
    const chart = file
      ? core.openChartData(file, core.builtinKinds, () => 'a,b,t,g\n1,2,2024-01-01,x\n3,4,2024-02-01,y\n')
          .chart
      : core.chart(core.table(data.columns, data.options), description)
    const view = new core.View(chart, state, { ...frame, measure })
    const scene = view.scene
    const problem = faultIn(scene) ?? wrongFinding(view.findings)
    if (problem) return problem
    work(scene.batches.reduce((sum, batch) => sum + (batch.x?.length ?? batch.x1?.length ?? 0), 0))
    const composition = view.composition.value
    for (const [x, y] of [
      [0.5, 0.5],
      [0.05, 0.95],
      [0.9, 0.1],
    ]) {
      const reading = core.readAt(composition, scene.width * x, scene.height * y)
      const words = reading && JSON.stringify(textsOf(reading))
      if (words && NONSENSE.test(words)) return `a reading says ${NONSENSE.exec(words)[0]}`
    }
    core.dataTables(composition, 50)
    core.rowsInBox(composition, view.root, { x: 0, y: 0, width: scene.width, height: scene.height })
    core.hotspots(composition, measure)
    const svg = core.paintSvg(scene)
    const attribute = /="[^"]*(?:NaN|Infinity|undefined)[^"]*"/.exec(
      svg.replace(/>[^<]*</g, '><').replace(/aria-label="[^"]*"/g, ''),
    )
    if (attribute) return `the SVG has ${attribute[0].slice(0, 80)}`
    if (
      /url\((?!#)|far\.example/.test(svg.replace(/>[^<]*</g, '><').replace(/(aria-label|href)="[^"]*"/g, ''))
    )
      return 'the SVG has an address'
    const other = new core.View(chart, {}, { ...frame, measure }).scene
    for (const at of [0.3, 0.7]) {
      const moving = faultIn(core.between(scene, other)(at, at))
      if (moving) return `in motion ${moving}`
    }
    if (chart instanceof core.Chart && chart.resolved.throughMeaning) {
      const playback = new core.Playback(chart, state, { ...frame, measure })
      for (const at of [0, 0.5, playback.length]) {
        const played = playback.sceneAt(at)
        const fault = played && faultIn(played)
        if (fault) return `in playback ${fault}`
      }
    }
  } catch (error) {
    if (!(error instanceof core.DapploError))
      return `an untyped error: ${String(error?.stack ?? error).slice(0, 400)}`
    if (error.message.length < 8 || /undefined|\[object|NaN stands/.test(error.message))
      return `a poor sentence: ${error.sentence}`
  }
  return undefined
}

const textsOf = reading => [
  reading.heading,
  ...(reading.rows ?? []).map(row => [row.name, row.text, row.value]),
]

function wrongFinding(findings) {
  for (const finding of findings) {
    const { code, message, remedy } = finding
    if (!code || !message || !remedy || /\[object |undefined/.test(message))
      return `a poor finding: ${JSON.stringify(finding)}`
  }
  return undefined
}

const LENGTHS = [
  'x',
  'y',
  'x1',
  'x2',
  'y1',
  'y2',
  'width',
  'height',
  'radius',
  'size',
  'opacity',
  'alpha',
  'inner',
  'outer',
  'from',
  'to',
  'start',
  'end',
]

/** What of a scene no painter could draw. Points without a place are `NaN` in both directions, which painters pass over. */
function faultIn(scene) {
  if (!Number.isFinite(scene.width + scene.height)) return 'the scene has no size'
  if (NONSENSE.test(`${scene.title} ${scene.description}`))
    return `the summary says: ${scene.description.slice(0, 160)}`
  for (const batch of scene.batches) {
    for (const key of LENGTHS) {
      const values = batch[key]
      if (
        typeof values === 'number' ? !Number.isFinite(values) : values?.length && !finite(values, batch, key)
      )
        return `${batch.id}.${key} is not finite`
    }
    if (batch.kind === 'texts') {
      const odd = batch.texts.find(text => typeof text !== 'string' || NONSENSE.test(text))
      if (odd !== undefined) return `${batch.id} says ${String(odd).slice(0, 80)}`
    }
  }
  return undefined
}

/** What has no value has no place, which painters pass over; anything else must have one. */
function finite(values, batch, key) {
  for (let i = 0; i < values.length; i++) {
    if (Number.isFinite(values[i])) continue
    const passedOver =
      Number.isNaN(values[i]) &&
      batch.part === 'data' &&
      ['x', 'y', 'width', 'height', 'x1', 'x2', 'y1', 'y2'].includes(key)
    if (!passedOver) return false
  }
  return true
}

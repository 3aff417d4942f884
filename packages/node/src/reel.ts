import { Chart, DapploError, type Frame, type Scene, Spread } from '@dapplo/core'
import { appear, between, Playback, paced, timingOf, View, withCommon } from '@dapplo/core/internal'
import { withPictures } from './picture-files.ts'

/**
 * A step of a film of updates: a chart that the one before turns into, or a function that changes what is shown, such as
 * by appending rows to its table.
 */
export type FilmStep = Chart | Spread | (() => void)

/** The pictures of a film in their order. */
export interface Reel {
  count: number
  /** Made one after the other, since steps change what the later ones show. */
  scenes(): Iterable<Scene>
}

export interface ReelOptions {
  /** Pictures a second. */
  rate: number
  /** Milliseconds that each step of a film of updates stays. */
  hold: number
  /** Milliseconds that the last picture stays. */
  rest: number
  /** Where pictures named by a relative path lie. */
  folder: string
}

/** Milliseconds of a first appearance. */
const APPEARING = 800
/** Milliseconds of each period, unless the description says. */
const EACH = 900

/** What a film shows: the updates that are given, else a chart's periods, else how it appears. */
export function reelOf(
  shown: Chart | Spread | readonly FilmStep[],
  frame: Frame,
  options: ReelOptions,
): Reel {
  if (isSteps(shown)) return updates(shown, frame, options)
  return !(shown instanceof Spread) && shown.resolved.throughMeaning
    ? periods(shown, frame, options)
    : appearing(shown, frame, options)
}

/** Whether a film is of updates. */
export const isSteps = (shown: Chart | Spread | readonly FilmStep[]): shown is readonly FilmStep[] =>
  Array.isArray(shown)

const picturesIn = (milliseconds: number, rate: number) => Math.round((milliseconds / 1000) * rate)

function periods(chart: Chart, frame: Frame, { rate, rest }: ReelOptions): Reel {
  const playback = new Playback(chart, {}, frame)
  const each = chart.resolved.description.scales?.through?.each ?? EACH
  const moving = Math.max(1, picturesIn(playback.length * each, rate))
  const still = picturesIn(rest, rate)
  return {
    count: moving + 1 + still,
    *scenes() {
      for (let i = 0; i <= moving + still; i++)
        yield playback.sceneAt((Math.min(i, moving) / moving) * playback.length) ??
          new View(chart, {}, frame).scene
    },
  }
}

function appearing(chart: Chart | Spread, frame: Frame, { rate, rest, folder }: ReelOptions): Reel {
  const scene = withPictures(new View(chart, {}, frame).scene, folder)
  const motion = appear(scene)
  const moving = Math.max(1, picturesIn(APPEARING, rate))
  const still = picturesIn(rest, rate)
  return {
    count: moving + 1 + still,
    *scenes() {
      for (let i = 0; i <= moving + still; i++) {
        const time = Math.min(1, i / moving)
        yield motion(1 - (1 - time) ** 3, time)
      }
    },
  }
}

/** Each step glides as it would on a page, in its chart's own time. */
function updates(steps: readonly FilmStep[], frame: Frame, { rate, hold, rest, folder }: ReelOptions): Reel {
  const isChart = (step: FilmStep): step is Chart | Spread => step instanceof Chart || step instanceof Spread
  const first = steps[0]
  if (!first || !isChart(first))
    throw new DapploError(
      'bad-option',
      'A film of updates has no chart to begin with',
      'steps[0]',
      'Put the chart that is shown first at the head of the list.',
    )
  const timingAt = (chart: Chart | Spread) => {
    const { description } = chart instanceof Spread ? chart.charts[0] : chart
    return timingOf(description.motion ?? withCommon(frame.house)?.motion)
  }
  const staying = (step: number) => Math.max(1, picturesIn(step === steps.length - 1 ? rest : hold, rate))
  let shown: Chart | Spread = first
  // How long a change takes does not depend on what changes.
  const changes = steps.slice(1).map(step => {
    if (isChart(step)) shown = step
    const timing = timingAt(shown)
    const total = (timing && paced(() => ({}) as Scene, timing)?.total) ?? 0
    return { step, timing, moving: picturesIn(total, rate) }
  })
  return {
    count: changes.reduce((sum, { moving }, i) => sum + moving + staying(i + 1), staying(0)),
    *scenes() {
      const view = new View(first, {}, frame)
      const sceneNow = () => withPictures(view.scene, folder)
      let scene = sceneNow()
      const stay = function* (step: number) {
        for (let i = 0; i < staying(step); i++) yield scene
      }
      yield* stay(0)
      for (const [i, { step, timing, moving }] of changes.entries()) {
        if (isChart(step)) view.chart.value = step
        else step()
        const before = scene
        scene = sceneNow()
        const pace = timing && paced(between(before, scene), timing)
        for (let picture = 0; picture < moving; picture++)
          yield pace!.at(((picture + 1) / (moving + 1)) * pace!.total)
        yield* stay(i + 1)
      }
    },
  }
}

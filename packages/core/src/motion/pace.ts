import type { Description } from '../describe/description.ts'
import type { Scene } from '../scene/scene.ts'
import type { Between } from './between.ts'
import type { Progress } from './blend.ts'
import { readEasing } from './easing.ts'
import { type Spring, spring } from './spring.ts'

/** How a change runs. */
export interface Timing {
  /** Milliseconds. */
  duration: number
  delay: number
  easing: string
  /** Instead of duration and easing. */
  spring?: true | { stiffness?: number; damping?: number }
  /** Milliseconds from the start of the first shape to that of the last. */
  stagger?: number
}

/** How a chart moves, with the defaults; undefined where it does not. */
export function timingOf(motion: Description['motion']): Timing | undefined {
  if (motion === false) return undefined
  return {
    duration: motion?.duration ?? 400,
    delay: motion?.delay ?? 0,
    easing: motion?.easing ?? 'ease-in-out',
    spring: motion?.spring,
    stagger: motion?.stagger,
  }
}

/** A motion on a clock. */
export interface Paced {
  /** Milliseconds until it rests, without the delay. */
  total: number
  /** The picture after so many milliseconds, not of the delay. */
  at(passed: number): Scene
  /** How far each shape is by then. */
  share(passed: number): Progress
  spring: Spring | undefined
}

/** Runs a motion by a timing; undefined where that leaves no time for it. */
export function paced(motion: Between, timing: Timing): Paced | undefined {
  const { easing, stagger = 0 } = timing
  const pull = timing.spring === undefined ? undefined : spring(timing.spring)
  const duration = pull?.duration ?? timing.duration
  if (!(duration > 0)) return undefined
  const total = duration + stagger
  const ease = pull ? undefined : readEasing(easing)
  const progress = (passed: number) => {
    const time = Math.max(0, Math.min(duration, passed))
    return pull ? pull.progress(time) : ease!(time / duration)
  }
  const each = (passed: number): Progress | undefined =>
    stagger > 0 ? (i, count) => progress(passed - (stagger * i) / Math.max(1, count - 1)) : undefined
  return {
    total,
    spring: pull,
    at: passed => motion(progress(passed), Math.min(0.9999, passed / total), each(passed)),
    share: passed => each(passed) ?? (() => progress(passed)),
  }
}

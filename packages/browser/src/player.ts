import {
  appear,
  type Between,
  between,
  carrying,
  readEasing,
  type Scene,
  type Spring,
  spring,
} from '@dapplo/core/small'

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

/** First appearances take a little longer than changes: there is more to take in. */
const APPEARING = 1.25
/** Milliseconds over which the speed of shapes on their way is taken. */
const AHEAD = 8

/** Plays motion on the page's clock: at most one picture for each of its frames, by the time that has passed. */
export class Player {
  /** What is on screen, or will be with the next frame. */
  scene!: Scene
  private readonly paint: (scene: Scene) => void
  private readonly before: () => void
  private frame = 0
  private aim: Scene | undefined
  /** The picture of the present motion at a time of the clock. */
  private at: ((now: number) => Scene) | undefined
  private ends = 0
  /** The time of the clock for which the picture on screen was made. */
  private shownAt = 0
  private painted: Scene | undefined

  /** `before`: called at the start of each frame, when what is shown may still change. */
  constructor(paint: (scene: Scene) => void, before: () => void) {
    this.paint = paint
    this.before = before
  }

  /** The scene that is on its way, or has arrived. */
  get goal(): Scene {
    return this.aim ?? this.scene
  }

  get moving(): boolean {
    return this.aim !== undefined
  }

  /** Asks for a frame. */
  wake(): void {
    this.frame ||= requestAnimationFrame(this.tick)
  }

  /** The first picture, which is painted at once. */
  appear(scene: Scene, timing: Timing | undefined): void {
    if (timing) this.play(appear(scene), scene, { ...timing, duration: timing.duration * APPEARING })
    else this.scene = scene
    this.put()
  }

  /** Moves to a scene from whatever is on screen now, also in mid-motion. */
  glide(scene: Scene, timing: Timing): void {
    this.play(between(this.scene, scene), scene, timing)
  }

  jump(scene: Scene): void {
    this.rest()
    this.scene = scene
    this.wake()
  }

  stop(): void {
    cancelAnimationFrame(this.frame)
    this.frame = 0
    this.rest()
  }

  private rest(): void {
    this.aim = undefined
    this.at = undefined
  }

  private put(): void {
    // Pictures of a motion share their arrays: the same scene can be another picture.
    if (this.scene === this.painted && !this.at) return
    this.painted = this.scene
    this.paint(this.scene)
  }

  private readonly tick = (now: number) => {
    this.frame = 0
    this.before()
    if (this.at) {
      this.scene = this.at(now)
      this.shownAt = now
      if (now >= this.ends) this.rest()
      else this.wake()
    }
    this.put()
  }

  private play(motion: Between, goal: Scene, timing: Timing): void {
    const now = performance.now()
    // With a spring, shapes in mid-motion go on with the speed they have.
    const carry = timing.spring !== undefined && this.at ? carrying(this.at, this.shownAt, AHEAD) : undefined
    const pull = timing.spring === undefined ? undefined : spring(timing.spring)
    const duration = pull?.duration ?? timing.duration
    if (!(duration > 0)) return this.jump(goal)
    const start = now + timing.delay
    const total = duration + (timing.stagger ?? 0)
    const pictures = picturesOf(motion, timing, duration, total, pull)
    this.at = time => {
      const passed = Math.max(0, time - start)
      if (passed >= total) return goal
      const scene = pictures(passed)
      return carry && pull ? carry(scene, pull.carry(passed)) : scene
    }
    this.ends = start + total
    this.aim = goal
    this.shownAt = now
    this.scene = this.at(now)
    this.wake()
  }
}

/** The pictures of a motion by the milliseconds that have passed. */
function picturesOf(
  motion: Between,
  { easing, stagger = 0 }: Timing,
  duration: number,
  total: number,
  pull: Spring | undefined,
): (passed: number) => Scene {
  const ease = pull ? undefined : readEasing(easing)
  const progress = (passed: number) => {
    const time = Math.max(0, Math.min(duration, passed))
    return pull ? pull.progress(time) : ease!(time / duration)
  }
  return passed => {
    const each =
      stagger > 0
        ? (i: number, count: number) => progress(passed - (stagger * i) / Math.max(1, count - 1))
        : undefined
    return motion(progress(passed), Math.min(0.9999, passed / total), each)
  }
}

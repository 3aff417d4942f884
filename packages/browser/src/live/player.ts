import type { Between, Progress, Timing } from '@dapplo/core/internal'
import type { Scene } from '@dapplo/core/small'
import type { Moves } from './model.ts'

/** First appearances take a little longer than changes: there is more to take in. */
const APPEARING = 1.25
/** Milliseconds between changes below which motion gives way. */
const HURRY = 120
/** So many interruptions in a row are news that keep coming. */
const PATIENT = 2
/** Milliseconds over which the speed of shapes on their way is taken. */
const AHEAD = 8

/** Plays motion on the page's clock: at most one picture for each of its frames, by the time that has passed. */
export class Player {
  /** What is on screen, or will be with the next frame. */
  scene!: Scene
  private readonly paint: (scene: Scene) => void
  private readonly before: () => void
  private readonly moves: Moves | undefined
  private frame = 0
  private aim: Scene | undefined
  /** The picture of the present motion at a time of the clock. */
  private at: ((now: number) => Scene) | undefined
  private shares: ((now: number) => Progress) | undefined
  private ends = 0
  private changedAt = 0
  /** How many times in a row a glide was interrupted by the next. */
  private interruptions = 0
  /** The time of the clock for which the picture on screen was made. */
  private shownAt = 0
  private painted: Scene | undefined

  /** `before`: called at the start of each frame, when what is shown may still change. Without `moves` nothing glides. */
  constructor(moves: Moves | undefined, paint: (scene: Scene) => void, before: () => void) {
    this.moves = moves
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

  /** How far each shape of the picture on screen is on its way from one picture to another; undefined where none is. */
  get share(): Progress | undefined {
    return this.shares?.(this.shownAt)
  }

  /** Asks for a frame. */
  wake(): void {
    this.frame ||= requestAnimationFrame(this.tick)
  }

  /** The first picture, which is painted at once. */
  appear(scene: Scene, timing: Timing | undefined): void {
    const { moves } = this
    if (timing && moves)
      this.play(moves, moves.appear(scene), scene, { ...timing, duration: timing.duration * APPEARING })
    else this.scene = scene
    this.put()
  }

  /** Goes to another scene: by a timing, from whatever is on screen now, also in mid-motion; or at once. */
  go(scene: Scene, timing: Timing | undefined): void {
    const { moves } = this
    const now = performance.now()
    const since = now - this.changedAt
    this.changedAt = now
    this.interruptions = this.moving ? this.interruptions + 1 : 0
    // News that come faster than they can be shown are not glided to, or the picture would never catch up.
    const hurried = this.moving && since < HURRY
    if (timing && moves && !hurried)
      this.shares = this.play(moves, moves.between(this.scene, scene), scene, this.inTime(timing, since))
    else this.jump(scene)
  }

  stop(): void {
    cancelAnimationFrame(this.frame)
    this.frame = 0
    this.rest()
  }

  /** News that keep coming before a glide has ended are glided to within the time from one to the next. */
  private inTime(timing: Timing, since: number): Timing {
    const total = timing.delay + timing.duration + (timing.stagger ?? 0)
    if (this.interruptions < PATIENT || timing.spring !== undefined || since >= total) return timing
    const share = since / total
    return {
      ...timing,
      delay: timing.delay * share,
      duration: timing.duration * share,
      stagger: timing.stagger && timing.stagger * share,
    }
  }

  private jump(scene: Scene): void {
    this.rest()
    this.scene = scene
    this.wake()
  }

  private rest(): void {
    this.aim = undefined
    this.at = undefined
    this.shares = undefined
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

  /** Starts a motion; returns how far its shapes are, where they go all by its pace. */
  private play(
    { paced, carrying }: Moves,
    motion: Between,
    goal: Scene,
    timing: Timing,
  ): ((now: number) => Progress) | undefined {
    const now = performance.now()
    // With a spring, shapes in mid-motion go on with the speed they have.
    const carry = timing.spring !== undefined && this.at ? carrying(this.at, this.shownAt, AHEAD) : undefined
    const pace = paced(motion, timing)
    if (!pace) {
      this.jump(goal)
      return undefined
    }
    const { total, spring } = pace
    const start = now + timing.delay
    this.at = time => {
      const passed = Math.max(0, time - start)
      if (passed >= total) return goal
      const scene = pace.at(passed)
      return carry && spring ? carry(scene, spring.carry(passed)) : scene
    }
    this.ends = start + total
    this.aim = goal
    this.shownAt = now
    this.scene = this.at(now)
    this.shares = undefined
    this.wake()
    return carry ? undefined : time => pace.share(Math.max(0, time - start))
  }
}

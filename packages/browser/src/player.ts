import { appear, type Between, between, readEasing, type Scene } from '@dapplo/core/small'

export interface Timing {
  /** Milliseconds. */
  duration: number
  delay: number
  easing: string
}

/** First appearances take a little longer than changes: there is more to take in. */
const APPEARING = 1.25

/** Plays motion on the page's clock: one picture for each of its frames, by the time that has passed. */
export class Player {
  /** What is on screen. */
  scene!: Scene
  private readonly paint: (scene: Scene) => void
  private frame = 0
  private aim: Scene | undefined

  constructor(paint: (scene: Scene) => void) {
    this.paint = paint
  }

  /** The scene that is on its way, or has arrived. */
  get goal(): Scene {
    return this.aim ?? this.scene
  }

  get moving(): boolean {
    return this.aim !== undefined
  }

  appear(scene: Scene, timing: Timing | undefined): void {
    if (!timing) return this.jump(scene)
    this.play(appear(scene), scene, { ...timing, duration: timing.duration * APPEARING })
  }

  /** Moves to a scene from whatever is on screen now, also in mid-motion. */
  glide(scene: Scene, timing: Timing): void {
    this.play(between(this.scene, scene), scene, timing)
  }

  jump(scene: Scene): void {
    this.stop()
    this.put(scene)
  }

  stop(): void {
    cancelAnimationFrame(this.frame)
    this.aim = undefined
  }

  private put(scene: Scene): void {
    this.scene = scene
    this.paint(scene)
  }

  private play(motion: Between, goal: Scene, { duration, delay, easing }: Timing): void {
    this.stop()
    if (!(duration > 0)) return this.put(goal)
    const ease = readEasing(easing)
    const start = performance.now() + delay
    this.aim = goal
    const step = (now: number) => {
      const time = Math.max(0, Math.min(1, (now - start) / duration))
      if (time < 1) this.frame = requestAnimationFrame(step)
      else this.aim = undefined
      this.put(motion(ease(time), time))
    }
    this.put(motion(0, 0))
    this.frame = requestAnimationFrame(step)
  }
}

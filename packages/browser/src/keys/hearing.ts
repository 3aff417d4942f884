import type { Composition, Standing } from '@dapplo/core/internal'

/** Plays series as tones, one at a time. What makes them is loaded when it is first asked for. */
export class Hearing {
  private context: AudioContext | undefined

  /** Plays a series; where one is playing, it ends instead. */
  async toggle(composition: Composition, standing: Standing): Promise<void> {
    if (this.context) return this.stop()
    const context = new AudioContext()
    this.context = context
    const { playTones, tonesOf } = await import('./sound.ts')
    // Somebody has ended it meanwhile.
    if (this.context !== context) return
    const end = playTones(context, tonesOf(composition, standing), context.currentTime + 0.05)
    const rest = new OscillatorNode(context)
    rest.onended = () => this.context === context && this.stop()
    rest.start(end)
    rest.stop(end + 0.05)
  }

  stop(): void {
    void this.context?.close()
    this.context = undefined
  }
}

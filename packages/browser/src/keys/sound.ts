import type { Tone } from '@dapplo/core/internal'

export { tonesOf } from '@dapplo/core/internal'

/** The pitch of the low end of a scale in hertz, and how many octaves there are up to the high one. */
const LOWEST = 196
const OCTAVES = 3
/** Seconds that a series takes as a rule, and a step at least and at most. */
const WHOLE = 6
const SHORTEST = 0.025
const LONGEST = 0.22
const LOUD = 0.18
/** Seconds in which a tone comes and goes, so that it does not crack. */
const EDGE = 0.006

const pitchOf = (level: number): number => LOWEST * 2 ** (level * OCTAVES)

/** Seconds that each of so many steps takes. */
const stepOf = (count: number): number => Math.max(SHORTEST, Math.min(LONGEST, WHOLE / count))

/**
 * A series as tones: pitch by value, from left to right by place, silence where a value is missing, and a click where values
 * pass zero. Returns when it ends, in seconds of the context's time.
 */
export function playTones(
  context: BaseAudioContext,
  tones: readonly Tone[],
  start = context.currentTime,
): number {
  const step = stepOf(tones.length)
  const voice = new OscillatorNode(context, { type: 'triangle' })
  const loudness = new GainNode(context, { gain: 0 })
  const side = new StereoPannerNode(context)
  voice.connect(loudness).connect(side).connect(context.destination)
  tones.forEach(({ place, level, crosses }, i) => {
    const at = start + i * step
    if (crosses) click(context, at)
    if (level === undefined) return
    voice.frequency.setValueAtTime(pitchOf(level), at)
    side.pan.setValueAtTime(Math.max(-1, Math.min(1, place * 2 - 1)), at)
    if (tones[i - 1]?.level === undefined) {
      loudness.gain.setValueAtTime(0, at)
      loudness.gain.linearRampToValueAtTime(LOUD, at + EDGE)
    }
    if (tones[i + 1]?.level === undefined) {
      loudness.gain.setValueAtTime(LOUD, at + step - EDGE)
      loudness.gain.linearRampToValueAtTime(0, at + step)
    }
  })
  const end = start + tones.length * step
  voice.start(start)
  voice.stop(end)
  return end
}

function click(context: BaseAudioContext, at: number): void {
  const voice = new OscillatorNode(context, { type: 'square', frequency: 2400 })
  const loudness = new GainNode(context, { gain: LOUD / 2 })
  voice.connect(loudness).connect(context.destination)
  voice.start(at)
  voice.stop(at + 0.01)
}

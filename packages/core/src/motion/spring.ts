/** What a spring does to what it pulls: where it is after some time, from where it was and how fast it moved. */
export interface Spring {
  /** Milliseconds after which nobody sees it move any more. */
  duration: number
  /** The share of the way that is done after some milliseconds; may go beyond 1 and come back. */
  progress(time: number): number
  /** Milliseconds of its first speed by which something has moved beyond that: it comes to rest at 0. */
  carry(time: number): number
}

/** Stiffness and damping for a mass of 1, in the units of seconds: settles within about half a second, hardly swinging. */
const STIFFNESS = 180
const DAMPING = 22
/** What is left of the way when the spring is said to be at rest. */
const REST = 0.002

/** A damped spring: the solution of x″ + damping · x′ + stiffness · x = 0, exact at any time. */
export function spring(wish: true | { stiffness?: number; damping?: number }): Spring {
  const { stiffness = STIFFNESS, damping = DAMPING } = wish === true ? {} : wish
  const k = stiffness > 0 ? stiffness : STIFFNESS
  const c = damping > 0 ? damping : DAMPING
  const half = c / 2
  const square = k - half * half
  const w = Math.sqrt(Math.abs(square))
  // The two basic solutions: one begins at 1 at rest, the other at 0 with speed 1.
  const basic = (seconds: number): [fromRest: number, fromSpeed: number] => {
    const fade = Math.exp(-half * seconds)
    if (square > 1e-9) {
      const sine = Math.sin(w * seconds) / w
      return [fade * (Math.cos(w * seconds) + half * sine), fade * sine]
    }
    if (square < -1e-9) {
      const sine = Math.sinh(w * seconds) / w
      return [fade * (Math.cosh(w * seconds) + half * sine), fade * sine]
    }
    return [fade * (1 + half * seconds), fade * seconds]
  }
  // The slower of its two ways to fade tells when it rests.
  const slowest = square < 0 ? half - w : half
  const duration = Math.min(10_000, (Math.log(1 / REST) / slowest) * 1000)
  return {
    duration,
    progress: time => (time >= duration ? 1 : 1 - basic(time / 1000)[0]),
    carry: time => (time >= duration ? 0 : basic(time / 1000)[1] * 1000),
  }
}

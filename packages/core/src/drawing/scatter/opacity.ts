/** A single point is this opaque, so that the lonely ones can be found; the most crowded places are solid. */
const LEAST = 0.42
/** The share of places whose crowd counts as solid. */
const SOLID = 0.01
/** Crowds larger than this at one place are all alike. */
export const MOST = 4095

/** How many places have each number of points. */
export class Crowds {
  private readonly times = new Uint32Array(MOST + 1)
  private present = 0

  add(points: number): void {
    if (points < 0.5) return
    this.times[Math.min(points + 0.5, MOST) | 0]++
    this.present++
  }

  /** The opacity, 0 to 255, of each number of points: by its logarithm, solid from the most crowded hundredth on. */
  opacities(): Uint8Array {
    let solid = MOST
    for (let above = 0; solid > 1; solid--) {
      above += this.times[solid]
      if (above > this.present * SOLID) break
    }
    const out = new Uint8Array(MOST + 1)
    for (let n = 1; n <= MOST; n++) {
      const place = solid > 1 ? Math.min(1, Math.log(n) / Math.log(solid)) : 1
      out[n] = Math.round(255 * (LEAST + (1 - LEAST) * place))
    }
    return out
  }
}

/** What is counted by cells can be less than one point at an element, and is as much fainter. */
export const opacityAt = (opacity: Uint8Array, points: number): number =>
  points < 1 ? (points * opacity[1]) | 0 : opacity[Math.min(points + 0.5, MOST) | 0]

/** How opaque crowds are, from all elements of a picture. */
export function opacitiesOf(crowd: Float32Array): Uint8Array {
  const crowds = new Crowds()
  for (let i = 0; i < crowd.length; i++) crowds.add(crowd[i])
  return crowds.opacities()
}

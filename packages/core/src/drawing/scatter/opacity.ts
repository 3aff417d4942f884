/** A single point is this opaque, so that the lonely ones can be found; the most crowded places are solid. */
const LEAST = 0.42
/** The share of places whose crowd counts as solid. */
const SOLID = 0.01
/** Crowds larger than this at one place are all alike. */
export const MOST = 4095
/** Points are counted in parts, as whole numbers: what lies in a cell under several elements is shared out among them. */
export const PARTS = 32
const SHIFT = Math.log2(PARTS)

/** How many places have each number of points. */
export class Crowds {
  private readonly times = new Int32Array(MOST + 1)

  add(parts: number): void {
    this.times[Math.min((parts + PARTS / 2) >> SHIFT, MOST)]++
  }

  /** The opacity, 0 to 255, of each number of points: by its logarithm, solid from the most crowded hundredth on. */
  opacities(): Uint8Array {
    let present = 0
    for (let points = 1; points <= MOST; points++) present += this.times[points]
    let solid = MOST
    for (let above = 0; solid > 1; solid--) {
      above += this.times[solid]
      if (above > present * SOLID) break
    }
    const out = new Uint8Array(MOST + 1).fill(255, 1)
    for (let n = 1; n < solid; n++)
      out[n] = Math.round(255 * (LEAST + ((1 - LEAST) * Math.log(n)) / Math.log(solid)))
    return out
  }
}

/** What is counted by cells can be less than one point at an element, and is as much fainter. */
export const opacityAt = (opacity: Uint8Array, parts: number): number =>
  parts < PARTS ? ((parts / PARTS) * opacity[1]) | 0 : opacity[Math.min((parts + PARTS / 2) >> SHIFT, MOST)]

/** How opaque crowds are, from all elements of a picture. */
export function opacitiesOf(crowd: Int32Array): Uint8Array {
  const crowds = new Crowds()
  for (let i = 0; i < crowd.length; i++) crowds.add(crowd[i])
  return crowds.opacities()
}

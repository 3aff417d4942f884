// Sums without loss: every number is a whole number times a power of two, so that nothing is rounded but the result.

/** A fraction of whole numbers, in its lowest terms where that is cheap. */
export class Exact {
  constructor(
    readonly over: bigint,
    readonly under: bigint = 1n,
  ) {}
  static of(value: number): Exact {
    if (Number.isInteger(value)) return new Exact(BigInt(value))
    let under = 1n
    let whole = value
    while (!Number.isInteger(whole)) {
      whole *= 2
      under *= 2n
    }
    return new Exact(BigInt(whole), under)
  }
  plus(other: Exact): Exact {
    if (this.under === other.under) return new Exact(this.over + other.over, this.under)
    return reduced(this.over * other.under + other.over * this.under, this.under * other.under)
  }
  minus(other: Exact): Exact {
    return this.plus(new Exact(-other.over, other.under))
  }
  times(other: Exact): Exact {
    return reduced(this.over * other.over, this.under * other.under)
  }
  dividedBy(other: Exact): Exact {
    return other.over < 0n
      ? reduced(-this.over * other.under, this.under * -other.over)
      : reduced(this.over * other.under, this.under * other.over)
  }
  get isZero(): boolean {
    return this.over === 0n
  }
  /** The nearest number, to within one in 2^60. */
  get value(): number {
    const negative = this.over < 0n
    const over = negative ? -this.over : this.over
    if (over === 0n) return 0
    const shift = BigInt(64 - (over.toString(2).length - this.under.toString(2).length))
    const scaled = shift >= 0n ? (over << shift) / this.under : over / (this.under << -shift)
    const size = Number(scaled) * 2 ** -Number(shift)
    return negative ? -size : size
  }
}

function reduced(over: bigint, under: bigint): Exact {
  let [a, b] = [over < 0n ? -over : over, under]
  while (b > 0n) [a, b] = [b, a % b]
  return a > 1n ? new Exact(over / a, under / a) : new Exact(over, under)
}

export const exactSum = (values: readonly number[]): Exact =>
  values.reduce((sum, value) => sum.plus(Exact.of(value)), new Exact(0n))

/** Solves a set of linear equations by Gauss' elimination; undefined where they have no single answer. */
export function solved(rows: Exact[][]): Exact[] | undefined {
  const size = rows.length
  const m = rows.map(row => [...row])
  for (let column = 0; column < size; column++) {
    const pivot = m.findIndex((row, i) => i >= column && !row[column].isZero)
    if (pivot < 0) return undefined
    ;[m[column], m[pivot]] = [m[pivot], m[column]]
    for (let row = 0; row < size; row++) {
      if (row === column || m[row][column].isZero) continue
      const by = m[row][column].dividedBy(m[column][column])
      for (let k = column; k <= size; k++) m[row][k] = m[row][k].minus(by.times(m[column][k]))
    }
  }
  return m.map((row, i) => row[size].dividedBy(row[i]))
}

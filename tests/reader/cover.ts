// Charts enough that every pair of levels of every two factors meets in one of them.

export type Choice = Record<string, number>

/** Greedily, the same every time: each chart begins with a pair that is still missing and takes what covers most. */
export function allPairs(sizes: Record<string, number>, seed = 1): Choice[] {
  const names = Object.keys(sizes)
  const key = (a: string, i: number, b: string, j: number) =>
    a < b ? `${a}:${i} ${b}:${j}` : `${b}:${j} ${a}:${i}`
  const missing = new Map<string, [string, number, string, number]>()
  names.forEach((a, n) => {
    for (const b of names.slice(n + 1))
      for (let i = 0; i < sizes[a]; i++)
        for (let j = 0; j < sizes[b]; j++) missing.set(key(a, i, b, j), [a, i, b, j])
  })
  let state = seed
  const chance = (below: number) => {
    state = (state * 1664525 + 1013904223) % 4294967296
    return Math.floor((state / 4294967296) * below)
  }
  const charts: Choice[] = []
  while (missing.size > 0) {
    const [first] = missing.values()
    const [a, i, b, j] = first
    const chart: Choice = { [a]: i, [b]: j }
    const others = names.filter(name => !(name in chart))
    for (let n = others.length - 1; n > 0; n--) {
      const m = chance(n + 1)
      ;[others[n], others[m]] = [others[m], others[n]]
    }
    for (const name of others) {
      let best = chance(sizes[name])
      let most = -1
      for (let step = 0; step < sizes[name]; step++) {
        const level = (best + step) % sizes[name]
        const wins = Object.entries(chart).filter(([other, at]) =>
          missing.has(key(name, level, other, at)),
        ).length
        if (wins > most) [most, chart[name]] = [wins, level]
      }
      best = chart[name]
    }
    for (const [x, p] of Object.entries(chart))
      for (const [y, q] of Object.entries(chart)) if (x !== y) missing.delete(key(x, p, y, q))
    charts.push(chart)
  }
  return charts
}

export const pairsOf = (chart: Choice): string[] => {
  const entries = Object.entries(chart).sort(([a], [b]) => (a < b ? -1 : 1))
  return entries.flatMap(([a, i], n) => entries.slice(n + 1).map(([b, j]) => `${a}:${i} ${b}:${j}`))
}

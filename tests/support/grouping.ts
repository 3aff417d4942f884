/** What agrees in a key, in order of first appearance. */
export function groupedBy<T, K>(list: readonly T[], keyOf: (one: T) => K): Map<K, T[]> {
  const out = new Map<K, T[]>()
  for (const one of list) out.set(keyOf(one), [...(out.get(keyOf(one)) ?? []), one])
  return out
}

export const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0)

/** The parts of a path such as `draw[0].y` or `where.route`. */
const partsOf = (path: string): string[] => path.split(/[.[\]]+/).filter(part => part !== '')

/** What stands at a path; undefined where there is nothing. */
export function readPath(from: unknown, path: string): unknown {
  let now = from
  for (const part of partsOf(path)) {
    if (now === null || typeof now !== 'object' || !Object.hasOwn(now, part)) return undefined
    now = (now as Record<string, unknown>)[part]
  }
  return now
}

/** The change that puts a value at a path, as `chart.with` takes it; lists on the way are copied whole. */
export function changeAt(from: unknown, path: string, value: unknown): Record<string, unknown> {
  const [first, ...rest] = partsOf(path)
  return { [first]: putAt(readPath(from, first), rest, value) }
}

function putAt(now: unknown, parts: readonly string[], value: unknown): unknown {
  if (parts.length === 0) return value
  const [part, ...rest] = parts
  const inner =
    now !== null && typeof now === 'object' && Object.hasOwn(now, part)
      ? (now as Record<string, unknown>)[part]
      : undefined
  const put = putAt(inner, rest, value)
  if (Array.isArray(now)) return now.map((item, i) => (String(i) === part ? put : item))
  return { ...(now as object | undefined), [part]: put }
}

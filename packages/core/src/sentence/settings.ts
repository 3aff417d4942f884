import { isPlainObject } from '../finding/check-tree.ts'
import type { Setting, SettingPath } from './model.ts'

/** What is said as it is written. */
export const isSimple = (value: unknown): value is string | number | boolean =>
  ['string', 'number', 'boolean'].includes(typeof value)

const keyOf = (path: SettingPath): string => JSON.stringify(path)

/** What a description says, taken out piece by piece as it is put into words: what is left has none. */
export class Settings {
  readonly said: Setting[] = []
  private readonly taken = new Set<string>()
  /** What holds something that has been taken. */
  private readonly opened = new Set<string>()
  private readonly description: object

  constructor(description: object) {
    this.description = description
  }

  /** What stands at a place, unless it has been taken. */
  at(path: SettingPath): unknown {
    let here: unknown = this.description
    for (let i = 0; i < path.length; i++) {
      if (here === null || typeof here !== 'object' || this.taken.has(keyOf(path.slice(0, i))))
        return undefined
      here = Object.hasOwn(here, path[i]) ? (here as Record<string, unknown>)[path[i]] : undefined
    }
    return this.taken.has(keyOf(path)) ? undefined : here
  }

  take(path: SettingPath): unknown {
    const value = this.at(path)
    if (value === undefined) return undefined
    this.taken.add(keyOf(path))
    for (let i = 0; i < path.length; i++) this.opened.add(keyOf(path.slice(0, i)))
    this.said.push({ path, value })
    return value
  }

  /** All that has not been taken, in pieces as large as may be. */
  unsaid(): Setting[] {
    const out: Setting[] = []
    const walk = (value: unknown, path: SettingPath): void => {
      if (value === undefined || this.taken.has(keyOf(path))) return
      const entries: [string | number, unknown][] | undefined = Array.isArray(value)
        ? value.map((one, i) => [i, one])
        : isPlainObject(value)
          ? Object.entries(value)
          : undefined
      if (!entries || entries.length === 0 || !(path.length === 0 || this.opened.has(keyOf(path))))
        out.push({ path, value })
      else for (const [key, one] of entries) walk(one, [...path, key])
    }
    if (Object.keys(this.description).length > 0) walk(this.description, [])
    return out
  }
}

/** Sets what stands at a place, and makes what it stands in where there is nothing. Undefined takes it away. */
export function putAt<T>(into: T, [key, ...rest]: SettingPath, value: unknown): T {
  const old = into !== null && typeof into === 'object' ? into : typeof key === 'number' ? [] : {}
  const out = (Array.isArray(old) ? [...old] : { ...old }) as Record<string | number, unknown>
  const own = Object.hasOwn(out, key) ? out[key] : undefined
  const next = rest.length > 0 ? putAt(own, rest, value) : value
  // A scale may be called by any name, also one that objects have from elsewhere.
  if (next !== undefined)
    Object.defineProperty(out, key, { value: next, enumerable: true, configurable: true, writable: true })
  else if (Array.isArray(out)) out.splice(Number(key), 1)
  else delete out[key]
  return out as T
}

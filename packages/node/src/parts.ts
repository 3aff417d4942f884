import { createRequire } from 'node:module'

const here = createRequire(import.meta.url)

/** The file of something that this package brings along, also where this code has been bundled into another program. */
export function partOf(name: string): string {
  const own = here.resolve('@dapplo/node/page')
  return name === '@dapplo/node/page' ? own : createRequire(own).resolve(name)
}

/** A package that this one brings along, loaded when it is first asked for. */
export const loadPart = (name: string): unknown => here(partOf(name))

import type { SettingPath } from '@dapplo/core/sentence'
import type { Allowed } from './model.ts'

type Limited = { allowed: Allowed }

/** Whether a person may change what stands at a place. */
export function mayChange({ allowed: { options } }: Limited, path: SettingPath): boolean {
  if (!options) return true
  const names = path.filter((key): key is string => typeof key === 'string')
  return names.some(name => options.includes(name === 'as' ? 'draw' : name))
}

/** Whether a person may draw a kind. */
export const mayDraw = ({ allowed: { kinds } }: Limited, kind: string): boolean =>
  !kinds || kinds.includes(kind)

import { arrangeOf } from '../resolve/looks.ts'
import type { NumberLook } from '../scale/number-format.ts'
import type { RoleValues } from '../table/group/shape.ts'
import { meaningKey } from '../table/phrase/meaning.ts'
import { measures } from './domain.ts'
import type { Domain, ScaleInput } from './model.ts'

/** What the numbers of one measure have in common wherever they are written in a picture. */
export type NumberForm = Pick<NumberLook, 'reach' | 'each'>

/** The form of a role's numbers; empty where no axis reads them. */
export type FormOf = (values: RoleValues) => NumberForm

/** The form of the numbers that stand on a scale, between these ends. */
export function formOn({ kind }: Domain, low: number, high: number): NumberForm {
  return kind.name === 'linear' ? { reach: { low, high } } : { each: true }
}

/** Whether the shapes on a scale are stretched to the whole, so that it reads shares and not what is bound. */
export const isShared = (source: ScaleInput): boolean =>
  source.uses.every(use => arrangeOf(use.bound.drawing) === 'share' && measures(use, source))

/** Labels say numbers as the axes do that read them: one unit and one way of rounding for one measure. */
export function formsOf(
  scales: ReadonlyMap<string, ScaleInput>,
  domains: ReadonlyMap<string, Domain>,
  zoom: Readonly<Record<string, readonly [number, number]>> | undefined,
): FormOf {
  const forms = new Map<string, NumberForm>()
  for (const source of scales.values()) {
    const domain = domains.get(source.name)
    if (source.type !== 'number' || !domain || isShared(source)) continue
    const [low, high] = zoom?.[source.name] ?? [domain.min, domain.max]
    const form = formOn(domain, Math.min(low, high), Math.max(low, high))
    for (const { values } of source.uses) forms.set(nameOf(values), form)
  }
  return values => forms.get(nameOf(values)) ?? {}
}

const nameOf = ({ meaning, column }: RoleValues) => `${column?.name ?? ''} ${meaningKey(meaning)}`

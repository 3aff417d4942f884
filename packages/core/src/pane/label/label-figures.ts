import type { BoundDrawing } from '../../bind/model.ts'
import { lookOf } from '../../bind/naming.ts'
import type { FormOf, NumberForm } from '../../bind/number-forms.ts'
import { MOST_ALIKE, ownValues, presentOf, roleTexts } from '../../bind/values.ts'
import { briefWriter, valueText } from '../../scale/number-format.ts'
import type { Figures } from '../../scene/scene.ts'
import type { RoleValues } from '../../table/group/shape.ts'
import { fillWords } from '../../words/holes.ts'

/** The numbers in the labels of a drawing, for pictures on the way to others; undefined where there are none. */
export function labelFigures(
  bound: BoundDrawing,
  locale: string,
  formOf: FormOf,
): ((mark: number) => Figures | undefined) | undefined {
  const { label } = bound.drawing
  if (label === undefined) return undefined
  const pieces = label === 'own' ? ['', ''] : label.pieces
  const roles = label === 'own' ? [ownValues(bound)] : bound.labelValues
  const holes = roles.map(values => ({
    numbers: values?.cells.type === 'number' ? values.cells.values : undefined,
    write: values && numberWriter(values, locale, formOf(values)),
    text: values && roleTexts(values, locale, formOf(values)),
  }))
  if (!holes.some(({ write }) => write)) return undefined
  return mark => {
    const values: number[] = []
    for (const { numbers, write } of holes)
      if (numbers && write) {
        if (Number.isNaN(numbers[mark])) return undefined
        values.push(numbers[mark])
      }
    return {
      values,
      write(others) {
        let at = 0
        const texts = holes.map(({ numbers, write, text }) =>
          numbers && write ? write(others[at++]) : (text?.(mark) ?? ''),
        )
        return fillWords(pieces, texts)
      },
    }
  }
}

/** Writes any number as those of a role are written at its marks; undefined where they are none. */
export function numberWriter(
  values: RoleValues,
  locale: string,
  form: NumberForm,
): ((value: number) => string) | undefined {
  if (values.cells.type !== 'number' || (values.ends && values.spans)) return undefined
  const look = { ...lookOf(values), ...form, locale }
  const all = values.cells.values
  return all.length > MOST_ALIKE ? value => valueText(value, look) : briefWriter(presentOf(all), look)
}

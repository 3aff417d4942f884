import type { Settled } from '../describe/description.ts'
import { DapploError } from '../finding/error.ts'
import { partPath } from '../finding/part-path.ts'
import { utc, type Zone } from '../table/cells/zone.ts'
import type { RoleValues } from '../table/group/shape.ts'
import { numberOf } from '../table/group/where.ts'
import { isMeasure } from '../table/phrase/meaning.ts'
import type { ScaledPart, ScaleInput, ShapedDrawing } from './model.ts'

/** Finds the scale of every position. Data decide what a scale holds; constants are read as it needs them. */
export function scaleAll(
  shapes: readonly ShapedDrawing[],
  description: Settled,
  scales: Map<string, ScaleInput>,
): ScaledPart[] {
  const constant = (values: RoleValues) => values.meaning.is === 'value' || values === unbound
  const scaleOf = (name: string, role: 'x' | 'y', values: RoleValues, path: string): ScaleInput => {
    const wanted = description.scales?.[name]?.kind
    const type = wanted === 'category' ? 'text' : values.cells.type
    let input = scales.get(name)
    if (!input) {
      input = { name, role, type, words: [], uses: [], asides: [] }
      scales.set(name, input)
    } else if (!constant(values) && input.type !== type && values.cells.type !== input.type) {
      throw new DapploError(
        'mixed-scale',
        `The scale "${name}" is asked to hold ${type} values beside ${input.type} values`,
        path,
        role === 'y'
          ? 'Put one of them on another scale with against: "right".'
          : 'Bind phrases of one type to it, or put what lies on another scale with against: "top".',
      )
    }
    return input
  }
  const zones = new Map<ScaleInput, Zone>()
  const parts = shapes.map(({ drawing, shaped }): ScaledPart => {
    const x = shaped.roles.get(drawing.kind.parts ? 'color' : 'x') ?? unbound
    const y = shaped.roles.get('y') ?? unbound
    return { drawing, shaped, x, y, xInput: undefined, yInput: undefined }
  })
  for (const pass of ['data', 'constants']) {
    for (const scaled of parts) {
      const { drawing } = scaled
      if (drawing.kind.parts) continue
      for (const role of ['x', 'y'] as const) {
        const values = scaled[role]
        if (constant(values) !== (pass === 'constants')) continue
        const path = partPath(drawing.path, role)
        const own = drawing.against !== 'y' && role === (measuredAcross(scaled) ? 'x' : 'y')
        const input = scaleOf(own ? drawing.against : role, role, values, path)
        scaled[role === 'x' ? 'xInput' : 'yInput'] = input
        if (!constant(values)) zones.set(input, zones.get(input) ?? values.zone)
        else if (values !== unbound) scaled[role] = constantFor(values, input, zones.get(input) ?? utc, path)
      }
    }
  }
  return parts
}

/** Whether what a drawing measures lies along x: a scale of its own, as told by `against`, is then a horizontal one. */
export function measuredAcross({ x, y }: Pick<ScaledPart, 'x' | 'y'>): boolean {
  if (y === unbound || x === unbound) return y === unbound && x !== unbound
  if (isMeasure(x.meaning) !== isMeasure(y.meaning)) return isMeasure(x.meaning)
  return x.cells.type === 'number' && y.cells.type !== 'number'
}

/** Nothing is bound here. */
export const unbound: RoleValues = {
  cells: { type: 'number', values: new Float64Array(0) },
  meaning: { is: 'value', value: '' },
  column: undefined,
  zone: utc,
  ends: undefined,
}

/** A datum in the terms of the scale that it stands on. */
function constantFor(values: RoleValues, input: ScaleInput, zone: Zone, path: string): RoleValues {
  const { meaning, cells } = values
  if (meaning.is !== 'value' || input.type === 'text' || values.spans) return { ...values, zone }
  const length = cells.type === 'text' ? cells.codes.length : cells.values.length
  const value = numberOf(meaning.value as string, input.type, zone, path)
  return { ...values, zone, cells: { type: input.type, values: new Float64Array(length).fill(value) } }
}

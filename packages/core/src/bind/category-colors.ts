import type { Settled } from '../describe/description.ts'
import type { Finding } from '../finding/error.ts'
import type { Found } from '../finding/found.ts'
import type { ResolvedDrawing } from '../resolve/model.ts'
import { isRest } from '../table/group/top.ts'
import type { Theme } from '../theme/theme.ts'
import { type SeriesPart, usedCodes } from './series-parts.ts'

/** The colour of each category: as told by chart or column, else by its place among all values that the column ever had. */
export function categoryColors(
  { values, coded, roles }: SeriesPart,
  description: Settled,
  theme: Theme,
  drawing: ResolvedDrawing,
): Found<(code: number) => string> {
  const findings: Finding[] = []
  const told = description.scales?.color?.colors
  const listed = Array.isArray(told) && told.length > 0 ? told : theme.colors
  const named: Record<string, string> = {
    ...values.column?.options.colors,
    ...(Array.isArray(told) ? {} : told),
  }
  const used = usedCodes(coded)
  const unnamed = [...used].filter(code => !Object.hasOwn(named, coded.keys[code])).length
  // A form or a dash of its own tells series apart as well.
  if (unnamed > listed.length && roles.length === 1) {
    findings.push({
      code: 'too-many-colors',
      message: `${unnamed} values of "${values.column?.name ?? 'color'}" share ${listed.length} colours, so some look alike`,
      remedy:
        'Keep the top ones, give more colours in scales.color.colors, or bind color to something with fewer values.',
      path: drawing.path ? `${drawing.path}.color` : 'color',
    })
  }
  const value = (code: number) => {
    const key = coded.keys[code]
    if (isRest(key)) return theme.missing
    return Object.hasOwn(named, key) ? named[key] : listed[code % listed.length]
  }
  return { value, findings }
}

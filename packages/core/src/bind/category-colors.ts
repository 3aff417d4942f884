import type { Settled } from '../describe/description.ts'
import type { Finding } from '../finding/error.ts'
import type { Found } from '../finding/found.ts'
import { suggest } from '../finding/nearest.ts'
import { partPath } from '../finding/part-path.ts'
import { quoted } from '../finding/plain-text.ts'
import type { ResolvedDrawing } from '../resolve/model.ts'
import { isRest } from '../table/group/top.ts'
import { BEYOND_EIGHT, WITHOUT_COLOR } from '../theme/palette-marks.ts'
import type { Theme } from '../theme/theme.ts'
import { type Coded, type SeriesPart, usedCodes } from './series-parts.ts'

/** A category's colour, and the places of its pattern and its dash among those; 0 for none. */
export interface CategoryLook {
  color: string
  hatch: number
  dash: number
}

/** The colour of each category: as told by chart or column, else by its place among all values that the column ever had. */
export function categoryColors(
  { values, coded, roles }: SeriesPart,
  description: Settled,
  theme: Theme,
  drawing: ResolvedDrawing,
): Found<(code: number) => CategoryLook> {
  const findings: Finding[] = []
  const told = description.scales?.color?.colors
  const listed = Array.isArray(told) && told.length > 0 ? told : theme.colors
  const named: Record<string, string> = {
    ...values.column?.options.colors,
    ...(Array.isArray(told) ? {} : told),
  }
  const own = (code: number): string | undefined =>
    Object.hasOwn(named, coded.keys[code])
      ? named[coded.keys[code]]
      : // A bucket is known to people by its name: "2023".
        Object.hasOwn(named, coded.names[code])
        ? named[coded.names[code]]
        : undefined
  const colorOf = (code: number) =>
    isRest(coded.keys[code]) ? theme.missing : (own(code) ?? listed[code % listed.length])
  const all = description.scales?.color?.hatched
  const ownPalette = listed === theme.colors
  const value = (code: number): CategoryLook => {
    const marked = all ?? (ownPalette && own(code) === undefined)
    const marks = all ? WITHOUT_COLOR : BEYOND_EIGHT
    const place = code % marks.hatch.length
    return isRest(coded.keys[code]) || !marked
      ? { color: colorOf(code), hatch: 0, dash: 0 }
      : { color: colorOf(code), hatch: marks.hatch[place], dash: marks.dash[place] }
  }
  const used = [...usedCodes(coded)]
  const unnamed = used.filter(code => own(code) === undefined && !isRest(coded.keys[code]))
  const path = partPath(drawing.path, 'color')
  // A form or a dash of its own tells series apart as well.
  if (unnamed.length > listed.length && roles.length === 1) {
    findings.push({
      code: 'too-many-colors',
      message: `${unnamed.length} values of "${values.column?.name ?? 'color'}" share ${listed.length} colours, so some look alike`,
      remedy:
        'Keep the top ones, give more colours in scales.color.colors, or bind color to something with fewer values.',
      path,
    })
  } else if (roles.length === 1) findings.push(...alike(unnamed, colorOf, coded.names, path))
  findings.push(...unknownNames(Array.isArray(told) ? {} : (told ?? {}), coded))
  return { value, findings }
}

/** Two categories that are seen together and have one colour, as they were given them one after the other. */
function alike(
  codes: readonly number[],
  colorOf: (code: number) => string,
  names: readonly string[],
  path: string,
): Finding[] {
  const first = new Map<string, number>()
  for (const code of codes) {
    const color = colorOf(code)
    const other = first.get(color)
    if (other === undefined) first.set(color, code)
    else
      return [
        {
          code: 'colors-repeat',
          message: `${quoted(names[other])} and ${quoted(names[code])} have the same colour`,
          remedy: `Give one of them another in scales.color.colors, as in { ${quoted(names[code])}: "#888" }.`,
          path,
        },
      ]
  }
  return []
}

/** Colours for categories that there are none of. */
function unknownNames(told: Readonly<Record<string, string>>, { keys, names }: Coded): Finding[] {
  const unknown = Object.keys(told).filter(name => !keys.includes(name) && !names.includes(name))
  if (unknown.length === 0 || keys.length === 0) return []
  return [
    {
      code: 'unknown-category',
      message: `A colour is given for ${quoted(unknown[0])}, which is none of the values`,
      remedy: suggest(unknown[0], names.slice(0, 50), 'Values'),
      path: `scales.color.colors.${unknown[0]}`,
    },
  ]
}

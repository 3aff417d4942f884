import type { Description, Finding } from '@dapplo/core'
import type { SettingPath } from '@dapplo/core/sentence'
import { setAt, valueAt } from './edits.ts'
import type { Place } from './model.ts'
import { meaningOf } from './phrases.ts'

/** So many colours, series or slices are told apart at a glance; the others stand together. */
const fewest =
  (top: number) =>
  (description: Description): Description[] => [{ ...description, top, rest: true }]

/** What would mend a finding, by its code: the first that makes it go away is taken. */
const MENDS: Record<string, (description: Description, scale: string) => Description[]> = {
  'far-value': (description, scale) => [
    setAt(description, ['scales', scale, 'kind'], 'log'),
    setAt(description, ['scales', scale, 'kind'], 'signed log'),
  ],
  'not-on-log': (description, scale) => [
    setAt(description, ['scales', scale, 'kind'], 'signed log'),
    setAt(description, ['scales', scale, 'kind'], undefined),
  ],
  'too-many-colors': fewest(7),
  'colors-repeat': fewest(7),
  'too-many-series': fewest(7),
  'too-many-slices': fewest(6),
  'too-many-to-mark': description => [
    setAt(description, ['label'], undefined),
    setAt(description, ['label'], false),
  ],
  'labels-left-out': description => [
    setAt(description, ['label'], undefined),
    { ...description, label: { top: 5 } },
  ],
  'hidden-points': description => [{ ...description, size: 'count' }],
  'several-at-a-place': description =>
    typeof description.y === 'string'
      ? [
          { ...description, y: `sum of ${description.y}` },
          { ...description, y: `mean of ${description.y}` },
        ]
      : [],
  'zero-out-of-sight': (description, scale) => [
    setAt(description, ['scales', scale, 'domain'], undefined),
    setAt(description, ['scales', scale, 'include'], 0),
    setAt(description, ['scales', scale, 'kind'], 'root'),
  ],
  'empty-buckets': description =>
    typeof description.x === 'string'
      ? [{ ...description, x: description.x.replace(/^\w+ of /, 'month of ') }]
      : [],
}

/** The place that a finding is about: `draw[1].style.width`. */
const pathOf = (path: string): SettingPath =>
  path
    .split(/[.[\]]+/)
    .filter(Boolean)
    .map(key => (/^\d+$/.test(key) ? Number(key) : key))

/**
 * What would mend a finding, as descriptions to be tried in order: none where a person has to decide. What has no effect can
 * always be taken away.
 */
export function mendsFor(place: Place, finding: Finding): Description[] {
  const { description } = place
  const path = pathOf(finding.path)
  const role = String(path.at(-1))
  const axis = role === 'x' || role === 'y' ? role : 'y'
  const scale = path[0] === 'scales' ? String(path[1]) : axis
  if (Object.hasOwn(MENDS, finding.code)) return MENDS[finding.code](description, scale)
  const said = valueAt(description, path)
  if (finding.code === 'no-effect' && said !== undefined && path.length > 0)
    return [setAt(description, path, undefined)]
  if (finding.code === 'without-place') {
    const meaning = meaningOf(said ?? description[axis], place)
    if (meaning && 'column' in meaning && meaning.column !== undefined)
      return [setAt(description, ['where', meaning.column], { not: null })]
  }
  return []
}

import type { Description, Finding } from '@dapplo/core'
import type { SettingPath } from '@dapplo/core/sentence'
import { setAt, valueAt } from './edits.ts'

/** What would mend a finding, by its code: the first that makes it go away is taken. */
const MENDS: Record<string, (description: Description, finding: Finding, scale: string) => Description[]> = {
  'far-value': (description, _, scale) => [
    setAt(description, ['scales', scale, 'kind'], 'log'),
    setAt(description, ['scales', scale, 'kind'], 'signed log'),
  ],
  'not-on-log': (description, _, scale) => [
    setAt(description, ['scales', scale, 'kind'], 'signed log'),
    setAt(description, ['scales', scale, 'kind'], undefined),
  ],
  'too-many-colors': description => [{ ...description, top: 7, rest: true }],
  'colors-repeat': description => [{ ...description, top: 7, rest: true }],
  'too-many-series': description => [{ ...description, top: 7, rest: true }],
  'too-many-slices': description => [{ ...description, top: 6, rest: true }],
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
  'zero-out-of-sight': (description, _, scale) => [
    setAt(description, ['scales', scale, 'domain'], undefined),
    setAt(description, ['scales', scale, 'include'], 0),
    setAt(description, ['scales', scale, 'kind'], 'root'),
  ],
  'empty-buckets': description =>
    typeof description.x === 'string'
      ? [{ ...description, x: description.x.replace(/^\w+ of /, 'month of ') }]
      : [],
}

const pathOf = (path: string): SettingPath =>
  path.split('.').map(key => (/^\d+$/.test(key) ? Number(key) : key))

/**
 * What would mend a finding, as descriptions to be tried in order: none where a person has to decide. What has no effect, or
 * is not known, can always be taken away.
 */
export function mendsFor(description: Description, finding: Finding): Description[] {
  const path = pathOf(finding.path)
  const scale =
    path[0] === 'scales'
      ? String(path[1])
      : ['x', 'y'].includes(String(path.at(-1)))
        ? String(path.at(-1))
        : 'y'
  const own = Object.hasOwn(MENDS, finding.code) ? MENDS[finding.code](description, finding, scale) : []
  if (finding.code === 'no-effect' && finding.path !== '' && valueAt(description, path) !== undefined)
    own.push(setAt(description, path, undefined))
  if (finding.code === 'without-place') {
    const column = /no "(.*?)", so/.exec(finding.message)?.[1]
    if (column !== undefined) own.push(setAt(description, ['where', column], { not: null }))
  }
  return own
}

import type { Description, Drawing } from '../describe/description.ts'
import type { Kind, MarkStyle } from '../describe/model.ts'
import type { Finding } from '../finding/error.ts'
import { noEffect } from '../finding/no-effect.ts'
import { partPath } from '../finding/part-path.ts'
import { knowsArrange, OWN, readBy, SHARED } from './looks.ts'

/** A drawing as it is listed in a description. */
interface Listed {
  drawing: Drawing<any>
  inherits: boolean
  kind: Kind
  path: string
}

/** Something that a drawing is told: how it is found, where it stands, and which kinds make something of it. */
interface Told {
  name: string
  of(told: Partial<Drawing<any>>): unknown
  readBy(kind: Kind, told: unknown): boolean
}

const STYLES = ['color', 'opacity', 'width', 'dash', 'size', 'gap', 'caps'] as const
const ROLES = ['color', 'series', 'size', 'shape', 'dash'] as const

const reads = ({ styles = STYLES }: Kind, style: keyof MarkStyle): boolean => styles.includes(style)

const TOLD: readonly Told[] = [
  ...[...SHARED, ...OWN].map(
    (name): Told => ({
      name,
      of: told => told[name],
      readBy: name === 'arrange' ? knowsArrange : kind => readBy(kind, name),
    }),
  ),
  ...STYLES.map(
    (name): Told => ({
      name: `style.${name}`,
      of: told => told.style?.[name],
      readBy: kind => reads(kind, name),
    }),
  ),
  ...ROLES.map(
    (name): Told => ({
      name,
      of: told => told[name] ?? undefined,
      readBy: kind => Object.hasOwn(kind.roles, name),
    }),
  ),
]

/** What is given to drawings and changes nothing, since no kind that it is given to reads it, or all have their own. */
export function unreadLooks(
  description: Description,
  drawings: readonly Listed[],
  kinds: Readonly<Record<string, Kind>>,
): Finding[] {
  return [
    ...TOLD.flatMap(told => unread(told, description, drawings, kinds)),
    ...overridden(description, drawings),
    ...aimless(description, drawings),
  ]
}

function unread(
  { name, of, readBy }: Told,
  description: Description,
  drawings: readonly Listed[],
  kinds: Readonly<Record<string, Kind>>,
): Finding[] {
  const tell = (names: readonly string[], path: string, value: unknown): Finding => {
    const readers = Object.values(kinds)
      .filter(kind => readBy(kind, value))
      .map(({ name }) => `"${name}"`)
    return noEffect(
      path,
      `"${name}" changes nothing about ${[...new Set(names)].map(name => `"${name}"`).join(' and ')}`,
      `Leave it out${readers.length > 0 ? `, or use it with ${readers.join(', ')}` : ''}.`,
    )
  }
  const own = drawings
    .filter(({ drawing, kind }) => of(drawing) !== undefined && !readBy(kind, of(drawing)))
    .map(({ kind, path, drawing }) => tell([kind.name], partPath(path, name), of(drawing)))
  const heirs = drawings.filter(({ drawing, inherits }) => inherits && of(drawing) === undefined)
  const common = of(description)
  return common === undefined || heirs.length === 0 || heirs.some(({ kind }) => readBy(kind, common))
    ? own
    : [
        ...own,
        tell(
          heirs.map(({ kind }) => kind.name),
          name,
          common,
        ),
      ]
}

/** What a drawing has of the chart unless it says so itself. */
const INHERITED: readonly Told[] = [
  ...TOLD,
  ...(['x', 'y', 'where', 'top', 'rest', 'order', 'label'] as const).map(
    (name): Told => ({ name, of: told => told[name], readBy: () => true }),
  ),
]

/** What the chart says and every drawing says itself. */
function overridden(description: Description, drawings: readonly Listed[]): Finding[] {
  const heirs = drawings.filter(({ inherits, kind }) => inherits && !kind.alone && !kind.aside)
  return INHERITED.filter(
    ({ of }) =>
      of(description) !== undefined &&
      heirs.length > 0 &&
      heirs.every(({ drawing }) => of(drawing) !== undefined),
  ).map(({ name }) =>
    noEffect(
      name,
      `"${name}" of the chart changes nothing, since each drawing has its own`,
      'Leave it out, or take it out of the drawings.',
    ),
  )
}

/** A name for the rest where nothing is left over, and the size of points that are not marked. */
function aimless(description: Description, drawings: readonly Listed[]): Finding[] {
  const inherited = (listed: Listed, of: (told: Partial<Drawing<any>>) => unknown): unknown =>
    of(listed.drawing) ?? (listed.inherits ? of(description) : undefined)
  return drawings.flatMap(listed => {
    const { kind, path, drawing } = listed
    const at = (name: string, own: unknown) => (path && own !== undefined ? `${path}.${name}` : name)
    const out: Finding[] = []
    const told = (of: (told: Partial<Drawing<any>>) => unknown) => inherited(listed, of)
    if (told(({ rest }) => rest) && told(({ top }) => top) === undefined)
      out.push(
        noEffect(
          at('rest', drawing.rest),
          '"rest" changes nothing without "top", which leaves something over',
          'Say how many are kept, as in top: 5, or leave it out.',
        ),
      )
    const pointless = readBy(kind, 'points') && told(({ points }) => points) !== true
    if (pointless && reads(kind, 'size') && told(({ style }) => style?.size) !== undefined)
      out.push(
        noEffect(
          at('style.size', drawing.style?.size),
          `"style.size" changes nothing about "${kind.name}" without points`,
          'Mark them by points: true, or leave it out.',
        ),
      )
    return out
  })
}

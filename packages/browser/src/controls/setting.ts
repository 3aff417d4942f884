import { Chart, DapploError, type Description } from '@dapplo/core/small'
import type { PartHost } from '../live/model.ts'

/** The parts of a path such as `draw[0].y` or `where.route`. */
const partsOf = (path: string): string[] => path.split(/[.[\]]+/).filter(name => name !== '')

/** The name of what a control sets in the state; undefined where it sets the description. */
const stateName = (path: string) => (path.startsWith('state.') ? path.slice('state.'.length) : undefined)

/** What a path of the description or, beginning with `state.`, of the state is set to. */
export function readSetting({ state, live }: PartHost, path: string): unknown {
  const name = stateName(path)
  let now: unknown = name === undefined ? live.chart.description : state
  for (const key of partsOf(name ?? path)) {
    if (now === null || typeof now !== 'object' || !Object.hasOwn(now, key)) return undefined
    now = (now as Record<string, unknown>)[key]
  }
  return now
}

/** Sets it to a value as a whole; null takes it away. What the data make impossible is said, and leaves the chart as it was. */
export function writeSetting(host: PartHost, path: string, value: unknown): void {
  const name = stateName(path)
  const { chart } = host.live
  if (name !== undefined) host.state = put(host.state, partsOf(name), value) as typeof host.state
  else if (chart instanceof Chart)
    try {
      host.live.show(chart.describedAs(put(chart.description, partsOf(path), value) as Description))
    } catch (error) {
      host.say(error instanceof DapploError ? error.sentence : String(error))
    }
}

/** A copy with a value at a path; lists and objects on the way are made where there are none. */
function put(now: unknown, [part, ...rest]: readonly string[], value: unknown): unknown {
  if (part === undefined) return value
  if (Array.isArray(now)) return now.map((item, i) => (String(i) === part ? put(item, rest, value) : item))
  const own = typeof now === 'object' && now !== null ? now : {}
  const { [part]: before, ...others } = own as Record<string, unknown>
  const inner = put(before, rest, value)
  return inner === null || inner === undefined ? others : { ...others, [part]: inner }
}

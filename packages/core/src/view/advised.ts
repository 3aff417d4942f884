import type { Bound, Domain } from '../bind/model.ts'
import type { Finding } from '../finding/error.ts'
import type { Chart } from './chart.ts'

/** What was advised about bound values: a zoom changes nothing of it, and there may be a million of them. */
const advised = new WeakMap<Bound, { about: unknown; kinds: string; findings: Finding[] }>()

/** What a person would regret about a chart as it is bound. */
export function adviceOn(
  { parts, resolved }: Chart,
  bound: Bound,
  domains: ReadonlyMap<string, Domain>,
): Finding[] {
  if (!parts.advise) return []
  const { description } = resolved
  const kinds = [...domains].map(([name, { kind }]) => `${name} ${kind.name}`).join()
  const known = advised.get(bound)
  if (known?.about === description && known.kinds === kinds) return known.findings
  const findings = parts.advise.picture(description, bound, domains, resolved.throughMeaning !== undefined)
  advised.set(bound, { about: description, kinds, findings })
  return findings
}

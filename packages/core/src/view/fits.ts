import { settleDomain } from '../bind/domain.ts'
import type { Bound, Domain } from '../bind/model.ts'
import type { Finding } from '../finding/error.ts'
import type { Found } from '../finding/found.ts'
import type { Chart } from './chart.ts'
import { chartsOf, isSpread } from './charts.ts'
import type { Spread } from './spread.ts'

/** Where a scale ends, and which of its ends may move to neat numbers. */
export type ScaleEnds = Pick<Domain, 'min' | 'max' | 'round'>
/** Where scales end, by name. */
export type Ends = ReadonlyMap<string, ScaleEnds>

/** Ends that hold those of all charts that share a scale: were they rounded in one alone, plots would not line up. */
export const joinedEnds = (all: readonly ScaleEnds[]): ScaleEnds => ({
  min: Math.min(...all.map(({ min }) => min)),
  max: Math.max(...all.map(({ max }) => max)),
  round: { min: all.some(({ round }) => round.min), max: all.some(({ round }) => round.max) },
})

/** Settles the domains of all scales, and remembers the first fits of those that keep theirs. */
export class Fits {
  private readonly first = new WeakMap<Chart, Map<string, Domain>>()

  /** For each chart its domains; scales that a spread shares have the same in all of them. */
  settle(shown: Chart | Spread, bounds: readonly Bound[]): Found<Map<string, Domain>>[] {
    const all = chartsOf(shown).map((chart, i) => this.settleChart(chart, bounds[i]))
    for (const name of isSpread(shown) ? (shown.description.share ?? []) : []) {
      const own = all.map(({ value }) => value.get(name)).filter(domain => domain !== undefined)
      const joint = joinedEnds(own)
      for (const { value } of all) {
        const domain = value.get(name)
        if (domain) value.set(name, { ...domain, ...joint })
      }
    }
    return all
  }

  private settleChart(chart: Chart, bound: Bound): Found<Map<string, Domain>> {
    const { scales } = chart.resolved.description
    const fits = this.first.get(chart) ?? new Map<string, Domain>()
    this.first.set(chart, fits)
    const findings: Finding[] = []
    const value = new Map(
      [...bound.scales].map(([name, input]) => {
        const kept = scales?.[name]?.fixed ? fits.get(name) : undefined
        const settled = settleDomain(input, scales?.[name], kept)
        findings.push(...settled.findings)
        if (input.uses.some(use => use.positions.at.length > 0)) fits.set(name, kept ?? settled.value)
        return [name, settled.value] as const
      }),
    )
    return { value, findings }
  }
}

/** Domains that reach as far as those of other charts with the same scales. */
export function widenedBy(domains: Map<string, Domain>, outer: Ends): Map<string, Domain> {
  const out = new Map(domains)
  for (const [name, ends] of outer) {
    const domain = domains.get(name)
    if (domain) out.set(name, { ...domain, ...joinedEnds([domain, ends]) })
  }
  return out
}

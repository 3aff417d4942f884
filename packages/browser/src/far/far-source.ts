import type { Chart, Spread } from '@dapplo/core'
import { type Frozen, frozenTable, ready, remoteEngine } from '@dapplo/core/far'
import { answeredElsewhere, tablesOf } from '@dapplo/core/internal'
import type { TableOf } from '@dapplo/core/internal-files'

/** Tables of a chart file whose rows stay in a database: what was answered when it was written, and what an endpoint adds. */
export const farTableOf: TableOf = (name, { frozen, endpoint }, options) =>
  frozen && 'facts' in frozen
    ? frozenTable(
        name,
        frozen as unknown as Frozen,
        options,
        endpoint === undefined ? undefined : remoteEngine(endpoint),
      )
    : undefined

/** Waits for values that are elsewhere. */
export const arrived = async (chart: Chart | Spread): Promise<void> => {
  if (tablesOf(chart).some(answeredElsewhere)) await ready(chart)
}

import type { Labels } from '../../describe/model.ts'
import { pieLabels, planPie } from './pie-labels.ts'
import { shapeLabels } from './shape-labels.ts'

/** Words at shapes, placed so that none overlap: `label` needs it, and so do kinds that are read by words. */
export interface PlacesLabels extends Labels {
  shapes: typeof shapeLabels
  planPie: typeof planPie
  pie: typeof pieLabels
}

/** The part that places words at shapes, for `chartMaker({}, { labels })` of the small face. */
export const labels: PlacesLabels = { part: 'labels', shapes: shapeLabels, planPie, pie: pieLabels }

import * as v from 'valibot'
import { words } from '../table/cells/column-schema.ts'

/** `auto`: names at the ends of lines where there is room, else under the heading. `inside …`: in a corner of the plot. */
export const legendPlace = v.picklist([
  'auto',
  'ends',
  'top',
  'right',
  'bottom',
  'left',
  'inside top left',
  'inside top right',
  'inside bottom left',
  'inside bottom right',
])
/** False for none. */
export const oneLegend = v.union([
  v.literal(false),
  legendPlace,
  v.strictObject({
    at: v.optional(legendPlace),
    /** How many entries stand side by side. */
    columns: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1))),
    title: v.optional(words),
    /** Where along the plot it stands, above or below it. Default `start`. */
    align: v.optional(v.picklist(['start', 'middle', 'end'])),
  }),
])
/** For all legends, or by what they explain. */
export const legend = v.union([
  oneLegend,
  v.strictObject({
    color: v.optional(oneLegend),
    size: v.optional(oneLegend),
    shape: v.optional(oneLegend),
    dash: v.optional(oneLegend),
  }),
])

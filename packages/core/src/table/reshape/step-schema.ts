import * as v from 'valibot'
import type { Conditions } from '../group/where.ts'

/** Conditions are phrases with values: they are read with the table at hand. */
export const conditions = v.record(v.string(), v.unknown()) as unknown as v.GenericSchema<Conditions>

/** One step of shaping a table; steps follow each other. */
export const step = v.union([
  /** Columns become rows: all but those to keep, their names in one column and their values in another. */
  v.strictObject({
    long: v.strictObject({ keep: v.array(v.string()), name: v.string(), value: v.string() }),
  }),
  /** Rows become columns: one for each value of `name`, holding `value`. */
  v.strictObject({ wide: v.strictObject({ name: v.string(), value: v.string() }) }),
  /** Only rows that meet all conditions. */
  v.strictObject({ where: conditions }),
  /** The last row of each value of a column. */
  v.strictObject({ lastOf: v.string() }),
  /** Rows in the order of a column; `down` for the greatest first. */
  v.strictObject({ sort: v.string(), order: v.optional(v.picklist(['up', 'down'])) }),
  /** One row for each combination of the first phrases, with the others summed up. */
  v.strictObject({ group: v.array(v.string()), values: v.array(v.string()) }),
  /** The same rows with some columns read as numbers, times or names. */
  v.strictObject({ types: v.record(v.string(), v.picklist(['number', 'time', 'text'])) }),
])

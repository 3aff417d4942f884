import * as v from 'valibot'
import { column } from '../table/cells/column-schema.ts'
import { houseWords } from '../words/words-schema.ts'
import type { Theme } from './theme.ts'

/**
 * Milliseconds, and easing in CSS syntax; false for none. `spring` instead of duration and easing: an interrupted glide
 * then keeps its speed. `stagger`: milliseconds from the first shape to the last.
 */
export const motion = v.union([
  v.literal(false),
  v.strictObject({
    /** Milliseconds. */
    duration: v.optional(v.number()),
    /** Milliseconds before it begins. */
    delay: v.optional(v.number()),
    /** In CSS syntax. */
    easing: v.optional(v.string()),
    /** Instead of duration and easing. */
    spring: v.optional(
      v.union([
        v.literal(true),
        v.strictObject({ stiffness: v.optional(v.number()), damping: v.optional(v.number()) }),
      ]),
    ),
    /** Milliseconds from the first shape to the last. */
    stagger: v.optional(v.pipe(v.number(), v.minValue(0))),
  }),
])

const color = v.optional(v.string())
const colors = v.optional(v.pipe(v.array(v.string()), v.readonly()))
const size = v.optional(v.number())

/** The tokens of a theme that differ; see `Theme`. */
export const tokens = v.strictObject({
  font: v.optional(v.string()),
  background: color,
  surface: color,
  text: color,
  muted: color,
  hairline: color,
  stripe: color,
  strong: color,
  missing: color,
  colors,
  sequential: colors,
  diverging: colors,
  sizes: v.optional(v.strictObject({ title: size, subtitle: size, text: size, caption: size })),
} satisfies Record<Exclude<keyof Theme, 'name'>, v.GenericSchema>)

/** The style of an application, over both themes. Every part may be left out. */
export const house = v.strictObject({
  /** A CSS font family for all words. */
  font: v.optional(v.string()),
  /** Category colours in order of use, for both themes. */
  palette: colors,
  /** Tokens of the light theme that differ; see `Theme`. */
  day: v.optional(tokens),
  /** Tokens of the dark theme that differ; see `Theme`. */
  night: v.optional(tokens),
  /** A BCP 47 language tag, where charts are not told one. */
  locale: v.optional(v.string()),
  /** The zone of times, where their column is not told one: in files, for the tables that are read. */
  timeZone: v.optional(v.string()),
  /** Options of columns by name, where their table has none: in files, for the tables that are read. */
  columns: v.optional(v.record(v.string(), column)),
  /** Words for those of the library, such as `{ 'Mean {what}': 'Mittel: {what}' }`; numbers and dates follow the locale. */
  words: v.optional(houseWords),
  /** How charts move, where their description does not say. */
  motion: v.optional(motion),
})

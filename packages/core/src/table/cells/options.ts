import type { InferOutput } from 'valibot'
import type { column, span, value, words } from './column-schema.ts'

export type { Format } from './column-schema.ts'

/** A datum. In JSON a time is an ISO 8601 string, read by its scale. */
export type Value = InferOutput<typeof value>
/** Shown as text, never as markup; `{phrase}` is filled in from the rows it stands for, `{{` is a brace. */
export type Words = InferOutput<typeof words>
/** A length of time. */
export type Span = InferOutput<typeof span>
/** What is known of a column beyond its cells. */
export type Column = InferOutput<typeof column>

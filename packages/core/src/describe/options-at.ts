import type * as v from 'valibot'

type Schema = v.GenericSchema<any, any>
/** What is looked at of a schema, whatever its type. */
interface Looked {
  type: string
  wrapped?: Schema
  options?: readonly unknown[]
  entries?: Readonly<Record<string, Schema>>
  item?: Schema
  value?: unknown
  literal?: unknown
  getter?: (input: unknown) => Schema
}

/** A schema and what it may be, without what is wrapped around it. */
function alternatives(schema: Schema): Looked[] {
  const own = schema as unknown as Looked
  if (own.wrapped) return alternatives(own.wrapped)
  if (own.type === 'lazy' && own.getter) return alternatives(own.getter(undefined))
  if (own.type === 'union' || own.type === 'intersect' || own.type === 'variant')
    return (own.options as Schema[]).flatMap(alternatives)
  return [own]
}

/** What may stand at a path. */
function at(schema: Schema, path: readonly (string | number)[]): Looked[] {
  const here = alternatives(schema)
  if (path.length === 0) return here
  const [key, ...rest] = path
  return here.flatMap(own => {
    if (own.entries && Object.hasOwn(own.entries, key)) return at(own.entries[key], rest)
    if (own.type === 'array' && own.item) return at(own.item, rest)
    if (own.type === 'record' && own.value) return at(own.value as Schema, rest)
    return []
  })
}

/** The options of the objects that may stand at a path. */
export const optionsAt = (schema: Schema, path: readonly (string | number)[]): string[] => [
  ...new Set(at(schema, path).flatMap(({ entries }) => Object.keys(entries ?? {}))),
]

/** The values that may stand at a path by name. */
export const valuesAt = (schema: Schema, path: readonly (string | number)[]): unknown[] => [
  ...new Set(
    at(schema, path).flatMap(({ type, options, literal }) =>
      type === 'literal' ? [literal] : type === 'picklist' ? (options ?? []) : [],
    ),
  ),
]

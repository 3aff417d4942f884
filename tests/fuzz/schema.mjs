// Random data in the form of a JSON Schema: whatever the published schema of chart files allows.
import fc from 'fast-check'

const OFTEN = ['x', 'y', 'rows']

/** `known`: values to use for texts whose meaning the schema cannot tell, by the name of the property. */
export function fromSchema(schema, known, depth = 0, name = '') {
  if (schema.const !== undefined) return fc.constant(schema.const)
  if (schema.enum) return fc.constantFrom(...schema.enum)
  if (Object.hasOwn(known, name) && (schema.type === 'string' || !schema.type || name === 'rows'))
    return known[name]
  const choices = schema.anyOf ?? schema.oneOf
  if (choices) return fc.oneof(...choices.map(one => fromSchema(one, known, depth, name)))
  switch (schema.type) {
    case 'string':
      return known.text
    case 'boolean':
      return fc.boolean()
    case 'null':
      return fc.constant(null)
    case 'integer':
      return fc.integer({ min: schema.minimum ?? -5, max: schema.maximum ?? 40 })
    case 'number':
      return fc.oneof(
        fc.double({ min: schema.minimum ?? -1e3, max: schema.maximum ?? 1e3, noNaN: true }),
        fc.constantFrom(
          ...[0, 1, 1e-9, 1e308].filter(n => n >= (schema.minimum ?? n) && n <= (schema.maximum ?? n)),
        ),
      )
    case 'array': {
      const item = schema.items ? fromSchema(schema.items, known, depth + 1, name) : known.value
      return fc.array(item, { minLength: schema.minItems ?? 0, maxLength: Math.max(schema.minItems ?? 0, 3) })
    }
    case 'object': {
      const { properties = {}, required = [], additionalProperties } = schema
      const fixed = Object.entries(properties).map(([key, one]) => {
        const value = fromSchema(one, known, depth + 1, key)
        // What nothing can be drawn without is there more often than not.
        const rarely = OFTEN.includes(key) ? 0.25 : depth === 0 ? 10 : 4
        return required.includes(key)
          ? [key, value]
          : [
              key,
              fc.oneof(
                { arbitrary: fc.constant(undefined), weight: rarely * 4 },
                { arbitrary: value, weight: 4 },
              ),
            ]
      })
      const free =
        additionalProperties && typeof additionalProperties === 'object'
          ? fc.dictionary(known.key, fromSchema(additionalProperties, known, depth + 1, name), { maxKeys: 2 })
          : fc.constant({})
      return fc.tuple(fc.record(Object.fromEntries(fixed)), free).map(([own, more]) => ({
        ...more,
        ...Object.fromEntries(Object.entries(own).filter(([, v]) => v !== undefined)),
      }))
    }
    default:
      return known.value
  }
}

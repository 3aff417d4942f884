// Writes the JSON Schema of chart files, which editors complete and check by, from the schema that the library checks with.
// Usage: node scripts/schema.mjs [--check]
import { readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { toJsonSchema } from '@valibot/to-json-schema'
import { chartFile, spreadFile } from '../packages/core/dist/describe/schema.js'

const options = { errorMode: 'ignore', typeMode: 'input' }
const schema = {
  $schema: 'http://json-schema.org/draft-07/schema#',
  title: 'A Dapplo chart file',
  anyOf: [chartFile, spreadFile].map(one => {
    const { $schema: _, ...rest } = toJsonSchema(one, options)
    return rest
  }),
}
const path = fileURLToPath(new URL('../docs/chart.schema.json', import.meta.url))
const text = `${JSON.stringify(schema, null, 1)}\n`
if (!process.argv.includes('--check')) writeFileSync(path, text)
else if (readFileSync(path, 'utf8') !== text) {
  console.error('docs/chart.schema.json is not what the schema says: run node scripts/schema.mjs.')
  process.exitCode = 1
}

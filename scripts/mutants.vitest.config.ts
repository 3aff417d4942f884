import { fileURLToPath } from 'node:url'
import all from '../vitest.config.ts'

/**
 * The tests of the core's sources, and the second reader over the same sources: tests of what is built do not see a change
 * in a source.
 */
const core = (all.test!.projects as any[]).find(project => project.test.name === 'core')
const node = fileURLToPath(new URL('../packages/node/src/index.ts', import.meta.url))

export default {
  ...core,
  resolve: { alias: [{ find: '@dapplo/node', replacement: node }, ...core.resolve.alias] },
  test: {
    ...core.test,
    include: ['packages/{core,browser,compose}/src/**/*.test.ts', 'tests/reader.test.ts'],
  },
}

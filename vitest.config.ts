import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'
import { BaseSequencer, type TestSpecification } from 'vitest/node'
import { findFirefox } from './scripts/browsers.mjs'
import { PATIENCE } from './tests/support/waiting.ts'

const source = (path: string) => fileURLToPath(new URL(`packages/${path}`, import.meta.url))

const IN_FIREFOX = [
  'page',
  'explore',
  'access',
  'spoken',
  'change',
  'compose',
  'react',
  'frameworks',
  'waiting',
  'places',
  'answers',
  'touch',
  'wcag',
  'worker',
  'far-in-page',
  // Slow there: only where everything is tried.
  ...(process.env.DAPPLO_ALL === undefined ? [] : ['sequences']),
].map(name => `tests/${name}.test.ts`)

/** Files of one project after each other, so that a worker reads the sources and opens its browser once. */
class ByProject extends BaseSequencer {
  override async sort(files: TestSpecification[]) {
    const order = ['firefox', 'public', 'core']
    const place = (file: TestSpecification) => order.indexOf(file.project.name)
    return (await super.sort(files)).sort((a, b) => place(a) - place(b))
  }
}

const common = { setupFiles: ['tests/support/properties.ts'], testTimeout: PATIENCE, isolate: false }
/** What is built, used as its users would. */
const used = { ...common, hookTimeout: 2 * PATIENCE, globalSetup: ['tests/support/shared.ts'] }

export default defineConfig({
  test: {
    // One more than there are processors, as tests of pages also wait.
    maxWorkers: availableParallelism() + 1,
    sequence: { sequencer: ByProject },
    // `core`: computation, tested at its source. `public`: what is built, used as its users would.
    projects: [
      {
        resolve: {
          alias: [
            { find: '@dapplo/core/inter', replacement: source('core/src/theme/text-width.ts') },
            { find: '@dapplo/core/english', replacement: source('core/src/scale/english.ts') },
            { find: '@dapplo/core/terminal', replacement: source('core/src/paint/terminal.ts') },
            { find: '@dapplo/core/small', replacement: source('core/src/small.ts') },
            { find: '@dapplo/core/sentence', replacement: source('core/src/sentence.ts') },
            { find: '@dapplo/core/far', replacement: source('core/src/far.ts') },
            { find: '@dapplo/core/internal-files', replacement: source('core/src/internal-files.ts') },
            { find: 'dapplo/internal', replacement: source('browser/src/internal.ts') },
            { find: '@dapplo/core/internal', replacement: source('core/src/internal.ts') },
            { find: '@dapplo/core', replacement: source('core/src/index.ts') },
          ],
        },
        test: {
          ...common,
          name: 'core',
          include: ['packages/*/src/**/*.test.ts'],
        },
      },
      { test: { ...used, name: 'public', include: ['tests/**/*.test.ts'] } },
      // The same tests of pages, written once, in Firefox where it is installed.
      ...(findFirefox()
        ? [{ test: { ...used, name: 'firefox', env: { DAPPLO_ENGINE: 'firefox' }, include: IN_FIREFOX } }]
        : []),
    ],
  },
})

import all from '../vitest.config.ts'

/** The tests of the core's sources, by themselves: those of what is built do not see a change in a source. */
const core = (all.test!.projects as any[]).find(project => project.test.name === 'core')

export default {
  ...core,
  test: { ...core.test, include: ['packages/{core,browser,compose}/src/**/*.test.ts'] },
}

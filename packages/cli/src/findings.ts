import { measureInter } from '@dapplo/core/inter'
import { type Chart, type Finding, type PictureFrame, type Spread, View } from '@dapplo/node'
import { tell } from './say.ts'

/** What a person would regret about a chart. */
export const findingsOf = (chart: Chart | Spread, frame: PictureFrame): readonly Finding[] =>
  new View(chart, {}, { width: 1280, height: 800, measure: measureInter, ...frame }).findings

/** Says findings on standard error; under --strict they make the command fail. */
export function tellFindings(findings: readonly Finding[], strict: boolean): void {
  for (const finding of findings) tell(`${finding.message}. ${finding.remedy}`)
  if (strict && findings.length > 0) process.exitCode = 1
}

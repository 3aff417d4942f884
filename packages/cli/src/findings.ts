import { withCode } from '@dapplo/core/internal'
import type { Finding } from '@dapplo/node'
import { tell } from './say.ts'

/** Says findings on standard error; under --strict they make the command fail. */
export function tellFindings(findings: readonly Finding[], strict: boolean): void {
  for (const finding of findings) tell(withCode(`${finding.message}. ${finding.remedy}`, finding.code))
  if (strict && findings.length > 0) process.exitCode = 1
}

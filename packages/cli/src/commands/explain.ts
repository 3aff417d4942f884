import { readFileSync } from 'node:fs'
import { DapploError } from '@dapplo/core'
import { suggest } from '@dapplo/core/internal'
import type { Command } from 'commander'
import { say } from '../say.ts'

/** What is known of a code: written by the build from the sources. `…`: what is known only when it is said. */
interface Explained {
  code: string
  kinds: ('error' | 'finding')[]
  cases: { says: string[]; helps: string[] }[]
}

const MEANS = {
  error: 'An error: there is no picture until this is mended.',
  finding: 'A finding: a picture was drawn, and this is probably a mistake.',
}

export function addExplain(program: Command): void {
  program
    .command('explain')
    .summary('say what the code in brackets after a message means')
    .description(
      'Says what a code means, when it is said and what helps. Without a code it lists all of them.',
    )
    .argument('[code]', 'the code, such as unknown-column')
    .addHelpText('after', '\nExample:\n  dapplo explain unknown-column')
    .action((given: string | undefined) => {
      const codes: Explained[] = JSON.parse(readFileSync(new URL('../codes.json', import.meta.url), 'utf8'))
      const wanted = given?.replace(/^\[|\]$/g, '').toLowerCase()
      if (wanted === undefined) {
        for (const { code, kinds, cases } of codes)
          say(`${code.padEnd(24)}${kinds[0].padEnd(9)}${cases[0]?.says[0] ?? ''}\n`)
        return
      }
      const found = codes.find(({ code }) => code === wanted)
      if (!found)
        throw new DapploError(
          'unknown-code',
          `There is no code "${given}"`,
          '',
          suggest(
            wanted,
            codes.map(({ code }) => code),
            '"dapplo explain" lists all codes.',
          ),
        )
      say(`${found.code}\n${found.kinds.map(kind => MEANS[kind]).join('\n')}\n`)
      for (const { says, helps } of found.cases)
        say(`\n  ${says.join('\n  ')}\n${helps.map(help => `    → ${help}\n`).join('')}`)
    })
}

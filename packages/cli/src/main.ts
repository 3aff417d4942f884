#!/usr/bin/env node
import { DapploError } from '@dapplo/core'
import { writeEnglishQuickly } from '@dapplo/core/english'
import { plainText } from '@dapplo/core/internal'
import { Command, CommanderError } from 'commander'
import { end } from './at-end.ts'
import { tell } from './say.ts'

/** Each command is loaded when it is asked for: most charts take less time to draw than all commands to load. */
const COMMANDS: Readonly<Record<string, () => Promise<(program: Command) => void>>> = {
  look: async () => (await import('./commands/look.ts')).addLook,
  suggest: async () => (await import('./commands/suggest.ts')).addSuggest,
  draw: async () => (await import('./commands/draw.ts')).addDraw,
  check: async () => (await import('./commands/check.ts')).addCheck,
  describe: async () => (await import('./commands/describe.ts')).addDescribe,
  embed: async () => (await import('./commands/embed.ts')).addEmbed,
  serve: async () => (await import('./commands/serve.ts')).addServe,
  demo: async () => (await import('./commands/demo.ts')).addDemo,
  explain: async () => (await import('./commands/explain.ts')).addExplain,
  completion: async () => (await import('./commands/completion.ts')).addCompletion,
}

writeEnglishQuickly()

const program = new Command('dapplo')
  .description('Look at data, draw charts, check descriptions, and put charts into pages.')
  .version('0.1.0')
  .showHelpAfterError('Run dapplo --help for what there is.')
  .exitOverride()
  .configureOutput({
    outputError: (text, write) => write(plainText(text.replace(/^error: /, 'dapplo: '))),
  })
const [wanted] = process.argv.slice(2)
// Help and completion speak of all of them.
const alone = wanted !== undefined && wanted !== 'completion' && Object.hasOwn(COMMANDS, wanted)
for (const load of alone ? [COMMANDS[wanted]] : Object.values(COMMANDS)) (await load())(program)

// A reader that closes early, such as head, is no error.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(0)
  tell(`Standard output cannot be written: ${error.code === 'ENOSPC' ? 'the disk is full' : error.code}.`)
  process.exit(2)
})

try {
  await program.parseAsync()
} catch (error) {
  if (error instanceof CommanderError) process.exitCode = error.exitCode === 0 ? 0 : 2
  else if (error instanceof DapploError) {
    tell(error.logLine)
    process.exitCode = 2
  } else {
    tell(`This is a fault of dapplo itself: ${error instanceof Error ? error.stack : String(error)}`)
    process.exitCode = 70
  }
} finally {
  await end()
}

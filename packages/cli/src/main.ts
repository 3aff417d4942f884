#!/usr/bin/env node
import { DapploError } from '@dapplo/core'
import { Command, CommanderError } from 'commander'
import { addCheck } from './commands/check.ts'
import { addCompletion } from './commands/completion.ts'
import { addDemo } from './commands/demo.ts'
import { addDraw } from './commands/draw.ts'
import { addEmbed } from './commands/embed.ts'
import { addLook } from './commands/look.ts'
import { addServe } from './commands/serve.ts'

const program = new Command('dapplo')
  .description('Look at data, draw charts, check descriptions, and put charts into pages.')
  .version('0.1.0')
  .showHelpAfterError('Run dapplo --help for what there is.')
  .exitOverride()
  .configureOutput({ outputError: (text, write) => write(text.replace(/^error: /, 'dapplo: ')) })
addLook(program)
addDraw(program)
addCheck(program)
addEmbed(program)
addServe(program)
addDemo(program)
addCompletion(program)

// A reader that closes early, such as head, is no error.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(0)
  throw error
})

try {
  await program.parseAsync()
} catch (error) {
  if (error instanceof CommanderError) process.exitCode = error.exitCode === 0 ? 0 : 2
  else if (error instanceof DapploError) {
    process.stderr.write(`dapplo: ${error.sentence}\n`)
    process.exitCode = 2
  } else throw error
}

import { plainText } from '@dapplo/core/internal'

/**
 * Everything that the command says to people goes through here: names of files, columns and cells come from anywhere, and
 * must not move a terminal's cursor, set its title or turn its letters around.
 */

/** Says something on standard output. */
export const say = (text: string): void => {
  process.stdout.write(plainText(text))
}

/** Tells of something on standard error, with the name of the command before it. */
export const tell = (text: string): void => {
  process.stderr.write(`dapplo: ${plainText(text)}\n`)
}

import { watch } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { DapploError, readFileText } from '@dapplo/node'

/** Milliseconds after a change before it counts, since editors write in several steps. */
const CALM = 120

/** The files that an input is made from: itself, and the data that its description names. */
export function filesOf(input: string): string[] {
  const files = [input]
  if (!input.endsWith('.chart.json')) return files
  try {
    const { tables } = JSON.parse(readFileText(input)) as { tables?: Record<string, { url?: unknown }> }
    for (const { url } of Object.values(tables ?? {}))
      if (typeof url === 'string' && !/^[a-z]+:/i.test(url)) files.push(join(dirname(input), url))
  } catch {
    // A description that cannot be read now may be mended; it is watched all the same.
  }
  return files
}

/** Calls back whenever one of the files changes, until the returned function is called. Files that are replaced are followed. */
export function onChange(files: () => string[], act: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined
  const folders = new Map<string, ReturnType<typeof watch>>()
  const follow = () => {
    for (const file of files()) {
      const folder = dirname(file)
      if (folders.has(folder)) continue
      folders.set(
        folder,
        watch(folder, (_, name) => {
          if (name !== null && !files().some(one => basename(one) === name)) return
          clearTimeout(timer)
          timer = setTimeout(() => {
            follow()
            act()
          }, CALM)
        }),
      )
    }
  }
  follow()
  return () => {
    clearTimeout(timer)
    for (const watcher of folders.values()) watcher.close()
  }
}

/** Draws again at every change, until the command is interrupted. What goes wrong is said, and the watch goes on. */
export function watchFiles(input: string, draw: () => Promise<void>): Promise<void> {
  if (input === '-')
    throw new DapploError('bad-flag', 'Standard input cannot be watched', '--watch', 'Name a file.')
  return new Promise(resolve => {
    const stop = onChange(
      () => filesOf(input),
      () => {
        draw().then(
          () => process.stderr.write(`dapplo: drawn again at ${new Date().toLocaleTimeString()}\n`),
          error =>
            process.stderr.write(
              `dapplo: ${error instanceof DapploError ? error.sentence : String(error)}\n`,
            ),
        )
      },
    )
    process.stderr.write('dapplo: watching; press Ctrl+C to stop\n')
    process.once('SIGINT', () => {
      stop()
      resolve()
    })
  })
}

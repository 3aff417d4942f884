import { watch } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { DapploError, readFileText } from '@dapplo/node'
import { tell } from './say.ts'

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
      try {
        const watcher = watch(folder, (_, name) => {
          if (name !== null && !files().some(file => basename(file) === name)) return
          clearTimeout(timer)
          timer = setTimeout(() => {
            follow()
            act()
          }, CALM)
        })
        // A folder that goes away is looked for again at the next change.
        watcher.on('error', () => {
          watcher.close()
          folders.delete(folder)
        })
        folders.set(folder, watcher)
      } catch {
        // A folder that is not there yet has nothing to tell; whoever reads the file says so.
      }
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
          () => tell(`drawn again at ${new Date().toLocaleTimeString()}`),
          error => tell(error instanceof DapploError ? error.logLine : String(error)),
        )
      },
    )
    tell('watching; press Ctrl+C to stop')
    process.once('SIGINT', () => {
      stop()
      resolve()
    })
  })
}

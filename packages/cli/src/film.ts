import { DapploError, type FilmFormat, type FilmOf, type PictureFrame, writeFilm } from '@dapplo/node'
import { progressBar } from './progress.ts'
import { tell } from './say.ts'

/** Draws a moving picture, with its progress on a terminal; Ctrl+C ends it and leaves nothing behind. */
export async function drawFilm(
  shown: FilmOf,
  format: FilmFormat,
  frame: PictureFrame,
  flags: Record<string, any>,
): Promise<void> {
  if (flags.out === undefined || flags.out === '-')
    throw new DapploError(
      'bad-flag',
      'A moving picture needs a file',
      '--out',
      'Name one, as in --out race.gif.',
    )
  const rate = flags.rate === undefined ? undefined : Number(flags.rate)
  if (rate !== undefined && !(rate >= 1 && rate <= 60))
    throw new DapploError('bad-flag', `"${flags.rate}" is no rate`, '--rate', 'Write a number from 1 to 60.')
  const hold = flags.hold === undefined ? undefined : Number(flags.hold)
  if (hold !== undefined && !(hold >= 0 && hold <= 60_000))
    throw new DapploError(
      'bad-flag',
      `"${flags.hold}" is no time in milliseconds`,
      '--hold',
      'Write a number from 0 to 60000.',
    )
  const bar = progressBar('Drawing')
  const stop = new AbortController()
  let exitCode = 0
  const interrupted = (signal: 'SIGINT' | 'SIGTERM') => {
    exitCode = signal === 'SIGINT' ? 130 : 143
    stop.abort()
  }
  // A GIF is written at its very end, so that the system may end the command at once; other films leave a part to be removed.
  const heeds = format === 'webm' || format === 'mp4'
  if (heeds) for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, interrupted)
  try {
    await writeFilm(shown, flags.out, format, { frame, rate, hold, progress: bar.show, signal: stop.signal })
  } catch (error) {
    if (exitCode === 0) throw error
    bar.end()
    tell('The film was stopped before its end. Nothing was written.')
    process.exit(exitCode)
  } finally {
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.off(signal, interrupted)
    bar.end()
  }
}

import { spawn } from 'node:child_process'
import { renameSync, rmSync } from 'node:fs'
import {
  type Chart,
  type Context2D,
  DapploError,
  paintCanvas,
  type Spread,
  type Surroundings,
} from '@dapplo/core'
import { periodsInTime } from '@dapplo/core/internal'
import { notWritten, placeFor, systemCode, writeWhole } from './files.ts'
import { canvasModule } from './fonts.ts'
import { type PictureFrame, surroundingsOf, wholeFrame } from './picture.ts'
import { type FilmStep, isSteps, reelOf } from './reel.ts'

/** The formats of moving pictures. */
export type FilmFormat = 'gif' | 'apng' | 'webm' | 'mp4'

/** How a film is made: its frame and pace, who is told, and what ends it. */
export interface FilmOptions {
  frame?: PictureFrame
  /** Pictures a second. Default 20. */
  rate?: number
  /** Milliseconds that each step stays in a film of updates. Default 600. */
  hold?: number
  /** Milliseconds that the last picture stays. Default 1500. */
  rest?: number
  /** Told after each picture: how many are done, and of how many. */
  progress?: (done: number, all: number) => void
  /** Ends the work; then nothing is written. */
  signal?: AbortSignal
}

const SIZE = { width: 960, height: 600 }

/** What a film is of: a chart, or updates, beginning with the chart that is shown first. */
export type FilmOf = Chart | Spread | readonly [Chart | Spread, ...FilmStep[]]

const stopped = () =>
  new DapploError('stopped', 'The film was stopped before its end', '', 'Nothing was written.')

/** The pictures of a film as RGBA bytes, one after the other; the same bytes are used again for each. */
async function* picturesOf(
  shown: FilmOf,
  { frame = {}, rate = 20, hold = 600, rest = 1500, progress, signal }: FilmOptions,
): AsyncGenerator<{ data: Uint8Array; width: number; height: number; count: number }> {
  const whole = wholeFrame(frame, SIZE)
  if (!isSteps(shown)) await periodsInTime(shown, {}, whole)
  const { count, scenes } = reelOf(shown, whole, { rate, hold, rest, folder: frame.folder ?? '.' })
  const density = frame.density ?? 1
  const { createCanvas } = canvasModule()
  // Films are made of even numbers of pixels, which some formats insist on.
  const even = (length: number) => Math.max(2, Math.round((length * density) / 2) * 2)
  const [width, height] = [even(whole.width), even(whole.height)]
  const canvas = createCanvas(width, height)
  const context = canvas.getContext('2d')
  let surroundings: Surroundings | undefined
  let hrefs = ''
  let done = 0
  for (const scene of scenes()) {
    // Pictures are loaded anew only where a step brings others.
    const needed = scene.batches.flatMap(batch => (batch.kind === 'images' ? batch.hrefs : [])).join(' ')
    if (!surroundings || needed !== hrefs) surroundings = await surroundingsOf(scene)
    hrefs = needed
    if (signal?.aborted) throw stopped()
    paintCanvas(scene, context as unknown as Context2D, density, surroundings)
    const { data } = context.getImageData(0, 0, width, height)
    yield {
      data: new Uint8Array(data.buffer, data.byteOffset, data.byteLength),
      width,
      height,
      count,
    }
    done++
    progress?.(done, count)
    // Others get their turn: a signal, a progress bar.
    if (done % 8 === 0) await new Promise(resolve => setImmediate(resolve))
  }
}

/**
 * A chart as a moving picture, GIF or animated PNG: its periods, or how it appears. A list of steps is a film of updates:
 * charts that turn into each other, and functions that change their tables.
 */
export async function toFilm(
  shown: FilmOf,
  format: 'gif' | 'apng',
  options: FilmOptions = {},
): Promise<Uint8Array> {
  const delay = 1000 / (options.rate ?? 20)
  if (format === 'gif') {
    const { GifEncoder } = canvasModule()
    let encoder: InstanceType<typeof GifEncoder> | undefined
    for await (const { data, width, height } of picturesOf(shown, options)) {
      encoder ??= new GifEncoder(width, height, { repeat: 0, quality: 10 })
      encoder.addFrame(data, width, height, { delay: Math.round(delay) })
    }
    return encoder!.finish()
  }
  const { default: upng } = await import('upng-js')
  const frames: ArrayBuffer[] = []
  let size = { width: 0, height: 0 }
  for await (const { data, width, height } of picturesOf(shown, options)) {
    frames.push(data.slice().buffer as ArrayBuffer)
    size = { width, height }
  }
  return new Uint8Array(
    upng.encode(
      frames,
      size.width,
      size.height,
      0,
      frames.map(() => Math.round(delay)),
    ),
  )
}

const CODECS: Record<'webm' | 'mp4', readonly string[]> = {
  webm: [
    '-c:v',
    'libvpx-vp9',
    '-b:v',
    '0',
    '-crf',
    '32',
    '-cpu-used',
    '4',
    '-row-mt',
    '1',
    '-pix_fmt',
    'yuv420p',
    '-f',
    'webm',
  ],
  mp4: ['-c:v', 'libx264', '-crf', '20', '-pix_fmt', 'yuv420p', '-movflags', '+faststart', '-f', 'mp4'],
}

/**
 * Writes a chart as a moving picture, whole or not at all. WebM and MP4 are made by the system's `ffmpeg`; throws
 * `no-ffmpeg` where there is none.
 */
export async function writeFilm(
  shown: FilmOf,
  path: string,
  format: FilmFormat,
  options: FilmOptions = {},
): Promise<void> {
  if (format === 'gif' || format === 'apng') {
    const film = await toFilm(shown, format, options)
    // Encoding is one long piece of work: who called it off meanwhile is heard now, before anything is written.
    await new Promise(resolve => setImmediate(resolve))
    if (options.signal?.aborted) throw stopped()
    writeWhole(path, film)
    return
  }
  const { target, part } = placeFor(path)
  if (part === undefined)
    throw new DapploError(
      'not-written',
      `${path} cannot hold a film: it is no plain file`,
      path,
      'Name a file, or write a .gif or .apng.',
    )
  try {
    await encodeByFfmpeg(shown, part, format, options)
    renameSync(part, target)
  } catch (error) {
    throw systemCode(error) === undefined || error instanceof DapploError ? error : notWritten(path, error)
  } finally {
    rmSync(part, { force: true })
  }
}

async function encodeByFfmpeg(
  shown: FilmOf,
  unfinished: string,
  format: 'webm' | 'mp4',
  options: FilmOptions,
): Promise<void> {
  const pictures = picturesOf(shown, options)
  const first = await pictures.next()
  if (first.done) return
  const { width, height } = first.value
  const rate = String(options.rate ?? 20)
  const input = ['-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${width}x${height}`, '-r', rate, '-i', '-']
  const program = spawn('ffmpeg', ['-loglevel', 'error', '-y', ...input, ...CODECS[format], unfinished], {
    stdio: ['pipe', 'ignore', 'pipe'],
  })
  let said = ''
  program.stderr.on('data', data => {
    said += data
  })
  const ended = new Promise<void>((resolve, reject) => {
    program.on('error', error =>
      reject(
        systemCode(error) === 'ENOENT'
          ? new DapploError(
              'no-ffmpeg',
              `A ${format} film needs the program ffmpeg, which is not there`,
              '--out',
              'Install it (on Debian: apt install ffmpeg), or write a .gif or .apng.',
            )
          : error,
      ),
    )
    program.on('close', code =>
      code === 0
        ? resolve()
        : reject(
            new DapploError(
              'no-film',
              `ffmpeg failed: ${said.trim().split('\n').at(-1) ?? code}`,
              '--out',
              'Try a .gif or .apng.',
            ),
          ),
    )
  })
  // A program that ends early is told of by `ended`, not by the pipe.
  program.stdin.on('error', () => undefined)
  const write = (data: Uint8Array) =>
    program.stdin.write(data.slice())
      ? undefined
      : Promise.race([ended, new Promise(resolve => program.stdin.once('drain', resolve))])
  try {
    const writing = write(first.value.data)
    if (writing) await writing
    for await (const { data } of pictures) await write(data)
    program.stdin.end()
    await ended
  } catch (error) {
    program.kill()
    ended.catch(() => undefined)
    throw error
  }
}

import { spawn } from 'node:child_process'
import { renameSync, rmSync } from 'node:fs'
import {
  appear,
  type Chart,
  type Context2D,
  DapploError,
  Playback,
  paintCanvas,
  type Scene,
  Spread,
} from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { writeWhole } from './open.ts'
import { type PictureFrame, sceneOf, skia, surroundingsOf } from './picture.ts'

export type FilmFormat = 'gif' | 'apng' | 'webm' | 'mp4'

export interface FilmOptions {
  frame?: PictureFrame
  /** Pictures a second. Default 20. */
  rate?: number
  /** Milliseconds that the last picture stays. Default 1500. */
  rest?: number
  /** Told after each picture: how many are done, and of how many. */
  progress?: (done: number, all: number) => void
  /** Ends the work; then nothing is written. */
  signal?: AbortSignal
}

/** A film shows a chart's periods, or, where it has none, how it appears. */
interface Reel {
  count: number
  sceneAt(i: number): Scene
}

/** Milliseconds of a first appearance. */
const APPEARING = 800
const SIZE = { width: 960, height: 600 }

function reelOf(chart: Chart | Spread, frame: PictureFrame, rate: number, rest: number): Reel {
  const still = Math.round((rest / 1000) * rate)
  const whole = { ...SIZE, measure: measureInter, ...frame }
  if (!(chart instanceof Spread) && chart.resolved.throughMeaning) {
    const playback = new Playback(chart, {}, whole)
    const each = chart.resolved.description.scales?.through?.each ?? 900
    const moving = Math.max(1, Math.round(((playback.length * each) / 1000) * rate))
    const nothing = sceneOf(chart, whole)
    return {
      count: moving + 1 + still,
      sceneAt: i => playback.sceneAt((Math.min(i, moving) / moving) * playback.length) ?? nothing,
    }
  }
  const scene = sceneOf(chart, whole)
  const motion = appear(scene)
  const moving = Math.max(1, Math.round((APPEARING / 1000) * rate))
  return {
    count: moving + 1 + still,
    sceneAt: i => {
      const time = Math.min(1, i / moving)
      return motion(1 - (1 - time) ** 3, time)
    },
  }
}

/** The pictures of a film as RGBA bytes, one after the other; the same bytes are used again for each. */
async function* picturesOf(
  chart: Chart | Spread,
  { frame = {}, rate = 20, rest = 1500, progress, signal }: FilmOptions,
): AsyncGenerator<{ data: Uint8Array; width: number; height: number; count: number }> {
  const reel = reelOf(chart, frame, rate, rest)
  const density = frame.density ?? 1
  const first = reel.sceneAt(0)
  const { createCanvas } = await skia()
  // Films are made of even numbers of pixels, which some formats insist on.
  const even = (length: number) => Math.max(2, Math.round((length * density) / 2) * 2)
  const [width, height] = [even(first.width), even(first.height)]
  const canvas = createCanvas(width, height)
  const context = canvas.getContext('2d')
  const surroundings = await surroundingsOf(first)
  for (let i = 0; i < reel.count; i++) {
    if (signal?.aborted)
      throw new DapploError('stopped', 'The film was stopped before its end', '', 'Nothing was written.')
    paintCanvas(reel.sceneAt(i), context as unknown as Context2D, density, surroundings)
    const { data } = context.getImageData(0, 0, width, height)
    yield {
      data: new Uint8Array(data.buffer, data.byteOffset, data.byteLength),
      width,
      height,
      count: reel.count,
    }
    progress?.(i + 1, reel.count)
    // Others get their turn: a signal, a progress bar.
    if (i % 8 === 7) await new Promise(resolve => setImmediate(resolve))
  }
}

/** A chart as a moving picture: GIF or animated PNG. */
export async function toFilm(
  chart: Chart | Spread,
  format: 'gif' | 'apng',
  options: FilmOptions = {},
): Promise<Uint8Array> {
  const delay = 1000 / (options.rate ?? 20)
  if (format === 'gif') {
    const { GifEncoder } = await skia()
    let encoder: InstanceType<typeof GifEncoder> | undefined
    for await (const { data, width, height } of picturesOf(chart, options)) {
      encoder ??= new GifEncoder(width, height, { repeat: 0, quality: 10 })
      encoder.addFrame(data, width, height, { delay: Math.round(delay) })
    }
    return encoder!.finish()
  }
  const { default: upng } = await import('upng-js')
  const frames: ArrayBuffer[] = []
  let size = { width: 0, height: 0 }
  for await (const { data, width, height } of picturesOf(chart, options)) {
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
  webm: ['-c:v', 'libvpx-vp9', '-b:v', '0', '-crf', '32', '-pix_fmt', 'yuv420p', '-f', 'webm'],
  mp4: ['-c:v', 'libx264', '-crf', '20', '-pix_fmt', 'yuv420p', '-movflags', '+faststart', '-f', 'mp4'],
}

/**
 * Writes a chart as a moving picture, whole or not at all. WebM and MP4 are made by the system's `ffmpeg`; throws
 * `no-ffmpeg` where there is none.
 */
export async function writeFilm(
  chart: Chart | Spread,
  path: string,
  format: FilmFormat,
  options: FilmOptions = {},
): Promise<void> {
  if (format === 'gif' || format === 'apng') {
    writeWhole(path, await toFilm(chart, format, options))
    return
  }
  const part = `${path}.${process.pid}.part`
  try {
    await encodeByFfmpeg(chart, part, format, options)
    renameSync(part, path)
  } finally {
    rmSync(part, { force: true })
  }
}

async function encodeByFfmpeg(
  chart: Chart | Spread,
  part: string,
  format: 'webm' | 'mp4',
  options: FilmOptions,
): Promise<void> {
  const pictures = picturesOf(chart, options)
  const first = await pictures.next()
  if (first.done) return
  const { width, height } = first.value
  const rate = String(options.rate ?? 20)
  const input = ['-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${width}x${height}`, '-r', rate, '-i', '-']
  const program = spawn('ffmpeg', ['-loglevel', 'error', '-y', ...input, ...CODECS[format], part], {
    stdio: ['pipe', 'ignore', 'pipe'],
  })
  let said = ''
  program.stderr.on('data', data => {
    said += data
  })
  const ended = new Promise<void>((resolve, reject) => {
    program.on('error', error =>
      reject(
        (error as NodeJS.ErrnoException).code === 'ENOENT'
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

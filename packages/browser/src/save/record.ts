import { DapploError } from '@dapplo/core/small'
import type { Playing } from '../play/playing.ts'

/** Pictures a second. */
const RATE = 30
/** Milliseconds that the last picture stays. */
const REST = 1000

/** What a page films, and who is told of it. */
export interface RecordingOptions {
  /**
   * What happens in the film, such as changes of data and of the chart; it ends when this has settled and everything
   * has come to rest. Default: the chart plays from its first to its last period.
   */
  during?: () => void | Promise<void>
  /** Ends the film; then nothing is kept. */
  signal?: AbortSignal
  /** Told how far the film has come, from 0 to 1; while `during` runs, that is not known. */
  progress?: (share: number) => void
}

/** Records a chart while it changes, or while it plays. */
export async function record(
  playing: Playing | undefined,
  canvas: HTMLCanvasElement,
  moving: () => boolean,
  { during, signal, progress }: RecordingOptions,
): Promise<Blob> {
  const plays = playing && playing.length > 0 ? playing : undefined
  if (!during && !plays)
    throw new DapploError(
      'no-film',
      'This chart has no periods to film',
      'through',
      'Name a column to play through, or say by "during" what happens in the film.',
    )
  if (typeof MediaRecorder === 'undefined' || !canvas.captureStream)
    throw new DapploError(
      'no-film',
      'This browser cannot record films',
      '',
      'Use another browser, or the command dapplo draw.',
    )
  const recorder = new MediaRecorder(canvas.captureStream(RATE), { mimeType: 'video/webm' })
  const parts: Blob[] = []
  recorder.addEventListener('dataavailable', event => parts.push(event.data))
  const stopped = new Promise(resolve => recorder.addEventListener('stop', resolve))
  const frame = () => new Promise(requestAnimationFrame)
  const goOn = () => {
    if (signal?.aborted)
      throw new DapploError('stopped', 'The film was stopped before its end', '', 'Nothing was kept.')
  }
  if (!during && plays) {
    plays.pause()
    plays.goTo(0)
  }
  await frame()
  recorder.start()
  try {
    if (during) await filmed(during, moving, frame, goOn)
    else if (plays) {
      plays.play()
      while (plays.isPlaying) {
        goOn()
        progress?.(plays.at / plays.length)
        await frame()
      }
    }
    await new Promise(resolve => setTimeout(resolve, REST))
  } finally {
    if (!during) plays?.pause()
    recorder.stop()
    await stopped
  }
  progress?.(1)
  return new Blob(parts, { type: 'video/webm' })
}

/** Waits until what happens has happened, and everything that it set in motion rests. */
async function filmed(
  during: () => void | Promise<void>,
  moving: () => boolean,
  frame: () => Promise<unknown>,
  goOn: () => void,
): Promise<void> {
  let settled = false
  const done = Promise.resolve()
    .then(during)
    .finally(() => {
      settled = true
    })
  // What fails is told of below, also when the film is stopped first.
  done.catch(() => undefined)
  let quiet = 0
  // Changes are drawn with the next frame, so one quiet frame is not yet rest.
  while (!settled || quiet < 3) {
    goOn()
    await frame()
    quiet = settled && !moving() ? quiet + 1 : 0
  }
  await done
}

import { DapploError } from '@dapplo/core/small'
import type { Playing } from './playing.ts'

/** Pictures a second. */
const RATE = 30
/** Milliseconds that the last picture stays. */
const REST = 1000

/** Records a chart while it plays from its first to its last period. */
export async function record(
  playing: Playing | undefined,
  canvas: HTMLCanvasElement,
  { signal, progress }: { signal?: AbortSignal; progress?: (share: number) => void },
): Promise<Blob> {
  if (!playing || playing.length === 0)
    throw new DapploError(
      'no-film',
      'This chart has no periods to film',
      'through',
      'Name a column to play through.',
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
  playing.pause()
  playing.goTo(0)
  await frame()
  recorder.start()
  playing.play()
  try {
    while (playing.isPlaying) {
      if (signal?.aborted)
        throw new DapploError('stopped', 'The film was stopped before its end', '', 'Nothing was kept.')
      progress?.(playing.at / playing.length)
      await frame()
    }
    await new Promise(resolve => setTimeout(resolve, REST))
  } finally {
    playing.pause()
    recorder.stop()
    await stopped
  }
  progress?.(1)
  return new Blob(parts, { type: 'video/webm' })
}

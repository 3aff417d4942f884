import { DapploError, type State } from '@dapplo/core/small'
import type { Live } from '../live/model.ts'

/**
 * What a chart in a frame and the page around it say to each other, as messages `{ dapplo, … }`:
 * from the chart `{ dapplo: 'size', height }`, `{ dapplo: 'state', state }` and, where something could not be done,
 * `{ dapplo: 'problem', problem }`; to the chart `{ dapplo: 'set', state }`, `{ dapplo: 'theme', theme: 'day' | 'night' }`
 * and `{ dapplo: 'ask' }`, which is answered with size and state: whoever begins to listen late has missed nothing.
 */
type Message =
  | { dapplo: 'size'; height: number }
  | { dapplo: 'state'; state: State }
  | { dapplo: 'set'; state: State }
  | { dapplo: 'theme'; theme: 'day' | 'night' }
  | { dapplo: 'ask' }
  | { dapplo: 'problem'; problem: string }

const isMessage = (data: unknown): data is Message =>
  data !== null && typeof data === 'object' && 'dapplo' in data && typeof data.dapplo === 'string'

/** Typed arrays are lists for those who read JSON. */
const plainState = (state: State): State =>
  state.selected ? { ...state, selected: Array.from(state.selected) } : state

/** Lets a chart in a frame tell the page around it how high it is and what is done with it, and do what that page asks. */
export function speakToParent(live: Live): void {
  const say = (message: Message) => window.parent.postMessage(message, '*')
  const tellSize = () => say({ dapplo: 'size', height: Math.ceil(document.documentElement.scrollHeight) })
  new ResizeObserver(tellSize).observe(document.body)
  tellSize()
  const tellState = (state: State) => say({ dapplo: 'state', state: plainState(state) })
  live.watch(tellState)
  window.addEventListener('message', event => {
    if (event.source !== window.parent || !isMessage(event.data)) return
    if (event.data.dapplo === 'ask') {
      tellSize()
      tellState(live.state)
    } else if (event.data.dapplo === 'set') {
      try {
        live.state = event.data.state
      } catch (error) {
        say({ dapplo: 'problem', problem: error instanceof DapploError ? error.sentence : String(error) })
      }
    } else if (
      event.data.dapplo === 'theme' &&
      (event.data.theme === 'day' || event.data.theme === 'night')
    ) {
      live.reframe({ theme: event.data.theme })
    }
  })
}

/** Gives the charts in frames of this page the height that they ask for; `listener` is told of their states. Returns what ends it. */
export function fitFrames(listener?: (frame: HTMLIFrameElement, state: State) => void): () => void {
  const heard = (event: MessageEvent) => {
    if (!isMessage(event.data)) return
    const frame = [...document.querySelectorAll('iframe')].find(frame => frame.contentWindow === event.source)
    if (!frame) return
    if (event.data.dapplo === 'size') {
      const height = Number(event.data.height)
      if (height > 0 && height < 20_000) frame.style.height = `${height}px`
    } else if (event.data.dapplo === 'state') listener?.(frame, event.data.state)
  }
  window.addEventListener('message', heard)
  // Frames that were there before have spoken already.
  for (const frame of document.querySelectorAll('iframe'))
    frame.contentWindow?.postMessage({ dapplo: 'ask' } satisfies Message, '*')
  return () => window.removeEventListener('message', heard)
}

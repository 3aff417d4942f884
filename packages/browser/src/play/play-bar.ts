import type { Composition } from '@dapplo/core/internal'
import type { Sentence } from '@dapplo/core/small'
import { controlLook, dressControls } from '../controls/control-look.ts'

export interface PlayBarHost {
  toggle(): void
  step(by: 1 | -1): void
  scrub(place: number): void
  speed(speed: number): void
  loop(loops: boolean): void
}

const SPEEDS = [0.5, 1, 2, 4]
const look = { ...controlLook, padding: '4px 8px' }

/** The controls under a chart that is played: back, play, on; the place; the speed; whether it begins anew at the end. */
export class PlayBar {
  readonly element: HTMLDivElement
  private readonly toggle: HTMLButtonElement
  private readonly range: HTMLInputElement
  private readonly words: HTMLSpanElement
  private readonly repeat: HTMLSpanElement
  private readonly named: readonly (readonly [HTMLElement, Sentence])[]
  private playing = false

  constructor(host: PlayBarHost) {
    this.element = document.createElement('div')
    this.element.className = 'dapplo-play'
    this.element.setAttribute('role', 'group')
    Object.assign(this.element.style, {
      display: 'flex',
      flexWrap: 'wrap',
      alignItems: 'center',
      gap: '4px 10px',
      padding: '2px 16px 10px',
      // The row under the plate is shared with the menu; the place of the play is what grows.
      flex: '1 1 240px',
    })
    const back = button('◂', () => host.step(-1))
    this.toggle = button('▶', () => host.toggle())
    const on = button('▸', () => host.step(1))
    this.range = document.createElement('input')
    Object.assign(this.range, { type: 'range', min: '0', step: 'any' })
    Object.assign(this.range.style, { flex: '1 1 120px', minWidth: '80px' })
    this.range.addEventListener('input', () => host.scrub(Number(this.range.value)))
    // Arrow keys go from period to period rather than by a hundredth of the way.
    this.range.addEventListener('keydown', event => {
      const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key] as 1 | -1 | undefined
      if (by === undefined) return
      event.preventDefault()
      host.step(by)
    })
    this.words = document.createElement('span')
    Object.assign(this.words.style, { minWidth: '4em', fontVariantNumeric: 'tabular-nums' })
    const speed = document.createElement('select')
    Object.assign(speed.style, look)
    for (const value of SPEEDS) {
      const option = document.createElement('option')
      option.value = String(value)
      option.textContent = `${value}×`
      option.selected = value === 1
      speed.append(option)
    }
    speed.addEventListener('change', () => host.speed(Number(speed.value)))
    const loop = document.createElement('label')
    const check = document.createElement('input')
    check.type = 'checkbox'
    check.addEventListener('change', () => host.loop(check.checked))
    this.repeat = document.createElement('span')
    loop.append(check, ' ', this.repeat)
    this.element.append(back, this.toggle, on, this.range, this.words, speed, loop)
    this.named = [
      [this.element, 'Playback'],
      [back, 'Previous period'],
      [on, 'Next period'],
      [this.range, 'Period'],
      [speed, 'Speed'],
    ]
  }

  show({
    place,
    length,
    words,
    playing,
  }: {
    place: number
    length: number
    words: string
    playing: boolean
  }): void {
    this.toggle.textContent = playing ? '❚❚' : '▶'
    this.playing = playing
    this.range.max = String(length)
    this.range.value = String(place)
    this.range.setAttribute('aria-valuetext', words)
    this.words.textContent = words
  }

  /** Takes the theme's colours and the words of the page's language. */
  dress({ theme, tongue }: Composition): void {
    dressControls(this.element, theme)
    for (const [element, sentence] of this.named) element.setAttribute('aria-label', tongue.say(sentence))
    this.toggle.setAttribute('aria-label', tongue.say(this.playing ? 'Pause' : 'Play'))
    this.repeat.textContent = tongue.say('Repeat')
  }
}

function button(words: string, act: () => void): HTMLButtonElement {
  const made = document.createElement('button')
  made.type = 'button'
  made.textContent = words
  Object.assign(made.style, look, { cursor: 'pointer', minWidth: '34px' })
  made.addEventListener('click', act)
  return made
}

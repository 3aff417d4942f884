import type { Theme } from '@dapplo/core/small'
import { controlLook, dressControls } from './control-look.ts'

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

  constructor(host: PlayBarHost) {
    this.element = document.createElement('div')
    this.element.className = 'dapplo-play'
    this.element.setAttribute('role', 'group')
    this.element.setAttribute('aria-label', 'Playback')
    Object.assign(this.element.style, {
      display: 'flex',
      flexWrap: 'wrap',
      alignItems: 'center',
      gap: '4px 10px',
      padding: '2px 16px 10px',
    })
    const back = button('◂', 'One period back', () => host.step(-1))
    this.toggle = button('▶', 'Play', () => host.toggle())
    const on = button('▸', 'One period on', () => host.step(1))
    this.range = document.createElement('input')
    Object.assign(this.range, { type: 'range', min: '0', step: 'any' })
    this.range.setAttribute('aria-label', 'Period')
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
    speed.setAttribute('aria-label', 'Speed')
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
    loop.append(check, ' Repeat')
    this.element.append(back, this.toggle, on, this.range, this.words, speed, loop)
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
    this.toggle.setAttribute('aria-label', playing ? 'Pause' : 'Play')
    this.range.max = String(length)
    this.range.value = String(place)
    this.range.setAttribute('aria-valuetext', words)
    this.words.textContent = words
  }

  dress(theme: Theme): void {
    dressControls(this.element, theme)
  }
}

function button(words: string, name: string, act: () => void): HTMLButtonElement {
  const made = document.createElement('button')
  made.type = 'button'
  made.textContent = words
  made.setAttribute('aria-label', name)
  Object.assign(made.style, look, { cursor: 'pointer', minWidth: '34px' })
  made.addEventListener('click', act)
  return made
}

import type { Composition } from '@dapplo/core/internal'
import type { Control, Tongue } from '@dapplo/core/small'
import { hiddenStyle } from '../live/hidden.ts'
import { controlLook, dressControls } from './control-look.ts'

export interface Settings {
  /** The value at a path of the description or, beginning with `state.`, of the state. */
  read(path: string): unknown
  write(path: string, value: unknown): void
}

let count = 0
const look = { ...controlLook, padding: '4px 10px' }
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)

/** The controls above a chart, each bound to a part of its description. */
export class Controls {
  readonly element: HTMLDivElement
  private readonly settings: Settings
  private readonly list: readonly Control[]
  private readonly tongue: Tongue
  private readonly updates: (() => void)[] = []

  constructor(list: readonly Control[], tongue: Tongue, settings: Settings) {
    this.list = list
    this.tongue = tongue
    this.settings = settings
    this.element = document.createElement('div')
    this.element.className = 'dapplo-controls'
    this.element.setAttribute('role', 'group')
    this.element.setAttribute('aria-label', tongue.say('Chart controls'))
    Object.assign(this.element.style, {
      display: 'flex',
      flexWrap: 'wrap',
      alignItems: 'center',
      gap: '8px 20px',
      padding: '10px 16px 0',
    })
    for (const control of list) this.element.append(this.build(control))
    this.update()
  }

  /** Whether these are still the controls of a description, in this tongue. */
  isFor(list: readonly Control[], tongue: Tongue): boolean {
    return tongue === this.tongue && same(list, this.list)
  }

  /** Shows the values that are set now. */
  update(): void {
    for (const update of this.updates) update()
  }

  dress({ theme }: Composition): void {
    dressControls(this.element, theme)
  }

  private build(control: Control): HTMLElement {
    const as = control.as ?? (control.to.length <= 4 ? 'segments' : 'menu')
    if (as === 'menu') return this.menu(control)
    if (as === 'slider') return this.slider(control)
    return this.choices(control, as)
  }

  private menu(control: Control): HTMLElement {
    const label = document.createElement('label')
    const select = document.createElement('select')
    Object.assign(select.style, look)
    control.to.forEach((value, i) => {
      const option = document.createElement('option')
      option.value = String(i)
      option.textContent = nameOf(control, value, i, this.tongue)
      select.append(option)
    })
    select.addEventListener('change', () =>
      this.settings.write(control.set, control.to[Number(select.value)]),
    )
    this.updates.push(() => {
      select.value = String(this.current(control))
    })
    label.append(`${control.label ?? nice(control.set)} `, select)
    return label
  }

  private slider(control: Control): HTMLElement {
    const label = document.createElement('label')
    const input = document.createElement('input')
    const shown = document.createElement('output')
    Object.assign(input, { type: 'range', min: '0', max: String(control.to.length - 1), step: '1' })
    input.style.verticalAlign = 'middle'
    input.addEventListener('input', () => this.settings.write(control.set, control.to[Number(input.value)]))
    this.updates.push(() => {
      const i = Math.max(0, this.current(control))
      input.value = String(i)
      shown.textContent = ` ${nameOf(control, control.to[i], i, this.tongue)}`
      input.setAttribute('aria-valuetext', nameOf(control, control.to[i], i, this.tongue))
    })
    label.append(`${control.label ?? nice(control.set)} `, input, shown)
    return label
  }

  /** Values side by side: one of them, or any number. */
  private choices(control: Control, as: 'segments' | 'checks'): HTMLElement {
    const set = document.createElement('fieldset')
    Object.assign(set.style, {
      border: '0',
      margin: '0',
      padding: '0',
      display: 'flex',
      flexWrap: 'wrap',
      gap: as === 'checks' ? '4px 12px' : '0',
    })
    const legend = document.createElement('legend')
    legend.textContent = control.label ?? nice(control.set)
    Object.assign(legend.style, as === 'checks' ? { float: 'left', padding: '0 8px 0 0' } : hiddenStyle)
    set.append(legend)
    const name = `dapplo-control-${++count}`
    const inputs = control.to.map((value, i) => {
      const label = document.createElement('label')
      const input = document.createElement('input')
      Object.assign(input, { type: as === 'checks' ? 'checkbox' : 'radio', name, value: String(i) })
      if (as === 'segments') {
        Object.assign(label.style, look, {
          marginLeft: i === 0 ? '0' : '-1px',
          cursor: 'pointer',
          position: 'relative',
        })
        Object.assign(input.style, hiddenStyle)
        input.addEventListener('focus', () => {
          label.style.outline = input.matches(':focus-visible') ? '2px solid currentColor' : 'none'
        })
        input.addEventListener('blur', () => {
          label.style.outline = 'none'
        })
      }
      input.addEventListener('change', () => {
        if (as === 'checks')
          this.settings.write(
            control.set,
            control.to.filter((_, k) => inputs[k].checked),
          )
        else if (input.checked) this.settings.write(control.set, value)
      })
      label.append(
        input,
        as === 'checks'
          ? ` ${nameOf(control, value, i, this.tongue)}`
          : nameOf(control, value, i, this.tongue),
      )
      set.append(label)
      return input
    })
    this.updates.push(() => {
      const now = this.settings.read(control.set)
      inputs.forEach((input, i) => {
        const { to } = control
        // Without a condition, everything is shown: all boxes are checked.
        input.checked =
          as === 'checks'
            ? now === undefined ||
              (Array.isArray(now) ? now.some(item => same(item, to[i])) : same(now, to[i]))
            : i === this.current(control)
        const label = input.parentElement!
        if (as === 'segments')
          Object.assign(label.style, {
            fontWeight: input.checked ? '600' : '400',
            boxShadow: input.checked ? 'inset 0 -3px currentColor' : 'none',
          })
      })
    })
    return set
  }

  private current(control: Control): number {
    const now = this.settings.read(control.set)
    return control.to.findIndex(value => same(value, now))
  }
}

function nameOf({ names }: Control, value: unknown, i: number, { say }: Tongue): string {
  const told = names?.[i]
  if (told !== undefined) return told
  if (value === null || value === undefined) return say('All')
  return typeof value === 'object' ? JSON.stringify(value) : String(value)
}

const nice = (path: string) => {
  const word = path.split(/[.[]/).at(-1)!.replace(/[\]_]/g, ' ').trim()
  return word[0].toUpperCase() + word.slice(1)
}

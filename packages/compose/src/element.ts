import type { Drawn } from '@dapplo/core/sentence'
import { Composer } from './composer.ts'
import type { ComposeOptions } from './options.ts'

/** Where there is no page, as on a server, the class can still be imported. */
const Base: typeof HTMLElement = globalThis.HTMLElement ?? (class {} as typeof HTMLElement)

/**
 * `<dapplo-composer>`: set its `options`, and it lets a person compose. Events: `change` after each step and `done`, whose
 * `detail` is the description, which `description` holds too.
 */
export class ComposerElement extends Base {
  private given: ComposeOptions | undefined
  private composer: Composer | undefined

  /** What it is given: its tables, and what `compose` takes beside. */
  get options(): ComposeOptions | undefined {
    return this.given
  }

  set options(options: ComposeOptions | undefined) {
    this.given = options
    this.begin()
  }

  /** What is drawn now. */
  get description(): Drawn | undefined {
    return this.composer?.description
  }

  connectedCallback(): void {
    if (!this.style.display) this.style.display = 'block'
    if (!this.composer) this.begin()
  }

  disconnectedCallback(): void {
    this.composer?.destroy()
    this.composer = undefined
  }

  private begin(): void {
    this.composer?.destroy()
    this.composer = this.given && this.isConnected ? new Composer(this, this.given) : undefined
  }
}

/** Makes `<dapplo-composer>` known to the page, once. */
export function defineComposer(name = 'dapplo-composer'): void {
  if (!customElements.get(name)) customElements.define(name, ComposerElement)
}

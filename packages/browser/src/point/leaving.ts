/** What happens to a card that is shown while the person turns to something else. */
export interface Leaves {
  /** Whether something is of the chart or the card itself. */
  within(target: Node): boolean
  /** The page has scrolled. */
  follow(): void
  /** Escape, or a finger elsewhere on the page: a mouse leaves a card by moving on. */
  leave(): void
}

/** Listens on the whole page, but only while a card is shown. */
export class Leaving {
  private ending: AbortController | undefined
  private readonly leaves: Leaves

  constructor(leaves: Leaves) {
    this.leaves = leaves
  }

  shown(shown: boolean): void {
    if (shown === (this.ending !== undefined)) return
    this.ending?.abort()
    this.ending = undefined
    if (!shown) return
    this.ending = new AbortController()
    const { signal } = this.ending
    const { leaves } = this
    document.addEventListener('scroll', () => leaves.follow(), { signal, capture: true, passive: true })
    document.addEventListener(
      'pointerdown',
      event => {
        // In a shadow tree the document sees its host alone.
        const [target] = event.composedPath()
        if (event.pointerType === 'touch' && target instanceof Node && !leaves.within(target)) leaves.leave()
      },
      { signal, capture: true },
    )
    document.addEventListener(
      'keydown',
      event => {
        if (event.key === 'Escape' && !event.defaultPrevented) leaves.leave()
      },
      { signal },
    )
  }
}

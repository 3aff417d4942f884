import type { Composition, Timing } from '@dapplo/core/internal'
import type { Scene } from '@dapplo/core/small'
import type { Moves } from './model.ts'
import type { Player } from './player.ts'

/** Marks beyond which a picture on its way is not read back: working out all of them in each frame would slow it down. */
const MOST = 20_000

/** What is shown while a picture glides to another, to be read back. */
export class Moment {
  private from: Composition | undefined
  /** What the picture on screen is on its way to, or has arrived at. */
  private to: Composition | undefined
  private made: { of: Scene; composition: Composition } | undefined

  /** The picture that was last asked for. */
  arrive(composition: Composition): void {
    this.to = composition
    this.made = undefined
  }

  /** Has a player go to a scene, in time or at once, and remembers what it leaves. */
  go(player: Player, moves: Moves | undefined, scene: Scene, timing: Timing | undefined): void {
    const shown = this.read(player, moves) ?? this.to
    player.go(scene, timing)
    this.from = shown
    this.made = undefined
  }

  /** The picture as it is on its way; undefined where it rests, or cannot be read until it arrives. */
  read({ share, scene }: Player, moves: Moves | undefined): Composition | undefined {
    const { from, to } = this
    if (!share || !moves || !from || !to || from.panes.length !== to.panes.length) return undefined
    if (marksIn(from) > MOST || marksIn(to) > MOST) return undefined
    if (this.made?.of !== scene)
      this.made = { of: scene, composition: moves.momentBetween(from, to, scene, share) }
    return this.made.composition
  }
}

const marksIn = ({ panes }: Composition): number =>
  panes.reduce((sum, { bound }) => sum + bound.drawings.reduce((all, { marks }) => all + marks.length, 0), 0)

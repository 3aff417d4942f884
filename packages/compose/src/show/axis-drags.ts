import type { Description } from '@dapplo/core'
import { type Drawn, isSpreadData } from '@dapplo/core/sentence'
import type { Live } from 'dapplo'
import { dragged } from '../choose/dragging.ts'
import { chartIn, withChart } from '../choose/together.ts'
import { aboutAt } from '../choose/word-at.ts'
import { takesDrags } from './drags.ts'

/** What drags along axes need of the composer around them. */
export interface AxisDragsHost {
  live(): Live | undefined
  drawn(): Drawn | undefined
  may(scale: string): boolean
  /** Shows something without taking it as a step. */
  tryOut(next: Drawn): void
  step(next: Drawn): void
}

/** Figures and names along axes, which people drag: ends of scales, and the order of names. */
export function dragsAlongAxes(stage: HTMLElement, host: AxisDragsHost, signal: AbortSignal): void {
  const named = (chart: number | undefined, scale: string) =>
    chart === undefined ? scale : `${chart}/${scale}`
  const next = (
    { on, x, y }: { on: Held; x: number; y: number },
    toX: number,
    toY: number,
  ): Drawn | undefined => {
    const drag = on.across ? { from: x, to: toX } : { from: y, to: toY }
    const own = dragged(on.description, on.scale, on.map, drag)
    return own && withChart(on.drawn, on.chart, own)
  }
  takesDrags<Held>(
    stage,
    {
      at(x, y) {
        const [live, drawn] = [host.live(), host.drawn()]
        const about = live && drawn && aboutAt(live.scene, drawn, x, y)
        if (about?.is !== 'scale' || !host.may(about.scale)) return undefined
        const map = live!.scene.scales.get(named(about.chart, about.scale))
        if (!map) return undefined
        const across = about.scale !== 'y' && about.scale !== 'right'
        const { scale, chart } = about
        return { scale, chart, map, across, drawn: drawn!, description: chartIn(drawn!, chart) }
      },
      over: (begun, x, y) => {
        const tried = next(begun, x, y)
        if (tried) host.tryOut(still(tried))
      },
      dropped: (begun, x, y) => host.step(next(begun, x, y) ?? begun.on.drawn),
      calledOff: () => {
        const drawn = host.drawn()
        if (drawn) host.tryOut(drawn)
      },
    },
    signal,
  )
}

interface Held {
  scale: string
  chart: number | undefined
  map: NonNullable<ReturnType<Live['scene']['scales']['get']>>
  across: boolean
  drawn: Drawn
  description: Description
}

/** What is tried out follows the pointer at once. */
const still = (drawn: Drawn): Drawn =>
  isSpreadData(drawn)
    ? { ...drawn, spread: drawn.spread.map(own => ({ ...own, motion: false as const })) }
    : { ...drawn, motion: false }

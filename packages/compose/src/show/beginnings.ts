import type { Chart, Description, Spread } from '@dapplo/core'
import { type Drawn, type Suggestion, suggestCharts } from '@dapplo/core/sentence'
import { kindsOf } from '../choose/edits.ts'
import { mayDraw } from '../choose/limits.ts'
import type { Allowed } from '../choose/model.ts'
import type { Data } from '../data.ts'
import { element } from './elements.ts'

/** The best charts to begin with, of the kinds that may be drawn. */
export const worthSeeing = ({ table, look }: Data, allowed: Allowed): Suggestion[] =>
  suggestCharts(table, { most: 9, look })
    .filter(({ description }) => kindsOf(description).every(kind => mayDraw({ allowed }, kind)))
    .slice(0, 3)

/** What beginnings need of the composer around them. */
export interface BeginningsHost {
  say(words: string, holes?: Readonly<Record<string, string>>): string
  sentence(description: Description): string
  chartOf(drawn: Drawn): Chart | Spread | undefined
  draw(canvas: HTMLCanvasElement, chart: Chart | Spread, width: number, height: number): boolean
  begin(description: Description): void
}

/** Charts that are worth seeing for the data at hand, one of which a person begins with. */
export function beginnings(suggestions: readonly Suggestion[], host: BeginningsHost): HTMLElement {
  const place = element('div', 'beginnings')
  if (suggestions.length === 0) {
    place.append(element('p', '', host.say('There is nothing to show in these data yet.')))
    return place
  }
  const cards = element('div', 'cards')
  const pictures: (() => void)[] = []
  for (const { description, why } of suggestions) {
    const chart = host.chartOf(description)
    if (!chart) continue
    const card = element('button', 'beginning', '', { type: 'button' })
    const canvas = element('canvas', '', '', { 'aria-hidden': 'true' })
    pictures.push(() => host.draw(canvas, chart, Math.max(160, canvas.clientWidth), 200))
    card.append(
      canvas,
      element('span', '', host.sentence(description)),
      element('small', '', host.say(why.words, why.holes)),
    )
    card.addEventListener('click', () => host.begin(description))
    cards.append(card)
  }
  // As wide as they stand on the page, in its font.
  const draw = () => {
    if (place.isConnected) for (const one of pictures) one()
  }
  requestAnimationFrame(draw)
  void document.fonts?.ready.then(draw)
  place.append(element('h2', '', host.say('Choose a chart to begin with')), cards)
  return place
}

import type { Description } from '@dapplo/core'
import { type Drawn, isSpreadData, type SentenceChoice } from '@dapplo/core/sentence'
import { additionsFor } from './additions.ts'
import type { Offer, Option, Place } from './model.ts'
import { isKind, offerFor } from './offers.ts'
import { additionsForAll, anotherChart, chartIn, leaveOut, offerForAll, offerIn } from './together.ts'

/** What is drawn, and what choices about a chart of it are made from. */
export interface Around {
  drawn: Drawn
  placeOf(description: Description): Place
}

/** What a word offers; `chart`: of which of several charts, undefined for what is said of all. */
export function offerForWord(
  { drawn, placeOf }: Around,
  chart: number | undefined,
  choice: SentenceChoice,
): Offer {
  if (!isSpreadData(drawn)) return offerFor(placeOf(drawn), choice)
  if (chart === undefined) return offerForAll(drawn, choice)
  const own = { ...choice, path: choice.path.slice(2) }
  const { options, writings } = offerIn(offerFor(placeOf(drawn.spread[chart]), own), drawn, chart)
  return { options: isKind(own.path) ? [...options, leaveOut(drawn, chart)] : options, writings }
}

/** What may be added to a chart, or to what several say together. */
export function additionsAt({ drawn, placeOf }: Around, chart: number | undefined): readonly Option[] {
  const place = placeOf(chartIn(drawn, chart))
  if (!isSpreadData(drawn)) return additionsFor(place, anotherChart(place, drawn))
  if (chart === undefined) return additionsForAll(place, drawn)
  return offerIn({ options: additionsFor(place), writings: [] }, drawn, chart).options
}

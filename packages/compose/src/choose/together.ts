import type { Description } from '@dapplo/core'
import {
  type AnySpread,
  type Drawn,
  isSpreadData,
  type SentenceChoice,
  suggestCharts,
} from '@dapplo/core/sentence'
import { kindsOf, setAt } from './edits.ts'
import { group } from './group.ts'
import { headingsFor } from './headings.ts'
import { mayChange, mayDraw } from './limits.ts'
import type { Offer, Option, Place, Writing } from './model.ts'
import { meaningOf, phrasesFor, sumsUp } from './phrases.ts'
import { freeWriting } from './writing.ts'

/** What stands around several charts once there are several. */
const AROUND = ['title', 'subtitle', 'caption', 'source', 'background'] as const

/** A chart, or a chart of several. */
export const chartIn = (drawn: Drawn, chart: number | undefined): Description =>
  isSpreadData(drawn) ? drawn.spread[chart ?? 0] : drawn

export const chartsIn = (drawn: Drawn): readonly Description[] =>
  isSpreadData(drawn) ? drawn.spread : [drawn]

/** The same with one chart in place of another. */
export function withChart(drawn: Drawn, chart: number | undefined, next: Drawn): Drawn {
  if (!isSpreadData(drawn) || chart === undefined || isSpreadData(next)) return next
  return { ...drawn, spread: drawn.spread.map((own, i) => (i === chart ? next : own)) }
}

/** What is offered about a chart of several, as what is drawn then as a whole. */
export function offerIn(offer: Offer, drawn: Drawn, chart: number | undefined): Offer {
  if (!isSpreadData(drawn) || chart === undefined) return offer
  return {
    options: offer.options.map(option => ({
      ...option,
      path: isSpreadData(option.next) ? option.path : ['spread', chart, ...option.path],
      next: withChart(drawn, chart, option.next),
    })),
    writings: offer.writings.map(writing => ({
      ...writing,
      next: text => {
        const next = writing.next(text)
        return next && withChart(drawn, chart, next)
      },
    })),
  }
}

/** One more chart in the picture, below the others; a person chooses its words then. */
export function anotherChart(place: Place, drawn: Drawn): Option[] {
  const charts = chartsIn(drawn)
  const another = freshChart(place, charts)
  if (!another || !mayChange(place, ['spread'])) return []
  const next: AnySpread = isSpreadData(drawn)
    ? { ...drawn, spread: [...charts, another] }
    : { ...headingOf(drawn), spread: [without(drawn, AROUND), another] }
  return [{ words: 'a chart below', path: ['spread', charts.length, 'draw'], next, group: 'More to see' }]
}

/** Another measure over the same places, else what is worth seeing and not drawn yet. */
function freshChart(place: Place, charts: readonly Description[]): Description | undefined {
  const { x, y } = charts[0]
  const columnOf = (phrase: unknown) => {
    const meaning = meaningOf(phrase, place)
    return meaning && 'column' in meaning ? meaning.column : undefined
  }
  const measured = new Set(charts.map(({ y }) => columnOf(y)))
  const second = phrasesFor('measure', place).find(phrase => !measured.has(columnOf(phrase)))
  const kind = ['line', 'bar'].find(kind => kind !== kindsOf(charts[0])[0] && mayDraw(place, kind))
  if (second && kind && typeof x === 'string' && !sumsUp(x, place) && sumsUp(y, place))
    return { draw: kind, x, y: second } as Description
  const drawn = new Set(charts.map(one => JSON.stringify(one)))
  return suggestCharts(place.table, { most: 9, look: place.look })
    .map(({ description }) => description)
    .find(one => kindsOf(one).every(kind => mayDraw(place, kind)) && !drawn.has(JSON.stringify(one)))
}

const headingOf = (description: Description): Partial<AnySpread> =>
  Object.fromEntries(AROUND.flatMap(key => (description[key] === undefined ? [] : [[key, description[key]]])))

const without = (description: Description, keys: readonly string[]): Description =>
  keys.reduce((left, key) => setAt(left, [key], undefined), description)

/** Leaves a chart of several out; the last that is left is a chart by itself, with what stood around them. */
export function leaveOut(drawn: AnySpread, chart: number): Option {
  const spread = drawn.spread.filter((_, i) => i !== chart)
  const next: Drawn =
    spread.length === 1
      ? ({ ...spread[0], ...headingOf(drawn as unknown as Description) } as Description)
      : { ...drawn, spread }
  return { words: 'Leave this chart out', path: ['draw'], next }
}

/** What may be added to what several charts say together. */
export function additionsForAll(place: Place, drawn: AnySpread): Option[] {
  const out: Option[] = headingsFor(drawn)
  if (drawn.columns === undefined)
    out.push({ words: 'side by side', path: ['columns'], next: { ...drawn, columns: 2 } })
  for (const scale of ['x', 'y'])
    if (!drawn.share?.includes(scale))
      out.push({
        words: 'one scale {scale} for all',
        holes: { scale },
        path: ['share'],
        next: { ...drawn, share: [...(drawn.share ?? []), scale] },
      })
  return [...anotherChart(place, drawn), ...group('Around it', out)].filter(({ path }) =>
    mayChange(place, path),
  )
}

/** What a word that several charts say together could say instead. */
export function offerForAll(drawn: AnySpread, { path, value }: SentenceChoice): Offer {
  const set = (next: unknown) => setAt(drawn, path, next)
  const options: Option[] = []
  if (path[0] === 'share')
    for (const share of [['x'], ['y'], ['x', 'y']])
      options.push({
        words: 'one scale {scale} for all',
        holes: { scale: share.join(', ') },
        path,
        next: set(share),
        now: String(value) === share.join(),
      })
  const writings: Writing[] = path[0] === 'share' ? [] : freeWriting(path, value, set)
  options.push({ words: 'Leave this out', path, next: set(undefined) })
  return { options, writings }
}

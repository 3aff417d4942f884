import type { Finding } from '../finding/error.ts'
import { cycleText } from '../scale/time-format.ts'
import { APART, type AxisContext, type AxisLayout, LABEL_GAP, PICTURE } from './axis-parts.ts'
import { clean, ellipsis, LINE, wrap } from './text.ts'
import { endsWithRoom } from './tick-room.ts'

/** Degrees by which names are turned where they fit in no other way. */
const SLANT = -38
/** How long slanted names may be, and how short they are still worth it, in pixels. */
const MOST_SLANTED = 110
const LEAST_SLANTED = 52

/**
 * An axis of names. A name left out says less than a short one, so names are wrapped and slanted before any is dropped;
 * shorter names that the column has go before that.
 */
export function categoryAxis(context: AxisContext): AxisLayout {
  const { words, shorter = {} } = context.input
  const steps = Math.max(0, ...words.map(word => (Object.hasOwn(shorter, word) ? shorter[word].length : 0)))
  for (let step = 0; step < steps; step++) {
    const layout = namesAxis(context, step)
    const whole =
      !layout.findings?.length && layout.turn === 0 && layout.labels.every(lines => lines.length <= 1)
    if (whole) return layout
  }
  return namesAxis(context, steps)
}

/** The name of a category that is so many steps shorter. */
const shorterName = (word: string, forms: readonly string[], step: number): string =>
  step === 0 || forms.length === 0 ? word : forms[Math.min(step, forms.length) - 1]

/** `step`: by how many steps names are shorter. */
function namesAxis(context: AxisContext, step: number): AxisLayout {
  const { input, level, font, measure, make } = context
  const { shorter = {} } = input
  const scale = make(...endsWithRoom(context))
  const { words, look, cycle, images } = input
  const low = Math.max(0, Math.ceil(Math.min(...scale.domain)))
  const high = Math.min(words.length - 1, Math.floor(Math.max(...scale.domain)))
  const chosen = Array.isArray(input.wish) ? input.wish.filter(i => i >= low && i <= high) : undefined
  const all = chosen ?? Array.from({ length: Math.max(0, high - low + 1) }, (_, i) => low + i)
  const name = (i: number, width: 'long' | 'short' | 'narrow' = 'short') =>
    clean(
      cycle
        ? cycleText(cycle, words[i], look.locale, width)
        : shorterName(words[i], Object.hasOwn(shorter, words[i]) ? shorter[words[i]] : [], step),
    ) || '–'
  const room = Math.abs(scale.factor)
  const pictured = images !== undefined && all.some(i => Object.hasOwn(images, words[i]))
  const run = isRun(words)
  const findings = (shown: number): Finding[] =>
    cycle || run || shown >= all.length
      ? []
      : [
          {
            code: 'names-left-out',
            message: `Only ${shown} of ${all.length} names on the axis "${input.name}" have room`,
            remedy: level
              ? 'Bind them to y, so that each has a line of its own, keep fewer with top, or make the chart wider.'
              : 'Keep fewer with top, or make the chart higher.',
            path: `axes.${input.name}`,
          },
        ]
  const shortened = (labels: string[][]): Finding[] => {
    const cut = labels.filter(lines => lines.some(line => line.endsWith('…'))).length
    if (cut === 0) return []
    return [
      {
        code: 'names-shortened',
        message: `${cut === 1 ? 'One name' : `${cut} names`} on the axis "${input.name}" ${cut === 1 ? 'is' : 'are'} too long to be shown whole`,
        remedy: level
          ? 'Bind them to y, so that each has a line of its own, or make the chart wider.'
          : 'Make the chart wider, or give the column shorter names by its option shorter.',
        path: `axes.${input.name}`,
      },
    ]
  }
  const build = (ticks: number[], labels: string[][], thickness: number, turn = 0): AxisLayout => {
    const pictures = pictured
      ? ticks.map(i => (images && Object.hasOwn(images, words[i]) ? images[words[i]] : undefined))
      : []
    return {
      scale,
      ticks,
      labelAt: ticks,
      minor: [],
      labels,
      wholes:
        step > 0 ? ticks.map(i => (name(i) === clean(words[i]) ? undefined : clean(words[i]))) : undefined,
      pictures,
      larger: [],
      turn,
      thickness: thickness + (pictured ? PICTURE + 4 : 0),
      findings: [...findings(ticks.length), ...shortened(labels)],
    }
  }
  if (!level) {
    const every = Math.max(1, Math.ceil((font.size * LINE) / Math.max(room, 1e-6)))
    const ticks = all.filter((_, i) => i % every === 0)
    // Where there is height for it, a long name takes two lines rather than lose its end.
    const lines = Math.max(1, Math.min(2, Math.floor((room * every) / (font.size * LINE))))
    const labels = ticks.map(i => wrap(name(i), input.labelRoom, font, measure, lines))
    return build(ticks, labels, LABEL_GAP + Math.max(0, ...labels.flat().map(text => measure(text, font))))
  }
  const oneRow = LABEL_GAP + font.size
  const fits = (texts: string[][], gap: number) =>
    texts.every(lines => lines.every(text => measure(text, font) + gap <= room))
  const short = (i: number) => ellipsis(name(i), 120, font, measure)
  const few = () => {
    const ticks = thinned(all, short, room, context)
    return build(
      ticks,
      ticks.map(i => [short(i)]),
      oneRow,
    )
  }
  // Not even slanted names would fit: thousands of categories are not worth measuring one by one.
  if (room < font.size * 0.8) return few()
  const flat = all.map(i => [name(i)])
  if (fits(flat, APART)) return build(all, flat, oneRow)
  if (cycle) {
    const narrow = all.map(i => [name(i, 'narrow')])
    if (cycle !== 'hour of day' && fits(narrow, 4)) return build(all, narrow, oneRow)
    const ticks = thinned(all, i => name(i), room, context)
    return build(
      ticks,
      ticks.map(i => [name(i)]),
      oneRow,
    )
  }
  const wrapped = all.map(i => wrap(name(i), Math.max(20, room - APART), font, measure, 3))
  if (room > 34 && wrapped.every(lines => lines.every(text => !text.endsWith('…')))) {
    const rows = Math.max(1, ...wrapped.map(lines => lines.length))
    return build(all, wrapped, oneRow + (rows - 1) * font.size * LINE)
  }
  // Who sees some of a run knows the others.
  if (run) return few()
  const slant = (Math.abs(SLANT) * Math.PI) / 180
  // Slanted labels reach down to the left; more than a hundred pixels would leave too little for the plot.
  const widest = Math.min(MOST_SLANTED, ((input.depth ?? MOST_SLANTED) - font.size) / Math.sin(slant))
  if (room >= (font.size * LINE) / Math.sin(slant) / 1.5 && widest >= LEAST_SLANTED) {
    const labels = all.map(i => [ellipsis(name(i), widest, font, measure)])
    const longest = Math.max(0, ...labels.map(([text]) => measure(text, font)))
    return build(all, labels, LABEL_GAP + longest * Math.sin(slant) + font.size, SLANT)
  }
  return few()
}

/** Names beyond this many can be a run. */
const LEAST_RUN = 12

const runs = new WeakMap<readonly string[], boolean>()

/** Whether names are one text with a number that rises: weeks, codes, places in a row. An axis is laid out several times in each frame over the same names. */
function isRun(words: readonly string[]): boolean {
  const known = runs.get(words) ?? looksLikeRun(words)
  runs.set(words, known)
  return known
}

function looksLikeRun(words: readonly string[]): boolean {
  if (words.length <= LEAST_RUN) return false
  let last = Number.NEGATIVE_INFINITY
  const form = words[0].replace(/\d+/g, '#')
  if (!form.includes('#')) return false
  return words.every(word => {
    const number = Number(
      word
        .match(/\d+/g)
        ?.map(digits => digits.padStart(6, '0'))
        .join('') ?? Number.NaN,
    )
    const rises = number > last && word.replace(/\d+/g, '#') === form
    last = number
    return rises
  })
}

/** Every so many-th category, so that names fit side by side; very many are judged by a sample. */
function thinned(
  all: number[],
  name: (i: number) => string,
  room: number,
  { font, measure }: AxisContext,
): number[] {
  const sample = all.length > 2000 ? all.filter((_, i) => i % Math.ceil(all.length / 2000) === 0) : all
  const widest = Math.max(1, ...sample.map(i => measure(name(i), font)))
  const every = Math.max(1, Math.ceil((widest + APART) / Math.max(room, 1e-6)))
  return all.filter((_, i) => i % every === 0)
}

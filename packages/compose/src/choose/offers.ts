import type { Description } from '@dapplo/core'
import {
  KIND_WORDS,
  LEVEL_WORDS,
  LOOK_WORDS,
  SCALE_FLAG_WORDS,
  SCALE_KIND_WORDS,
  type SentenceChoice,
  type SettingPath,
  WHOLE_WORDS,
} from '@dapplo/core/sentence'
import { asKind } from './as-kind.ts'
import { conditionsFor, namesOf } from './conditions.ts'
import { domainWritings } from './direct.ts'
import { drawingIndex, kindsOf, setAt, valueAt, withoutDrawing } from './edits.ts'
import { mayDraw } from './limits.ts'
import type { Offer, Option, Place, Writing } from './model.ts'
import { phrasesFor, sumsUp, type Wanted } from './phrases.ts'
import { freeWriting, readValue, writingOf } from './writing.ts'

/** More options than these are found by typing. */
const MOST = 120

/** What the roles of a description want. */
const ROLES: Record<string, Wanted> = {
  color: 'names',
  series: 'names',
  dash: 'names',
  shape: 'names',
  panes: 'names',
  by: 'names',
  through: 'played',
  size: 'number',
  label: 'measure',
  link: 'names',
}

/** Columns whose ratio may mean something: amounts, the first few against each other. */
function pairsOf({ facts }: Place): [string, string][] {
  const few = facts
    .filter(({ is, adds }) => is === 'measure' && adds)
    .slice(0, 6)
    .map(({ name }) => name)
  return few.flatMap(column =>
    few.filter(other => other !== column).map((other): [string, string] => [column, other]),
  )
}

/** What may be left out of a sentence: all but what is drawn, and where. */
const NEEDED = new Set(['draw', 'as', 'x', 'y', 'level'])

/** What a word of the sentence could say instead. */
export function offerFor(place: Place, { path, value }: SentenceChoice): Offer {
  const { description } = place
  const key = path.findLast((part): part is string => typeof part === 'string') ?? ''
  const options: Option[] = []
  const writings: Writing[] = []
  const set = (next: unknown): Description => setAt(description, path, next)
  const choose = (
    words: Record<string, string>,
    read: (name: string) => unknown,
    holes?: Record<string, string>,
  ) => {
    for (const [name, said] of Object.entries(words))
      options.push({ words: said, holes, next: set(read(name)), path, now: String(value) === name })
  }
  const whereAt = path.indexOf('where')
  if (isKind(path)) {
    for (const [kind, words] of Object.entries(KIND_WORDS))
      if (mayDraw(place, kind))
        options.push({ words, next: asKind(place, path, kind), path, now: value === kind })
    const index = drawingIndex(path)
    if (index !== undefined)
      options.push({ words: 'Leave this out', next: withoutDrawing(description, index), path: ['draw'] })
  } else if (whereAt >= 0) {
    const phrase = String(path[whereAt + 1])
    options.push(...conditionsFor(place, path.slice(0, whereAt + 1), phrase))
    const both = valueAt(description, path)
    for (const [end, label] of [
      ['from', 'From'],
      ['until', 'Before'],
    ] as const) {
      const span =
        both !== null && typeof both === 'object' && !Array.isArray(both) && !('not' in both) ? both : {}
      writings.push(
        writingOf(label, (span as Record<string, unknown>)[end], 'words', text =>
          set(text === '' ? undefined : { ...span, [end]: readValue(text) }),
        ),
      )
    }
  } else if (path[0] === 'notes') {
    options.push(...noteOptions(place, path, value))
    writings.push(
      writingOf('In other words', value, 'words', text => (text ? set(readNote(text, value)) : undefined)),
    )
  } else if (key === 'x' || key === 'y' || Object.hasOwn(ROLES, key)) {
    const shaded = key === 'color' && kindsOf(description).includes('heatmap')
    const wanted = key === 'x' || key === 'y' ? wantedAt(place, path, key) : shaded ? 'measure' : ROLES[key]
    if (key === 'label') choose(LOOK_WORDS.label, name => name === 'true')
    for (const phrase of phrasesFor(wanted, place).slice(0, MOST))
      options.push({ words: phrase, phrase: true, next: set(phrase), path, now: value === phrase })
    // What is worked out of two columns, after what is of one.
    if (wanted === 'measure')
      for (const [column, other] of pairsOf(place))
        options.push({
          words: 'ratio of {column} to {other}',
          holes: { column, other },
          next: set({ ratio: column, to: other }),
          path,
          now: JSON.stringify(value) === JSON.stringify({ ratio: column, to: other }),
        })
  } else if (key === 'level') choose({ ...LEVEL_WORDS, p90: 'p90', p10: 'p10' }, name => name)
  else if (key === 'kind' && path[0] === 'scales')
    choose(SCALE_KIND_WORDS, name => name, { scale: String(path[1]) })
  else if (path[0] === 'scales' && Object.hasOwn(SCALE_FLAG_WORDS, key))
    choose(SCALE_FLAG_WORDS[key as 'reverse'], name => name === 'true', { scale: String(path[1]) })
  else if (Object.hasOwn(LOOK_WORDS, key)) choose(LOOK_WORDS[key as 'arrange'], readFlag)
  else if (Object.hasOwn(WHOLE_WORDS, key)) choose(WHOLE_WORDS[key as 'legend'], readFlag)
  if (key === 'domain') writings.push(...domainWritings(place, String(path[1]), value))
  if (writings.length === 0) writings.push(...freeWriting(path, value, set))
  if (path[0] === 'notes' && (key === 'words' || key === 'x' || key === 'from'))
    options.push({
      words: 'Leave this out',
      next: setAt(description, path.slice(0, 2), undefined),
      path: ['notes'],
    })
  else if (!NEEDED.has(key) || (key === 'y' && options.length === 0))
    options.push({ words: 'Leave this out', next: set(undefined), path: path.slice(0, 1) })
  return { options: options.filter(({ next }) => next !== description), writings }
}

/** Whether a place in a description says what kind is drawn. */
export const isKind = (path: SettingPath): boolean =>
  path.at(-1) === 'as' ||
  (path[0] === 'draw' && (path.length === 1 || (path.length === 2 && typeof path[1] === 'number')))

const readFlag = (name: string): unknown => (name === 'true' ? true : name === 'false' ? false : name)

/** Names that a note may be about, and the note itself to be left out. */
function noteOptions(place: Place, path: SettingPath, value: unknown): Option[] {
  const { description } = place
  const { x, color } = description
  const role = path.at(-1) === 'series' ? color : path.at(-1) === 'x' ? x : undefined
  const names = typeof role === 'string' ? namesOf(place, role) : []
  return names.map(name => ({
    words: '{value}',
    holes: { value: name },
    path,
    now: name === value,
    next: setAt(description, path, name),
  }))
}

/** A number stays one where it is written as one. */
const readNote = (text: string, before: unknown): unknown =>
  typeof before === 'number' ? readValue(text) : text

/** A position that measures now goes on measuring, and one that groups goes on grouping. */
function wantedAt(place: Place, path: SettingPath, role: 'x' | 'y'): Wanted {
  const { description } = place
  const other = valueAt(description, [...path.slice(0, -1), role === 'x' ? 'y' : 'x'])
  const kinds = kindsOf(description)
  if (kinds.includes('heatmap')) return 'place'
  const measured = sumsUp(valueAt(description, path), place)
  if (!measured && (kinds.includes('scatter') || kinds.includes('text'))) return 'number'
  if (measured) return 'measure'
  return sumsUp(other, place) || role === 'x' ? 'place' : 'measure'
}

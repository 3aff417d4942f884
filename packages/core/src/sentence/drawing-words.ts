import type { SentenceChoice, SentencePiece, SettingPath } from './model.ts'
import { bound, phraseText, sumsRows } from './phrase-words.ts'
import { FREE_LOOK_WORDS, KIND_WORDS, LEVEL_WORDS, LOOK_WORDS, ROLE_WORDS } from './said-looks.ts'
import { isSimple, type Settings } from './settings.ts'
import type { Voice } from './voice.ts'

/** Kinds that read or annotate what others draw: what the chart binds is said with others. */
const ASIDE = new Set(['reference', 'trend', 'text'])

/** How positions are said, by kind; others as points. */
const HEADS: Record<string, 'for each' | 'over' | 'at' | 'cells'> = {
  bar: 'for each',
  line: 'over',
  area: 'over',
  trend: 'over',
  pie: 'for each',
  heatmap: 'cells',
}

/** A drawing of a description: where its kind stands, and where its roles and looks do, its own before the chart's. */
export interface DrawingPlace {
  kind: string
  kindPath: SettingPath
  bases: readonly SettingPath[]
}

/** The drawings of a description. The chart's own roles are said with the first that draws data. */
export function drawingPlaces(draw: unknown): DrawingPlace[] {
  const list = Array.isArray(draw) ? draw : [draw]
  const places = list.map((one, i): DrawingPlace => {
    const path: SettingPath = Array.isArray(draw) ? ['draw', i] : ['draw']
    if (typeof one === 'string') return { kind: one, kindPath: path, bases: [] }
    const fields = (one ?? {}) as Record<string, unknown>
    if (typeof fields.draw === 'function') return { kind: String(fields.name), kindPath: path, bases: [] }
    const elsewhere = fields.drawing !== undefined
    const base = elsewhere ? [...path, 'drawing'] : path
    const as = (elsewhere ? (fields.drawing as Record<string, unknown>) : fields).as
    const kind = typeof as === 'string' ? as : String((as as { name?: unknown } | undefined)?.name ?? '')
    return { kind, kindPath: [...base, 'as'], bases: [base] }
  })
  const first = Math.max(
    0,
    places.findIndex(({ kind }) => !ASIDE.has(kind)),
  )
  return places.map((place, i) => (i === first ? { ...place, bases: [...place.bases, []] } : place))
}

/** A drawing in words: its kind and what it shows, then how. */
export function drawingPieces(settings: Settings, place: DrawingPlace, voice: Voice): SentencePiece[] {
  const { bases } = place
  const role = (name: string): SentenceChoice | undefined => {
    for (const base of bases) {
      const found = bound(settings, [...base, name], voice)
      if (found) return found
    }
    return undefined
  }
  const head = headOf(settings, place, role, voice)
  const clauses: SentencePiece[][] = []
  const say = (clause: SentencePiece[] | undefined) => clause && clauses.push(clause)
  for (const name of ['color', 'series', 'dash', 'shape', 'size', 'link'] as const) {
    const phrase = role(name)
    if (!phrase) continue
    // Sums are shades from light to dark, names are colours that differ.
    const shade = name === 'color' && (HEADS[place.kind] === 'cells' || sumsRows(phrase.value, voice.columns))
    say(voice.pieces(ROLE_WORDS[shade ? 'shade' : name], { phrase }))
  }
  for (const base of bases) {
    const path = [...base, 'color']
    if (settings.at(path) === null) {
      settings.take(path)
      say([{ text: voice.text('in one colour'), path, value: null }])
    }
    for (const clause of looksOf(settings, base, voice)) say(clause)
    say(conditionsOf(settings, [...base, 'where'], voice))
  }
  return clauses.reduce((before, clause) => voice.pieces('{before}, {clause}', { before, clause }), head)
}

function headOf(
  settings: Settings,
  { kind, kindPath, bases }: DrawingPlace,
  role: (name: string) => SentenceChoice | undefined,
  voice: Voice,
): SentencePiece[] {
  const value = settings.take(kindPath)
  const level = bases.map(base => levelOf(settings, [...base, 'level'], voice)).find(Boolean)
  const [x, y] = [role('x'), role('y')]
  const lying = kind === 'bar' && lies(x?.value, y?.value, voice)
  const split = bases.some(base =>
    ['color', 'series'].some(name => typeof settings.at([...base, name]) === 'string'),
  )
  const text = voice.text(kindWords(kind, lying, split))
  const choice: SentencePiece = { text, path: kindPath, value }
  const says = (words: string, holes: Record<string, SentencePiece | undefined> = {}) =>
    voice.pieces(words, { kind: choice, ...(holes as Record<string, SentencePiece>) })
  const how = Object.hasOwn(HEADS, kind) ? HEADS[kind] : 'at'
  if (level) return says('{kind} at {level}', { level })
  if (how === 'for each' || how === 'over') {
    const [measured, group] = lying ? [x, y] : [y, x]
    const each = how === 'over' ? 'over {group}' : 'for each {group}'
    if (measured && group) return says(`{kind} of {value} ${each}`, { value: measured, group })
    if (measured) return says('{kind} of {value}', { value: measured })
    return group ? says(`{kind} ${each}`, { group }) : says('{kind}')
  }
  if (x && y) return says(how === 'cells' ? '{kind} for each {x} and {y}' : '{kind} at {x} and {y}', { x, y })
  if (y) return says('{kind} at {y}', { y })
  return x ? says('{kind} upright at {x}', { x }) : says('{kind}')
}

/** What a kind is called: lines where there are several, and bars by how they stand. */
function kindWords(kind: string, lying: boolean, split: boolean): string {
  if (lying) return 'lying bars'
  if (split && kind === 'line') return 'lines'
  if (split && kind === 'area') return 'areas'
  return Object.hasOwn(KIND_WORDS, kind) ? KIND_WORDS[kind as 'bar'] : kind
}

/** Whether bars lie: along their summary, else along the only number. */
function lies(x: unknown, y: unknown, { columns }: Voice): boolean {
  const [across, up] = [sumsRows(x, columns), sumsRows(y, columns)]
  if (across !== up) return across
  const isNumber = (bind: unknown) =>
    typeof bind === 'string' && Object.hasOwn(columns, bind) && columns[bind] === 'number'
  return isNumber(x) && !isNumber(y) && y !== undefined
}

function levelOf(settings: Settings, path: SettingPath, voice: Voice): SentenceChoice | undefined {
  const level = settings.take(path)
  if (level === undefined) return undefined
  const words = Object.hasOwn(LEVEL_WORDS, String(level)) ? LEVEL_WORDS[level as 'mean'] : undefined
  return { text: words ? voice.text(words) : String(level), path, value: level }
}

/** In which order looks are said: how shapes stand, which of them, what stands at them, and how they look. */
const LOOK_ORDER = [
  ...['arrange', 'between', 'points', 'fit', 'band', 'top', 'rest', 'order', 'label', 'values', 'hollow'],
  ...['breakAfter', 'name', 'against', 'table', 'listed'],
  ...Object.keys(FREE_LOOK_WORDS).filter(name => name.startsWith('style ')),
]

function looksOf(settings: Settings, base: SettingPath, voice: Voice): SentencePiece[][] {
  const out: SentencePiece[][] = []
  /** Takes what stands at a place, as a choice within words. */
  const say = (words: string, path: SettingPath, text: string) => {
    const value = settings.take(path)
    out.push(voice.pieces(words, { value: { text, path, value } }))
  }
  for (const name of LOOK_ORDER) {
    const path = [...base, ...name.split(' ')]
    const value = settings.at(path)
    const known = Object.hasOwn(LOOK_WORDS, name)
      ? (LOOK_WORDS[name as 'arrange'] as Record<string, string>)
      : {}
    if (name === 'label' && typeof value !== 'boolean') {
      const phrase = bound(settings, path, voice)
      if (phrase) out.push(voice.pieces(ROLE_WORDS.label, { phrase }))
      continue
    }
    if (!isSimple(value)) continue
    // What the rest is called may be any text.
    const named = typeof value === 'boolean' || (typeof value === 'string' && name !== 'rest')
    if (named && Object.hasOwn(known, String(value))) say('{value}', path, voice.text(known[String(value)]))
    else if (Object.hasOwn(FREE_LOOK_WORDS, name))
      say(FREE_LOOK_WORDS[name as 'top'], path, voice.value(value))
  }
  const degree = settings.at([...base, 'fit', 'degree'])
  if (typeof degree === 'number') say('of degree {value}', [...base, 'fit', 'degree'], voice.value(degree))
  const dash = settings.at([...base, 'style', 'dash'])
  if (Array.isArray(dash) && dash.length > 0 && dash.every(length => typeof length === 'number'))
    say('dashed by {value}', [...base, 'style', 'dash'], dash.map(voice.value).join(' '))
  return out
}

/** Conditions in words: `only where vessel is Fulmar or Dunlin`. */
function conditionsOf(settings: Settings, path: SettingPath, voice: Voice): SentencePiece[] | undefined {
  const conditions = settings.at(path)
  if (conditions === null || typeof conditions !== 'object' || Array.isArray(conditions)) return undefined
  const choices = Object.entries(conditions).flatMap(([phrase, condition]): SentenceChoice[] => {
    const text = conditionText(phrase, condition, voice)
    if (text === undefined) return []
    const own = [...path, phrase]
    settings.take(own)
    return [{ text, path: own, value: condition }]
  })
  if (choices.length === 0) return undefined
  const all = choices
    .slice(1)
    .reduce<SentencePiece[]>(
      (before, choice) => voice.pieces('{before} and {condition}', { before, condition: choice }),
      [choices[0]],
    )
  return voice.pieces('only where {conditions}', { conditions: all })
}

/** One condition in words; undefined for what has none. */
function conditionText(phrase: string, condition: unknown, voice: Voice): string | undefined {
  const column = phraseText(phrase, voice)
  const values = (value: unknown): string | undefined => {
    const list = Array.isArray(value) ? value : [value]
    const plain = list.every(one => one === null || one instanceof Date || typeof one !== 'object')
    return plain && list.length > 0 && !list.includes(undefined)
      ? voice.list(list.map(voice.value), 'or')
      : undefined
  }
  if (condition === null) return voice.text('{column} is missing', { column })
  if (typeof condition !== 'object' || condition instanceof Date || Array.isArray(condition)) {
    const said = values(condition)
    return said === undefined ? undefined : voice.text('{column} is {values}', { column, values: said })
  }
  const keys = Object.keys(condition).sort().join(' ')
  const { not, from, until } = condition as { not?: unknown; from?: unknown; until?: unknown }
  if (keys === 'not') {
    const said = values(not)
    return said === undefined ? undefined : voice.text('{column} is not {values}', { column, values: said })
  }
  const [start, end] = [values(from), values(until)]
  if (keys === 'from' && start) return voice.text('{column} is {from} or later', { column, from: start })
  if (keys === 'until' && end) return voice.text('{column} is before {until}', { column, until: end })
  if (keys === 'from until' && start && end)
    return voice.text('{column} is from {from} to before {until}', { column, from: start, until: end })
  return undefined
}

import { isLying } from '../drawing/is-lying.ts'
import { givenOptions, type NumberLook, numberFormat, tickWriter, valueText } from '../scale/number-format.ts'
import { cycleText, momentText } from '../scale/time-format.ts'
import { safeLink } from '../scene/scene.ts'
import type { RoleValues, Shaped } from '../table/group/shape.ts'
import { fillWords } from '../words/holes.ts'
import type { BoundDrawing, LabelTexts } from './model.ts'
import { lookOf, unitOf } from './naming.ts'

/** Numbers up to this many are written alike, with as many decimals as tell them apart. */
export const MOST_ALIKE = 2000

/** What fills the holes in the words of a drawing's labels. */
export const labelValues = (
  { drawing: { label } }: BoundDrawing,
  shaped: Shaped,
): (RoleValues | undefined)[] =>
  typeof label === 'object' ? label.pieces.slice(1).map((_, i) => shaped.roles.get(`label ${i}`)) : []

/** What a drawing's labels say, as far as its description asks for labels. */
export function labelTexts(bound: BoundDrawing, locale: string): LabelTexts | undefined {
  const { label } = bound.drawing
  if (label === undefined) return undefined
  if (label === 'own') {
    const values = ownValues(bound)
    return values && roleTexts(values, locale)
  }
  const holes = bound.labelValues.map(values => values && roleTexts(values, locale))
  return mark =>
    fillWords(
      label.pieces,
      holes.map(text => text?.(mark) ?? ''),
    )
}

/** The addresses that marks lead to. Unsafe ones lead nowhere. */
export function linkTexts(shaped: Shaped): LabelTexts | undefined {
  const cells = shaped.roles.get('link')?.cells
  if (cells?.type !== 'text') return undefined
  return mark => safeLink(cells.words[cells.codes[mark]] ?? '') ?? ''
}

/** The values that the shapes show: a cell's colour, a bar's length, a point's height. */
export function ownValues({ drawing, marks, shade, x, y }: BoundDrawing): RoleValues | undefined {
  if (drawing.kind.cells) return shade
  const values = isLying(marks) ? x : y
  return marks[isLying(marks) ? 'x' : 'y'].unbound ? undefined : values
}

/** The values of a role as people read them, by mark. */
export function roleTexts(values: RoleValues, locale: string): LabelTexts {
  const { cells, meaning, zone, ends } = values
  if (cells.type === 'text') {
    const { codes, words } = cells
    return mark => {
      const word = codes[mark] < 0 ? '' : (words[codes[mark]] ?? '')
      return meaning.is === 'cycle' ? cycleText(meaning.cycle, word, locale) : word
    }
  }
  const unit = unitOf(values)
  const all = cells.values
  const write = textsOf(cells.type, all, values, unit, locale, zone)
  if (!ends || !values.spans) return write
  const writeEnd = textsOf(cells.type, ends, values, unit, locale, zone)
  return mark => `${write(mark)} – ${writeEnd(mark)}`
}

function textsOf(
  type: 'number' | 'time',
  all: Float64Array,
  values: RoleValues,
  unit: Parameters<typeof momentText>[1],
  locale: string,
  zone: RoleValues['zone'],
): LabelTexts {
  if (type === 'time')
    return mark => (Number.isNaN(all[mark]) ? '' : momentText(all[mark], unit, locale, zone))
  const look = { ...lookOf(values), locale }
  if (all.length > MOST_ALIKE) return mark => (Number.isNaN(all[mark]) ? '' : valueText(all[mark], look))
  const write = remembered(briefWriter(presentOf(all), look))
  return mark => (Number.isNaN(all[mark]) ? '' : write(all[mark]))
}

export const presentOf = (all: Float64Array) => [...new Set(all)].filter(value => !Number.isNaN(value))

/** Many marks show the same number, and writing one costs more than looking it up. */
function remembered(write: (value: number) => string): (value: number) => string {
  const known = new Map<number, string>()
  return value => {
    let text = known.get(value)
    if (text === undefined) {
      text = write(value)
      if (known.size < MOST_ALIKE) known.set(value, text)
    }
    return text
  }
}

/** Three digits say enough where a shape shows the value as well; axis and tooltip have the rest. */
export function briefWriter(present: readonly number[], look: NumberLook): (value: number) => string {
  const exact = tickWriter(present, look)
  if (typeof look.format === 'function' || present.every(value => exact(value).length <= 5)) return exact
  const given = givenOptions(look)
  const own = [
    'maximumFractionDigits',
    'minimumFractionDigits',
    'maximumSignificantDigits',
    'notation',
  ] as const
  if (own.some(option => given[option] !== undefined)) return exact
  const sizes = present.map(Math.abs).filter(value => value > 0)
  const largest = Math.max(0, ...sizes)
  const percent = look.percent && given.style === undefined
  const base: Intl.NumberFormatOptions = percent ? { style: 'percent' } : { ...given }
  if (base.style === 'currency') base.currencyDisplay ??= 'narrowSymbol'
  if (!percent && largest >= 10_000) base.notation = 'compact'
  const group = (value: number) => (base.notation ? Math.floor(Math.log10(value) / 3) : 0)
  const alike = sizes.every(value => group(value) === group(largest))
  const first = (percent ? largest * 100 : largest) / 1000 ** group(largest || 1)
  // Of one order, numbers are written with the same decimals, so that they compare at a glance.
  const digits = first >= 100 ? 0 : first >= 10 ? 1 : 2
  const format = numberFormat(
    look.locale,
    alike
      ? { ...base, minimumFractionDigits: digits, maximumFractionDigits: digits }
      : { ...base, maximumSignificantDigits: 3 },
  )
  return value => format.format(value)
}

/** One value as briefly as labels are. */
export const briefText = (value: number, look: NumberLook): string => briefWriter([value], look)(value)

/** A share of a whole in percent, with a decimal only where it would else vanish. */
export function shareText(share: number, locale: string): string {
  const digits = share > 0 && share < 0.01 ? 1 : 0
  return numberFormat(locale, { style: 'percent', maximumFractionDigits: digits }).format(share)
}

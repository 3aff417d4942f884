import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { KINDS } from '../scale/scale.ts'
import { DAY } from '../table/cells/calendar.ts'
import { zoneOf } from '../table/cells/zone.ts'
import { measureInter } from '../theme/text-width.ts'
import { layoutAxis } from './axis.ts'
import type { AxisInput, AxisLayout } from './axis-parts.ts'

/** An axis of any kind, at any length, over any values, is one that a person can read. */

const font = { size: 12, weight: 400 } as const
const wide = (text: string) => measureInter(text, font)
const usual: AxisInput = {
  name: 'y',
  side: 'left',
  kind: KINDS.linear,
  min: 0,
  max: 1,
  round: { min: true, max: true },
  reverse: false,
  words: [],
  zone: zoneOf('UTC', 'timeZone'),
  look: { locale: 'en' },
  labelRoom: 120,
}
const layout = (input: Partial<AxisInput>, length: number, base?: AxisLayout) => {
  const whole = { ...usual, ...input }
  const level = whole.side === 'bottom' || whole.side === 'top'
  return layoutAxis(whole, level ? [0, length] : [length, 0], font, measureInter, base)
}

const side = fc.constantFrom('bottom' as const, 'left' as const)
const length = fc.double({ min: 20, max: 1600, noNaN: true })
const span = fc
  .tuple(
    fc.double({ min: -1e9, max: 1e9, noNaN: true }),
    fc.double({ min: -3, max: 9, noNaN: true }).map(power => 10 ** power),
  )
  .filter(([low, wide]) => wide > Math.abs(low) * 1e-7)
  .map(([low, wide]) => ({ min: low, max: low + wide }))

/** What every axis keeps to. */
function expectReadable(axis: AxisLayout, input: Partial<AxisInput>, length: number): void {
  const { ticks, labels, labelAt, scale } = axis
  expect(labels.length).toBe(ticks.length)
  expect(labelAt.length).toBe(ticks.length)
  for (const tick of ticks) {
    expect(scale.map(tick)).toBeGreaterThanOrEqual(-0.1)
    expect(scale.map(tick)).toBeLessThanOrEqual(length + 0.1)
  }
  const level = input.side === 'bottom'
  if (axis.turn !== 0 || length < 60) return
  for (let i = 1; i < labels.length; i++) {
    const apart = Math.abs(scale.map(labelAt[i]) - scale.map(labelAt[i - 1]))
    const needed = level
      ? (Math.max(...labels[i].map(wide)) + Math.max(...labels[i - 1].map(wide))) / 2
      : ((labels[i].length + labels[i - 1].length) / 2) * font.size * 0.95
    expect(apart, `${labels[i - 1]} and ${labels[i]}`).toBeGreaterThanOrEqual(needed - 0.01)
  }
}

/** The domain holds the values, but for the dust of arithmetic. */
function expectHeld({ scale }: AxisLayout, min: number, max: number): void {
  const [low, high] = scale.domain
  expect(low).toBeLessThanOrEqual(min + (high - low) * 1e-8)
  expect(high).toBeGreaterThanOrEqual(max - (high - low) * 1e-8)
}

describe('an axis of numbers', () => {
  test('holds its data between neat ends, with labels that differ and do not touch', () => {
    fc.assert(
      fc.property(span, side, length, fc.boolean(), ({ min, max }, side, length, reverse) => {
        const input = { min, max, side, reverse }
        const axis = layout(input, length)
        expectReadable(axis, input, length)
        expectHeld(axis, min, max)
        const [low, high] = axis.scale.domain
        const texts = axis.labels.map(([text]) => text)
        expect(new Set(texts).size).toBe(texts.length)
        // Neat ends do not squeeze the data into a corner.
        if (length > 100) expect((max - min) / (high - low)).toBeGreaterThan(0.3)
        if (length > 100) expect(axis.ticks.length).toBeGreaterThanOrEqual(2)
      }),
    )
  })

  test.each(['root', 'signed log', 'log'] as const)('on a %s scale too', kind => {
    fc.assert(
      fc.property(span, side, length, ({ min, max }, side, length) => {
        const shift = kind === 'log' ? 1e-3 - Math.min(0, min) : 0
        const input = { kind: KINDS[kind], min: min + shift, max: max + shift, side }
        const axis = layout(input, length)
        expectReadable(axis, input, length)
        expectHeld(axis, input.min, input.max)
        const texts = axis.labels.map(([text]) => text)
        expect(new Set(texts).size).toBe(texts.length)
      }),
    )
  })

  test('keeps ends that were set by hand, and the ticks that were asked for', () => {
    fc.assert(
      fc.property(span, length, ({ min, max }, length) => {
        const axis = layout({ min, max, round: { min: false, max: false } }, length)
        expect(axis.scale.domain).toEqual([min, max])
        const wish = [min, (min + max) / 2, max]
        for (const tick of layout({ min, max, wish }, length).ticks) expect(wish).toContain(tick)
      }),
    )
  })

  test.each([
    [{ min: 0, max: 973 }, 400, ['0', '200', '400', '600', '800', '1,000']],
    [{ min: 0, max: 3, look: { locale: 'en', whole: true } }, 300, ['0', '1', '2', '3']],
    [{ min: -40, max: 60 }, 300, ['-40', '-20', '0', '20', '40', '60']],
    [
      { min: 0, max: 1, look: { locale: 'en', percent: true } },
      300,
      ['0%', '20%', '40%', '60%', '80%', '100%'],
    ],
    [{ min: 0, max: 30, wish: { every: 10 } }, 300, ['0', '10', '20', '30']],
  ] as [Partial<AxisInput>, number, string[]][])(
    '%j in %d pixels is marked as a person would',
    (input, length, texts) => {
      expect(layout(input, length).labels.map(([text]) => text)).toEqual(texts)
    },
  )
})

test('numbers at the ends of what a computer counts in end in an axis, too', () => {
  const odd = [0, 5e-324, 1e-310, 1e-300, 1e-100, 1, 1e300, Number.MAX_VALUE]
  const ends = odd.flatMap(a => odd.flatMap(b => [a, -a].flatMap(low => [b, -b].map(high => [low, high]))))
  for (const [min, max] of ends.filter(([low, high]) => low < high))
    for (const kind of ['linear', 'root', 'signed log', 'time'] as const) {
      const input = { kind: KINDS[kind], min, max }
      const base = layout(input, 300)
      expect(base.labels.length).toBeLessThan(40)
      for (const tick of base.ticks) expect(Number.isNaN(tick)).toBe(false)
      if (kind === 'linear')
        expect(layout({ ...input, side: 'right' }, 300, layout({ max: 8 }, 300)).ticks).toBeDefined()
    }
})

describe('an axis aligned to another', () => {
  test('has its ticks on the lines of the other, its data inside, and zero on zero', () => {
    fc.assert(
      fc.property(span, span, (one, other) => {
        const base = layout(one, 400)
        fc.pre(base.ticks.length > 1)
        const axis = layout({ ...other, name: 'y2', side: 'right', alignTo: 'y' }, 400, base)
        expect(axis.ticks.length).toBe(base.ticks.length)
        axis.ticks.forEach((tick, i) => {
          expect(axis.scale.map(tick)).toBeCloseTo(base.scale.map(base.ticks[i]), 3)
        })
        expectHeld(axis, other.min, other.max)
        const texts = axis.labels.map(([text]) => text)
        expect(new Set(texts).size).toBe(texts.length)
        const zero = base.ticks.indexOf(0)
        const roomy =
          (other.min >= 0 || zero > 0) && (other.max <= 0 || zero < base.ticks.length - 1) && zero >= 0
        const anchored = roomy && other.min <= 0 && other.max >= 0
        if (anchored) expect(axis.ticks[zero]).toBeCloseTo(0, 12)
        // Not more is given away than the steps of the other axis ask for.
        const [low, high] = axis.scale.domain
        const share = (other.max - other.min) / (high - low)
        expect(share).toBeGreaterThan(anchored ? 0.4 / base.ticks.length : 0.2)
      }),
    )
  })
})

describe('an axis of times', () => {
  const zones = fc.constantFrom('UTC', 'Europe/Berlin', 'America/St_Johns', 'Asia/Kathmandu')
  test('names every tick, never two alike side by side, whatever span, zone and language', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1900-01-01'), max: new Date('2100-01-01'), noInvalidDate: true }),
        fc.double({ min: 1, max: 13.5, noNaN: true }).map(power => 10 ** power),
        fc.double({ min: 60, max: 1600, noNaN: true }),
        side,
        zones,
        fc.constantFrom('en', 'de', 'ja'),
        (start, wide, length, side, zone, locale) => {
          const min = start.getTime()
          const input = {
            kind: KINDS.time,
            min,
            max: min + wide,
            side,
            zone: zoneOf(zone, 'timeZone'),
            look: { locale },
          }
          const axis = layout(input, length)
          expectReadable(axis, input, length)
          for (const [text] of axis.labels) expect(text).not.toBe('')
          const whole = axis.labels.map(([text], i) => `${text} ${axis.larger[i] ?? ''}`)
          for (let i = 1; i < whole.length; i++)
            if (axis.larger.some(Boolean) === false) expect(whole[i]).not.toBe(whole[i - 1])
          for (let i = 1; i < axis.ticks.length; i++) expect(axis.ticks[i]).toBeGreaterThan(axis.ticks[i - 1])
        },
      ),
    )
  })

  test('puts the name of a bucket into its middle', () => {
    const [min, max] = [Date.UTC(2024, 0, 1), Date.UTC(2024, 6, 1)]
    const axis = layout({ kind: KINDS.time, min, max, side: 'bottom', unit: 'month', intervals: true }, 300)
    expect(axis.labels.map(([text]) => text)).toEqual(['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun'])
    expect(axis.larger[0]).toBe('2024')
    expect((axis.labelAt[0] - min) / DAY).toBe(15.5)
  })
})

describe('an axis of names', () => {
  const names = fc.uniqueArray(fc.string({ minLength: 1, maxLength: 40 }), { minLength: 1, maxLength: 60 })
  test('shows names that do not touch, and every one where there is room', () => {
    fc.assert(
      fc.property(names, side, length, fc.boolean(), (words, side, length, reverse) => {
        const input = {
          kind: KINDS.category,
          min: -0.5,
          max: words.length - 0.5,
          words,
          side,
          reverse,
          round: { min: false, max: false },
        }
        const axis = layout(input, length)
        expectReadable(axis, input, length)
        expect(axis.ticks.length).toBeGreaterThan(0)
        const room = length / words.length
        if (room > 24) expect(axis.ticks.length).toBe(words.length)
        for (const lines of axis.labels) for (const line of lines) expect(wide(line)).toBeLessThanOrEqual(130)
      }),
    )
  })

  test('of ten thousand names costs a few labels only', () => {
    const words = Array.from({ length: 10_000 }, (_, i) => `Pier ${i}`)
    const axis = layout({ kind: KINDS.category, min: -0.5, max: 9999.5, words, side: 'bottom' }, 900)
    expect(axis.labels.length).toBeLessThan(30)
    expect(axis.labels[0]).toEqual(['Pier 0'])
  })
})

test('names take the longest form for which all have room, and say themselves whole', () => {
  const words = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August']
  const shorter = Object.fromEntries(words.map(word => [word, [word.slice(0, 3), word[0]]]))
  const names = (length: number, side: 'bottom' | 'left' = 'bottom') =>
    layout({ side, kind: KINDS.category, min: -0.5, max: 7.5, words, shorter }, length)
  expect(names(900).labels).toEqual(words.map(word => [word]))
  expect(names(400).labels).toEqual(words.map(word => [word.slice(0, 3)]))
  expect(names(200).labels).toEqual(words.map(word => [word[0]]))
  // Beside the plot each has a line of its own.
  expect(names(200, 'left').labels).toEqual(words.map(word => [word]))
  expect(names(400).wholes).toEqual(words.map(word => (word === 'May' ? undefined : word)))
})

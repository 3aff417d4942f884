// A picture read, beside what it should say: sentences for whatever does not agree.

import { type Measure, measureOf, type Tick, ticksOf } from './decoder/axis.ts'
import type { Picture, Shape } from './decoder/svg.ts'
import { readSvg } from './decoder/svg.ts'
import { numberIn } from './decoder/words.ts'
import type { Chart } from './factors.ts'
import { type Mark, marksOf, meaningsOf, type Raw, REST } from './oracle/marks.ts'
import { type Meaning, sumsUp } from './oracle/phrase.ts'
import type { Cell } from './oracle/summary.ts'

export interface Told {
  svg: string
  /** The data table behind the chart, as CSV. */
  csv: string
  findings: readonly { code: string; message: string }[]
}

export interface Verdict {
  faults: string[]
  /** What was compared, and what this reader does not read: neither is passed over in silence. */
  read: string[]
  unread: string[]
}

/** Roles of each kind; others in a description mean nothing to it. */
const ROLES: Record<string, readonly string[]> = {
  bar: ['x', 'y', 'color', 'series'],
  line: ['x', 'y', 'color', 'series', 'dash'],
  area: ['x', 'y', 'color', 'series'],
  scatter: ['x', 'y', 'color', 'series', 'size', 'shape'],
  heatmap: ['x', 'y', 'color', 'series'],
  pie: ['x', 'y', 'color', 'series'],
}

export function verdictOn(chart: Chart, raw: Raw, told: Told): Verdict {
  const out: Verdict = { faults: [], read: [], unread: [] }
  const { description, frame } = chart
  const drawn = description.draw as string | { as: string }
  const kind = typeof drawn === 'string' ? drawn : drawn.as
  const bound = Object.fromEntries(
    ROLES[kind].filter(role => description[role] !== undefined).map(role => [role, description[role]]),
  )
  if (kind === 'pie') {
    bound.color ??= bound.x
    delete bound.x
  }
  const meanings = meaningsOf(bound, raw.types)
  if (!meanings) return { ...out, unread: ['a phrase'] }
  const marks = marksOf(raw, meanings, {
    where: description.where as Record<string, unknown>,
    top: description.top as number,
    rest: description.rest as boolean,
    whole: kind === 'pie',
  })
  if (!marks) return { ...out, unread: ['which of equals are the greatest'] }
  if (description.order && meanings.y?.is === 'window' && meanings.y.how === 'so far')
    return { ...out, unread: ['running totals along categories in an order of their own'] }
  if (kind === 'pie' && meanings.color && sumsUp(meanings.color))
    return { ...out, unread: ['slices coloured by a number'] }
  const lost = marks.filter(({ values }) => meanings.x && values.x === null && values.y !== null)
  if (lost.length > 0 && !told.findings.some(({ code }) => code === 'without-place'))
    out.faults.push(`${lost.length} marks have no place along x, and nothing is said of them`)
  const picture = readSvg(told.svg)
  const locale = frame.locale ?? 'en'
  wordsWithin(picture, out)
  spoken(picture, marks, meanings, out, locale)
  table(kind, told.csv, marks, meanings, out)
  if (picture.plots.length === 0 || picture.plots.length > 1) return out
  const plot = picture.plots[0]
  const side = ((description.axes as any)?.y?.side ?? 'left') as 'left'
  const ticks = ticksOf(picture, plot, side)
  if (meanings.y && (sumsUp(meanings.y) || isNumber(meanings.y, raw)) && kind !== 'heatmap') {
    const measure = measureOf(ticks, locale)
    if (typeof measure === 'string') out.faults.push(measure)
    else if (!measure) {
      const told = plot.y1 - plot.y0 > 100 && picture.shapes.some(one => one.plot === 0)
      if (told && ticks.length < 2) out.unread.push('a scale with fewer than two ticks')
    } else {
      // Between two neighbouring whole numbers there is nothing to name.
      const whole =
        measure.ticks.length === 2 && Math.abs(measure.ticks[0].value - measure.ticks[1].value) === 1
      const counted = there(marks, meanings).every(({ values }) => Number.isInteger(values.y))
      if (
        plot.y1 - plot.y0 > 280 &&
        measure.ticks.length < 3 &&
        !(whole && counted && description.arrange !== 'share')
      )
        out.faults.push(
          `only ${measure.ticks.length} ticks on ${Math.round(plot.y1 - plot.y0)} px: ${ticks.map(({ text }) => text).join(' ')}`,
        )
      heights(kind, description, marks, meanings, picture, measure, out, told)
    }
  }
  names(marks, meanings, ticksOf(picture, plot, 'bottom'), raw, out, told)
  return out
}

const isNumber = (meaning: Meaning, raw: Raw) =>
  meaning.is === 'column' && raw.types[meaning.column] === 'number'

/** Words stand within the picture. */
function wordsWithin(picture: Picture, out: Verdict): void {
  for (const one of picture.shapes)
    if (
      one.kind === 'text' &&
      (one.x < -1 || one.x > picture.width + 1 || one.y < 4 || one.y > picture.height + 1)
    )
      out.faults.push(`"${one.text}" is outside the picture`)
  out.read.push('words')
}

/** What is spoken: the least and the greatest value. */
function spoken(
  picture: Picture,
  marks: Mark[],
  meanings: Record<string, Meaning>,
  out: Verdict,
  locale: string,
): void {
  const said = /Values from (.+?) \(.*?\) to (.+?) \(/.exec(picture.description)
  if (!said || locale !== 'en') return void out.unread.push('the spoken summary')
  const role = meanings.y && (sumsUp(meanings.y) || meanings.y.is === 'column') ? 'y' : undefined
  if (!role || (meanings.color && sumsUp(meanings.color))) return
  const values = marks
    .filter(mark => mark.values.x !== null || !meanings.x)
    .map(mark => mark.values[role])
    .filter(value => typeof value === 'number')
  if (values.length === 0) return
  for (const [words, value] of [
    [said[1], Math.min(...values)],
    [said[2], Math.max(...values)],
  ] as const) {
    const written = numberIn(words)
    if (written && Math.abs(written.value - value) > written.within + 1e-9 * Math.abs(value))
      out.faults.push(`it is said that values reach ${words}, and they reach ${value}`)
  }
  out.read.push('the spoken summary')
}

/** The data table: for each role that holds numbers or times, the values of all marks that are drawn, each as often as it comes. */
function table(
  kind: string,
  csv: string,
  marks: Mark[],
  meanings: Record<string, Meaning>,
  out: Verdict,
): void {
  const lines = csv
    .trim()
    .split(/\r?\n/)
    .map(line =>
      [...line.matchAll(/(?:^|,)(?:"((?:[^"]|"")*)"|([^,]*))/g)].map(([, quoted, bare]) => quoted ?? bare),
    )
  const drawn = marks.filter(mark => Object.keys(meanings).every(role => mark.values[role] !== null))
  const [head, ...rows] = lines
  for (const [role, meaning] of Object.entries(meanings)) {
    if (!sumsUp(meaning) && meaning.is !== 'column') continue
    if (role === 'y' && meanings.color && kind === 'heatmap') continue
    const numbers = (list: Mark[]) =>
      list.map(mark => mark.values[role]).filter(value => typeof value === 'number')
    const wanted = numbers(drawn)
    if (wanted.length === 0) continue
    const placed = numbers(marks.filter(mark => mark.values.x !== null))
    // A table has a column of its own for a role, or one for each series, after one or two that name the place.
    const columns = head.map((_, i) => [i])
    const wide = [1, 2].map(from => head.map((_, i) => i).slice(from))
    // Whether places without a value are listed is a matter of taste.
    const fits = [...columns, ...wide].some(some =>
      [wanted, placed].some(values => alike(values, cellsIn(rows, some))),
    )
    // Where series share places along x, each place is named once.
    const places =
      role === 'x' && [wanted, placed].some(values => alike([...new Set(values)], cellsIn(rows, [0])))
    if (!fits && !places) {
      const all = cellsIn(
        rows,
        head.map((_, i) => i),
      )
      const lacking = wanted.filter(value => !all.some(other => near(other, value)))
      out.faults.push(
        lacking.length > 0
          ? `the data table lacks values of ${role}: ${lacking.slice(0, 3).join(', ')}`
          : `the data table has values of ${role} as often as they do not come`,
      )
    }
  }
  out.read.push('the data table')
}

const cellsIn = (rows: string[][], columns: number[]) =>
  rows
    .flatMap(row => columns.map(column => row[column]))
    .filter(cell => cell !== undefined && cell !== '')
    .map(cell => (/^-?[\d.]+(e[-+]?\d+)?$/i.test(cell) ? Number(cell) : Date.parse(cell)))
    .filter(value => value === value)

function alike(a: readonly number[], b: readonly number[]): boolean {
  const [x, y] = [[...a].sort((p, q) => p - q), [...b].sort((p, q) => p - q)]
  return x.length === y.length && x.every((value, i) => near(value, y[i]))
}

const near = (a: number, b: number) => Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a), Math.abs(b))

/** The marks that have a place. */
const there = (marks: Mark[], meanings: Record<string, Meaning>): Mark[] =>
  marks.filter(
    ({ values }) =>
      typeof values.y === 'number' &&
      (values.x !== null || !meanings.x) &&
      (values.size !== null || !meanings.size),
  )

/** The value ends of shapes, as many and where they should be. */
function heights(
  kind: string,
  description: Record<string, unknown>,
  marks: Mark[],
  meanings: Record<string, Meaning>,
  picture: Picture,
  measure: Measure,
  out: Verdict,
  told: Told,
): void {
  const data = picture.shapes.filter(one => one.plot === 0)
  const drawn = there(marks, meanings)
  const arranged = (description.arrange ?? (kind === 'area' ? 'stack' : 'side')) as string
  const stacked = (kind === 'bar' || kind === 'area') && (arranged === 'stack' || arranged === 'share')
  if (meanings.shape && kind === 'scatter') return void out.unread.push('points of several forms')
  const found =
    kind === 'scatter' ? tops(data, 'disc') : kind === 'bar' ? barsOf(data, measure) : corners(data)
  if (kind === 'area') return void out.unread.push('areas')
  if (stacked) return piles(data, drawn, arranged === 'share', measure, out, told)
  if (found.length === 0 && drawn.length > 0)
    return void (
      told.findings.length === 0 &&
      out.faults.push(`nothing is drawn of ${drawn.length} marks, and nothing is said of it`)
    )
  const wanted = drawn.map(({ values }) => measure.toPixel(values.y as number)).filter(Number.isFinite)
  const beyond = told.findings.some(({ code }) => /outside|log|zero|fixed|several-at-a-place/.test(code))
  const [low, high] = [picture.plots[0].y0 - 5, picture.plots[0].y1 + 5]
  const lacking = wanted.filter(
    at => at >= low && at <= high && !found.some(other => Math.abs(other - at) <= measure.within),
  )
  if (lacking.length > 0 && !beyond)
    out.faults.push(
      `no ${kind} ends at ${lacking
        .slice(0, 4)
        .map(at => measure.toValue(at).toPrecision(5))
        .join(', ')}`,
    )
  const strange = found.filter(
    at => at > low + 5 && at < high - 5 && !wanted.some(other => Math.abs(other - at) <= measure.within),
  )
  if (strange.length > 0 && !beyond)
    out.faults.push(
      `a ${kind} ends at ${strange
        .slice(0, 4)
        .map(at => measure.toValue(at).toPrecision(5))
        .join(', ')}, which no mark says`,
    )
  out.read.push(`ends of ${kind}s`)
}

const tops = (data: Shape[], kind: 'disc') => data.flatMap(one => (one.kind === kind ? [one.y] : []))
const corners = (data: Shape[]) =>
  data.flatMap(one =>
    one.kind === 'stroke' && one.width >= 1.9 ? one.points.filter(([x]) => x === x).map(([, y]) => y) : [],
  )

/** Bars that stand on each other: each is as long as its value, or as its share of what stands at its place. */
function piles(
  data: Shape[],
  drawn: Mark[],
  shared: boolean,
  measure: Measure,
  out: Verdict,
  told: Told,
): void {
  const [nought, one] = [measure.toPixel(0), measure.toPixel(1)]
  // On a bent scale the length of a part hangs on where it stands.
  const bent = Math.abs(measure.toPixel(2) - 2 * one + nought) > 1e-6
  if (bent || !Number.isFinite(nought) || told.findings.some(({ code }) => code === 'outside-domain'))
    return void out.unread.push('piles on a bent scale, or beyond its ends')
  const at = (mark: Mark) => JSON.stringify(mark.values.x)
  const totals = new Map<string, number>()
  for (const mark of drawn)
    totals.set(at(mark), (totals.get(at(mark)) ?? 0) + Math.abs(mark.values.y as number))
  const wanted = drawn
    .map(mark => Math.abs((mark.values.y as number) * (one - nought)) / (shared ? totals.get(at(mark))! : 1))
    .filter(length => length > 1.5)
  const found = data.flatMap(shape =>
    shape.kind === 'filled' && shape.isBox ? [shape.box.y1 - shape.box.y0] : [],
  )
  const lacking = wanted.filter(length => !found.some(other => Math.abs(other - length) <= 1.6))
  if (lacking.length > 0)
    out.faults.push(
      `no part of a pile is worth ${lacking
        .slice(0, 4)
        .map(length => Math.abs(length / (one - nought)).toPrecision(4))
        .join(', ')}`,
    )
  if (found.filter(length => length > 2.5).length > wanted.length)
    out.faults.push(`${found.length} parts of piles stand for ${wanted.length} marks`)
  out.read.push('piles')
}

/** The ends of bars that are not at the baseline, which is the end that most of them share. */
function barsOf(data: Shape[], measure: Measure): number[] {
  const boxes = data.flatMap(one => (one.kind === 'filled' && one.isBox ? [one.box] : []))
  const zero = measure.toPixel(0)
  return boxes.map(({ y0, y1 }) => (Math.abs(y0 - zero) < Math.abs(y1 - zero) ? y1 : y0))
}

/** Names along the axis are those of categories, each once. */
function names(
  marks: Mark[],
  meanings: Record<string, Meaning>,
  ticks: Tick[],
  raw: Raw,
  out: Verdict,
  told: Told,
): void {
  const x = meanings.x
  if (x?.is !== 'column' || raw.types[x.column] !== 'text') return
  const wanted = new Set(
    marks
      .map(({ values }) => values.x as Cell)
      .filter(name => name !== null)
      .map(name => (name === REST ? 'Other' : String(name))),
  )
  const shown = ticks.map(({ whole }) => whole.replace(/\u2060/g, ''))
  for (const name of shown)
    if (
      ![...wanted].some(
        one => one === name || (one.startsWith(name) && name.length > 3) || one.includes(name),
      ) &&
      !/^(Other|Autres|Andere|Sonstige|أخرى)/.test(name)
    )
      out.faults.push(`"${name}" stands at the axis, and no mark is called so`)
  if (shown.length === 0 && wanted.size > 0 && told.findings.length === 0) out.unread.push('names along x')
  out.read.push('names along x')
}

import { signal } from '@preact/signals-core'
import { labelOf } from '../bind/naming.ts'
import { roleTexts } from '../bind/values.ts'
import type { Description, Drawing, Elsewhere } from '../describe/description.ts'
import type { Finding } from '../finding/error.ts'
import type { Found } from '../finding/found.ts'
import { type Answer, ask } from '../table/group/question.ts'
import type { RoleValues, Shaped } from '../table/group/shape.ts'
import type { Conditions } from '../table/group/where.ts'
import { Table } from '../table/live/table.ts'
import { type Meaning, wordsOf } from '../table/phrase/meaning.ts'
import type { Tongue } from '../words/tongue.ts'
import { Chart, type Panes } from './chart.ts'
import { Spread } from './spread.ts'

/** Panes beyond this many are too small to be read. */
const MOST_PANES = 36

/** What splits charts into panes: for each view a way of its own, which keeps the panes that it has made. */
export interface SplitsCharts extends Panes {
  splitter(): (shown: Chart | Spread, tongue: Tongue) => Split
}

/** A chart split into panes. */
export interface Split extends Found<Chart | Spread> {
  /** Whether its categories are on their way. */
  waiting?: boolean
}

/** The part that splits charts into panes, for `chartMaker({}, { panes })` of the small face. */
export const panes: SplitsCharts = {
  part: 'panes',
  splitter() {
    const all = new KeptPanes()
    return (shown, tongue) => all.of(shown, tongue)
  },
}

/** Panes stay the same charts while their category stays. */
class KeptPanes {
  private readonly known = new WeakMap<Chart, Map<string, Chart>>()
  /** Goes up when categories arrive that were asked for. */
  private readonly arrived = signal(0)
  private readonly onTheirWay = new WeakSet<object>()
  private readonly failed = new WeakSet<object>()

  /** The spread of a chart's panes; what asks for none stays as it is. */
  of(shown: Chart | Spread, tongue: Tongue): Split {
    const wish = shown instanceof Chart ? shown.resolved.panes : undefined
    if (!wish || !(shown instanceof Chart)) return { value: shown, findings: [] }
    const answer = categoriesIn(shown, wish.by, tongue)
    if ('then' in answer) return { value: whole(shown), findings: [], waiting: this.isOnItsWay(answer) }
    const shaped = answer
    const values = shaped.roles.get('x')
    if (!values || shaped.length === 0) return { value: whole(shown), findings: [] }
    const text = roleTexts(values, tongue.locale)
    const all = inOrder(values, shaped.length)
    const panes = all.slice(0, MOST_PANES).map(mark => this.paneOf(shown, wish.by, values, mark, text(mark)))
    const { columns, share } = wish
    return {
      value: new Spread(panes, { columns, share }, shown),
      findings: all.length > MOST_PANES ? [tooMany(all.length, labelOf(wish.by, shown.table, tongue))] : [],
    }
  }

  /** Splits again when an answer is here; what fails is told by the chart itself. */
  private isOnItsWay(answer: Promise<Shaped>): boolean {
    void this.arrived.value
    if (!this.onTheirWay.has(answer)) {
      this.onTheirWay.add(answer)
      answer.then(
        () => this.arrived.value++,
        () => {
          this.failed.add(answer)
          this.arrived.value++
        },
      )
    }
    return !this.failed.has(answer)
  }

  private paneOf(chart: Chart, by: Meaning, values: RoleValues, mark: number, name: string): Chart {
    const condition = conditionOf(values, mark)
    const known = this.known.get(chart) ?? new Map<string, Chart>()
    this.known.set(chart, known)
    const key = JSON.stringify([condition, name])
    const pane = known.get(key) ?? chart.describedAs(describedFor(chart, by, condition, name))
    known.set(key, pane)
    return pane
  }
}

/** The categories of a chart's rows. */
const categoriesIn = ({ table, description }: Chart, by: Meaning, tongue: Tongue): Answer =>
  ask(table, {
    roles: new Map<string, Meaning>([
      ['x', by],
      ['y', { is: 'summary', how: 'count' }],
    ]),
    where: description.where as Conditions | undefined,
    other: tongue.say('Other'),
  })

/** Marks of present categories: as the column orders them, in the order of numbers and times, else of first appearance. */
function inOrder({ cells, column, meaning }: RoleValues, length: number): number[] {
  const marks = Array.from({ length }, (_, mark) => mark)
  if (cells.type !== 'text')
    return marks
      .filter(mark => !Number.isNaN(cells.values[mark]))
      .sort((a, b) => cells.values[a] - cells.values[b])
  const present = marks.filter(mark => cells.codes[mark] >= 0)
  const ordered = meaning.is === 'cycle' || column?.options.order !== undefined
  return ordered ? present.sort((a, b) => cells.codes[a] - cells.codes[b]) : present
}

function conditionOf({ cells, ends }: RoleValues, mark: number): Conditions[string] {
  if (cells.type === 'text') return cells.words[cells.codes[mark]]
  const value = (at: number) => (cells.type === 'time' ? new Date(at) : at)
  return ends ? { from: value(cells.values[mark]), until: value(ends[mark]) } : value(cells.values[mark])
}

/** The chart without what its panes have in common: they are called by their category, and have no heading beside that. */
function describedFor(
  { description }: Chart,
  by: Meaning,
  condition: Conditions[string],
  name: string,
): Description {
  const {
    panes: _,
    subtitle: __,
    caption: ___,
    source: ____,
    stamp: _____,
    controls: ______,
    background: _______,
    ...rest
  } = description
  const phrase = by.is === 'bins' || by.is === 'bucket' ? by.column : wordsOf(by)
  const only = { [phrase]: condition }
  const column = 'column' in by ? by.column : undefined
  const narrowed = (drawing: Drawing<any>): Drawing<any> =>
    drawing.where ? { ...drawing, where: { ...drawing.where, ...only } } : drawing
  const draw = [rest.draw].flat().map(item => {
    if (typeof item !== 'object') return item
    if ('drawing' in item) {
      const other = item.table
      const has = other instanceof Table && column !== undefined && other.column(column) !== undefined
      const { drawing } = item
      const where = { ...drawing.where, ...only }
      return { ...item, drawing: has ? { ...drawing, where } : drawing } as Elsewhere
    }
    return 'as' in item ? narrowed(item) : item
  })
  return {
    ...rest,
    title: name,
    where: { ...rest.where, ...only },
    draw: Array.isArray(rest.draw) ? draw : draw[0],
    // What colour says is what the panes are called.
    ...(rest.color === wordsOf(by) ? { legend: false } : {}),
  }
}

/** A chart whose categories are not there yet is one pane. */
const whole = (chart: Chart): Chart => {
  const { panes: _, ...description } = chart.description
  return chart.describedAs(description)
}

const tooMany = (count: number, name: string): Finding => ({
  code: 'too-many-panes',
  message: `There is a pane for ${MOST_PANES} of the ${count} values of "${name}" alone`,
  remedy: 'Keep fewer with "where", or split by a column with fewer values.',
  path: 'panes',
})

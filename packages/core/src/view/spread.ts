import type { SpreadOptions } from '../describe/description.ts'
import { DapploError } from '../finding/error.ts'
import { quoted } from '../finding/plain-text.ts'
import { composeSpread } from '../pane/spread.ts'
import { Chart } from './chart.ts'

/** Several charts in one picture, lined up; scales named in `share` have one domain in all of them. */
export class Spread {
  readonly charts: readonly Chart[]
  readonly description: SpreadOptions
  /** The chart of which these are the panes; undefined where charts are put together by hand. */
  readonly split: Chart | undefined
  /** The chart whose rows fill the holes in the words of the spread: that which is split, else the first. */
  readonly speaker: Chart | undefined
  /** Lays its charts out in one picture. */
  readonly compose = composeSpread

  constructor(charts: readonly Chart[], options: SpreadOptions = {}, split?: Chart) {
    if (charts.length === 0 || !charts.every(chart => chart instanceof Chart)) {
      throw new DapploError(
        'bad-description',
        'A spread needs a list of charts',
        'spread',
        'Make them with chart(table, { … }).',
      )
    }
    const { columns } = options
    if (columns !== undefined && !(Number.isInteger(columns) && columns > 0)) {
      throw new DapploError(
        'bad-option',
        `${quoted(columns)} is no number of columns`,
        'columns',
        'Give a whole number from 1.',
      )
    }
    this.charts = [...charts]
    this.split = split
    this.speaker = split ?? speakerOf(charts[0], options)
    this.description = Object.freeze({ ...options })
  }

  /** The same spread with other options; charts stay. */
  with(options: SpreadOptions): Spread {
    return new Spread(this.charts, { ...this.description, ...options })
  }

  /** The spread as JSON data. */
  toJSON(): unknown {
    return { ...this.description, spread: this.charts.map(chart => chart.toJSON()) }
  }
}

const WORDS = ['title', 'subtitle', 'caption', 'source'] as const

/** The first chart with the words of its spread, where these have holes. */
function speakerOf(first: Chart, options: SpreadOptions): Chart | undefined {
  if (!WORDS.some(field => options[field]?.includes('{'))) return undefined
  const told = Object.fromEntries(WORDS.map(field => [field, options[field] ?? null]))
  return first.with({ ...told, stamp: null } as Parameters<Chart['with']>[0])
}

/** Puts charts into one picture, under each other or in `columns` side by side. */
export function spread(charts: readonly Chart<any>[], options?: SpreadOptions): Spread {
  return new Spread(charts, options)
}

import { maybeYears, namedAs, namedBy } from '../table/cells/names-as-numbers.ts'
import { answeredElsewhere } from '../table/group/question.ts'
import type { Table } from '../table/live/table.ts'
import { lookAt, type TableLook } from '../table/reshape/look.ts'

/** What a column is to a person who wants to see it. */
export interface ColumnFacts {
  name: string
  type: 'number' | 'time' | 'text'
  /** A number to add up or compare, a time, names of things, or what tells each row from the others. */
  is: 'measure' | 'time' | 'category' | 'identifier' | 'nothing'
  distinct: number
  /** Of measures: whether they add up; others are compared by their mean. */
  adds: boolean
  /** Of names: whether they have an order of their own, as years have. */
  ordered: boolean
  /** Of numbers and times. */
  min: number
  max: number
  /** Of names: letters of the longest of the commonest. */
  longest: number
}

/** Words in names of columns whose values are levels or rates: their sum says nothing. */
const LEVELS =
  /(^|[_ (])(age|altitude|average|delay|density|depth|duration|grade|height|humidity|index|knots|level|mean|median|minutes|percent|pressure|price|rate|ratio|score|share|speed|temp|temperature|weight|wind)s?([_ (]|$)/i

/** What each column is, by its values and its name. `look`: what is in it, where that is known already. */
export function factsOf(table: Table, look: TableLook = lookAt(table)): ColumnFacts[] {
  return look.columns.map((look): ColumnFacts => {
    const numberOf = (end: number | string | undefined) =>
      typeof end === 'string' ? Date.parse(end) : (end ?? Number.NaN)
    const [min, max] = [numberOf(look.min), numberOf(look.max)]
    const present = table.length - look.missing - look.unreadable
    const common = {
      name: look.name,
      type: look.type,
      distinct: look.distinct,
      adds: false,
      ordered: false,
      min,
      max,
      longest: 0,
    }
    if (look.distinct === 0) return { ...common, is: 'nothing' }
    if (look.type === 'time') return { ...common, is: look.distinct > 1 ? 'time' : 'nothing' }
    if (look.type === 'text') {
      const longest = Math.max(...(look.commonest ?? []).map(([name]) => [...name].length))
      const named =
        look.distinct < 2 ? 'nothing' : tellsRows(look.distinct, present) ? 'identifier' : 'category'
      return { ...common, is: named, longest }
    }
    // Of rows that are elsewhere the name and the ends are known alone.
    const column = answeredElsewhere(table) ? undefined : table.column(look.name)
    const names = column ? namedBy(column) : namedAs(look.name, min, max)
    if (names === 'years' || (column && maybeYears(column)))
      return { ...common, is: look.distinct > 1 ? 'category' : 'nothing', ordered: true, longest: 4 }
    if (names === 'identifiers' || look.distinct < 2)
      return { ...common, is: names ? 'identifier' : 'nothing' }
    return {
      ...common,
      is: 'measure',
      adds: min >= 0 && !LEVELS.test(look.name.replace(/([a-z])([A-Z])/g, '$1 $2')),
    }
  })
}

/** So many names that each stands for next to one row, and too many to be shown. */
const tellsRows = (distinct: number, rows: number): boolean => distinct > 30 && distinct > rows * 0.8

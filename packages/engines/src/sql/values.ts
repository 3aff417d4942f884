import type { FarOffsets, FarTimes, FarValue } from '@dapplo/core/far'
import type { CalendarPart, Dialect, Writer } from './dialect.ts'

/** A table as its engine knows it. */
export interface EngineTable {
  /** What it is read from, ready to stand after FROM. */
  source: string
  columns: ReadonlyMap<string, EngineColumn>
  /** What puts its rows in order; undefined where nothing does. */
  place: string | undefined
}

export interface EngineColumn {
  name: string
  type: 'number' | 'time' | 'text'
  given: string
}

/** The column of the place: it begins with a sign that nobody sees, so that none of a table's is called so. */
const PLACE = '\u2060place'

/** Writes the expressions of one statement. */
export class Expressions {
  readonly dialect: Dialect
  readonly table: EngineTable
  readonly writer: Writer
  private readonly careful: boolean
  private readonly used = new Set<string>()
  private readonly names = new Map<string, string>()
  private usesPlace = false

  /** `careful`: whether values may be no finite numbers where that would spoil an answer. */
  constructor(dialect: Dialect, table: EngineTable, writer: Writer, careful: boolean) {
    this.dialect = dialect
    this.table = table
    this.writer = writer
    this.careful = careful
  }

  column(name: string): EngineColumn {
    const column = this.table.columns.get(name)
    if (!column) throw new Error(`there is no column ${JSON.stringify(name)}`)
    return column
  }

  /** The name of a column where it is used. */
  stored({ name }: EngineColumn): string {
    this.used.add(name)
    return this.dialect.quote(name)
  }

  /** The place of rows where it is used. */
  place(): string {
    if (this.table.place === undefined) throw new Error('the rows of this table have no order')
    this.usesPlace = true
    return this.dialect.quote(PLACE)
  }

  /** Gives what is used several times a name: worked out once, and written once. */
  readonly named = (expression: string): string => {
    let name = this.names.get(expression)
    if (name === undefined) {
      name = this.dialect.quote(`\u2060${this.names.size}`)
      this.names.set(expression, name)
    }
    return name
  }

  /**
   * What stands after FROM, with its conditions: those on columns as they are stand where the table is read, those on what
   * has a name come after it.
   */
  from(plain: readonly string[], named: readonly string[]): string {
    const { quote } = this.dialect
    const columns = [...this.used].map(quote)
    const place = this.usesPlace ? [`${this.table.place} AS ${quote(PLACE)}`] : []
    const where = (tests: readonly string[]) => (tests.length > 0 ? ` WHERE ${tests.join(' AND ')}` : '')
    if (this.names.size === 0 && place.length === 0)
      return `${this.table.source}${where([...plain, ...named])}`
    const alias = quote('\u2060t')
    const head = [...columns, ...place].join(', ')
    let from = `(SELECT ${head} FROM ${this.table.source}${where(plain)}) AS ${alias}`
    const known = [...columns, ...(this.usesPlace ? [quote(PLACE)] : [])]
    for (const [expression, name] of this.names) {
      from = `(SELECT ${[...known, `${expression} AS ${name}`].join(', ')} FROM ${from}${this.dialect.fence}) AS ${alias}`
      known.push(name)
    }
    return `${from}${where(named)}`
  }

  typeOf(value: FarValue): 'number' | 'text' {
    if (value.is === 'kept') return 'text'
    if (value.is !== 'column') return 'number'
    return (value.as ?? this.column(value.column).type) === 'text' ? 'text' : 'number'
  }

  /** A value as whole or double number, or as text. */
  of(value: FarValue): string {
    const { dialect, writer } = this
    switch (value.is) {
      case 'place':
        return this.place()
      case 'column':
        return this.plain(value)
      case 'bucket':
        return (
          this.storedBucket(value) ??
          dialect.bucket(
            this.local(this.time(value.column, value.clock), value.offsets),
            value.unit,
            this.named,
          )
        )
      case 'step': {
        const time = this.time(value.column, value.clock)
        const shifted = value.shift === 0 ? time : `(${time} + ${writer.number(value.shift)})`
        return dialect.floorDivide(shifted, value.step)
      }
      case 'cycle': {
        const part = PARTS[value.cycle]
        return dialect.part(this.local(this.time(value.column, value.clock), value.offsets), part, this.named)
      }
      case 'bin': {
        const { step, most } = value
        const bin = dialect.floor(`(${this.plain(value)} / ${writer.number(step)} + 1e-9)`)
        const number = writer.number(most)
        return `(CASE WHEN ${bin} > ${number} THEN ${number} ELSE ${bin} END)`
      }
      case 'cell': {
        const { from, perUnit } = value
        const plain = this.trusted({ is: 'column', column: value.column, clock: value.clock, as: value.as })
        const own = value.log10 ? `(CASE WHEN ${plain} > 0 THEN ${dialect.log10(plain)} END)` : plain
        return dialect.cell(`(${own} - ${writer.number(from)}) * ${writer.number(perUnit)}`)
      }
      case 'kept': {
        const inner = this.of(value.of)
        const list = value.values.map(one => this.constant(one))
        const stays = list.length > 0 ? `${inner} IN (${list.join(', ')}) OR ` : ''
        return `(CASE WHEN ${stays}${inner} IS NULL THEN ${inner} ELSE ${writer.text(value.rest)} END)`
      }
    }
  }

  /** A value of which only finite numbers are expected. */
  trusted(value: FarValue): string {
    const column = this.numbersAsStored(value)
    return column
      ? this.dialect.trusted(this.stored(column), column.given)
      : this.dialect.asNumber(this.of(value))
  }

  /** A number as it is stored, to be compared; undefined for what is worked out. */
  storedNumber(value: FarValue): string | undefined {
    if (value.is !== 'column' || value.as !== undefined) return undefined
    const column = this.column(value.column)
    return column.type === 'number' ? this.dialect.trusted(this.stored(column), column.given) : undefined
  }

  /** A value to be looked for among others. */
  compared(value: FarValue): string {
    return this.storedNumber(value) ?? this.of(value)
  }

  /** A value that is added up. */
  summed(value: FarValue): string {
    const column = value.is === 'column' && !this.careful ? this.column(value.column) : undefined
    return column?.type === 'number' ? this.dialect.summed(this.stored(column), column.given) : this.of(value)
  }

  /** The least or greatest of a column: of times by what is stored, of which engines know it. */
  extreme(how: 'min' | 'max', value: FarValue, beside?: FarValue): string {
    const { dialect } = this
    if (beside)
      return dialect.asNumber(`${how}(CASE WHEN ${this.of(beside)} IS NOT NULL THEN ${this.of(value)} END)`)
    if (value.is === 'column' && !value.clock && !value.as && !this.careful) {
      const column = this.column(value.column)
      const stored = this.stored(column)
      if (column.type === 'time') return dialect.asNumber(dialect.time(`${how}(${stored})`, column.given))
      if (column.type === 'number') return dialect.trusted(`${how}(${stored})`, column.given)
    }
    return dialect.asNumber(`${how}(${this.of(value)})`)
  }

  /** Buckets on the clock that a column shows: those of its stored times, whatever became of its zone since. */
  private storedBucket({
    column: name,
    clock,
    offsets,
    unit,
  }: FarValue & { is: 'bucket' }): string | undefined {
    const column = this.column(name)
    const plain = clock !== undefined || (offsets.first === 0 && offsets.changes.length === 0)
    return plain ? this.dialect.storedBucket?.(this.stored(column), column.given, unit) : undefined
  }

  constant(value: string | number): string {
    return typeof value === 'number' ? this.writer.number(value) : this.writer.text(value)
  }

  private plain({ column: name, clock, as }: FarTimes): string {
    const column = this.column(name)
    const { dialect } = this
    const stored = this.stored(column)
    if (as === 'number' && column.type === 'text') return dialect.numberIn(stored)
    if (as === 'text' && column.type === 'number') return dialect.textOf(stored, column.given)
    if (column.type === 'time') return this.time(name, clock)
    return dialect[column.type](stored, column.given)
  }

  /** A column of numbers that is read as what it is. */
  private numbersAsStored(value: FarValue): EngineColumn | undefined {
    if (value.is !== 'column' || value.as !== undefined || this.careful) return undefined
    const column = this.column(value.column)
    return column.type === 'number' ? column : undefined
  }

  /** Times as milliseconds in UTC. */
  private time(name: string, clock: FarOffsets | undefined): string {
    const column = this.column(name)
    const time = this.dialect.time(this.stored(column), column.given)
    return clock ? `(${this.named(time)} - ${this.offset(this.named(time), clock)})` : time
  }

  /** Times as milliseconds on the calendar of a zone. */
  private local(time: string, offsets: FarOffsets): string {
    return offsets.first === 0 && offsets.changes.length === 0
      ? time
      : `(${this.named(time)} + ${this.offset(this.named(time), offsets)})`
  }

  /** How far clocks are ahead: found by halving, as a zone may have changed hundreds of times. */
  private offset(time: string, { first, changes }: FarOffsets): string {
    const { writer } = this
    const within = (from: number, until: number): string => {
      if (from === until) return writer.number(from === 0 ? first : changes[from - 1].offset)
      const middle = (from + until + 1) >> 1
      return `CASE WHEN ${time} < ${writer.number(changes[middle - 1].at)} THEN ${within(from, middle - 1)} ELSE ${within(middle, until)} END`
    }
    return `(${within(0, changes.length)})`
  }
}

const PARTS: Record<string, CalendarPart> = {
  'hour of day': 'hour',
  weekday: 'weekday',
  'day of month': 'day',
  'day of year': 'day of year',
  'month of year': 'month',
}

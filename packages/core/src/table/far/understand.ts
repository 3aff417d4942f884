import { bucketOfDay, CYCLES, DAY, isClockUnit, LENGTH } from '../cells/calendar.ts'
import { utc, type Zone } from '../cells/zone.ts'
import { binCodes, layoutOver } from '../group/bins.ts'
import {
  bucketCodes,
  type Codes,
  cycleCodes,
  type DayUnit,
  encodeDistinct,
  phaseAt,
  stepCodes,
} from '../group/encode.ts'
import type { Encoded } from '../group/encoded.ts'
import { type Meaning, untopped } from '../phrase/meaning.ts'
import type { FarFacts } from './facts.ts'
import type { FarColumn } from './far-column.ts'
import type { FarOffsets, FarValue } from './model.ts'
import { offsetsOf } from './offsets.ts'

/** A phrase that groups, as an engine works it out, and what its answers stand for. */
export interface Understood {
  column: FarColumn
  value: FarValue
  /** The values that an engine answered with, as codes. */
  read(answers: Float64Array | (string | null)[]): Encoded
  /** All codes that rows can have, where they are whole numbers: the number of the first, and what they stand for. */
  all?: () => Promise<{ least: number; codes: Codes } | undefined>
}

/** Understands a phrase that groups or names a column. */
export async function understand(
  meaning: Meaning & { column: string },
  facts: FarFacts,
): Promise<Understood> {
  const column = facts.column(meaning.column)
  const own = untopped(meaning)
  if (column.type === 'text') {
    await facts.name(column.name)
    return {
      column,
      value: await facts.value(column.name),
      read: answers => wordCodes(column, answers as (string | null)[]),
    }
  }
  switch (own.is) {
    case 'bucket':
      return isClockUnit(own.unit)
        ? clockSteps(column, LENGTH[own.unit], facts)
        : calendarBuckets(column, own.unit as DayUnit, facts)
    case 'cycle': {
      const { first } = CYCLES[own.cycle]
      const codes = cycleCodes(own.cycle)
      return {
        column,
        value: {
          is: 'cycle',
          ...(await facts.times(column.name)),
          cycle: own.cycle,
          offsets: await offsetsIn(column, facts),
        },
        read: answers => counted(answers, first, codes),
        all: async () => ({ least: first, codes }),
      }
    }
    case 'bins': {
      const extent = await facts.extent(column.name)
      const sample = await facts.sample(column.name)
      const layout = layoutOver(facts.rows, () => sample, extent, own)
      const codes = binCodes(layout)
      const least = layout?.least ?? 0
      const { step, most } = layout
        ? { step: layout.step, most: layout.most + layout.open }
        : { step: 1, most: 0 }
      return {
        column,
        value: { is: 'bin', ...(await facts.times(column.name)), step, most },
        read: answers => counted(answers, least, codes),
        all: async () => ({ least, codes }),
      }
    }
    default:
      return {
        column,
        value: await facts.value(column.name),
        read: answers => encodeDistinct(answers as Float64Array, column.type as 'number' | 'time'),
      }
  }
}

/** The clocks of a column's zone while its values last. */
async function offsetsIn(column: FarColumn, facts: FarFacts): Promise<FarOffsets> {
  if (column.zone === utc) return { first: 0, changes: [] }
  const { min, max } = await facts.extent(column.name)
  return offsetsOf(column.zone, min, max)
}

async function clockSteps(column: FarColumn, step: number, facts: FarFacts): Promise<Understood> {
  const { min, max } = await facts.extent(column.name)
  const known = min <= max
  const shift = phaseAt(column.zone, step, known ? min : 0)
  const numberOf = (time: number) => Math.floor((time + shift) / step)
  const codes = (least: number, most: number) => stepCodes(step, shift, least, most)
  return {
    column,
    value: { is: 'step', ...(await facts.times(column.name)), step, shift },
    read: answers => countedBetween(answers as Float64Array, codes),
    all: async () =>
      known ? { least: numberOf(min), codes: codes(numberOf(min), numberOf(max)) } : undefined,
  }
}

async function calendarBuckets(column: FarColumn, unit: DayUnit, facts: FarFacts): Promise<Understood> {
  const offsets = await offsetsIn(column, facts)
  const { zone } = column
  const codes = (least: number, most: number) => bucketCodes(unit, zone, least, most)
  return {
    column,
    value: { is: 'bucket', ...(await facts.times(column.name)), unit, offsets },
    read: answers => countedBetween(answers as Float64Array, codes),
    all: async () => {
      const { min, max } = await facts.extent(column.name)
      if (!(min <= max)) return undefined
      const least = bucketAt(min, unit, zone)
      return { least, codes: codes(least, bucketAt(max, unit, zone)) }
    },
  }
}

const bucketAt = (time: number, unit: DayUnit, zone: Zone): number =>
  bucketOfDay(Math.floor((time + zone.offsetAt(time)) / DAY), unit)

function wordCodes({ dictionary }: FarColumn, answers: readonly (string | null)[]): Encoded {
  const codes = Int32Array.from(answers, word => (word === null ? -1 : dictionary!.code(word)))
  const { words } = dictionary!
  return {
    codes,
    size: words.length,
    cellsOf: picked => ({ type: 'text', codes: picked, words }),
  }
}

/** Whole numbers counted from one that is known. */
function counted(answers: ArrayLike<unknown>, least: number, codes: Codes): Encoded {
  const at = answers as ArrayLike<number>
  return { ...codes, codes: Int32Array.from(at, value => (value === value ? value - least : -1)) }
}

/** Whole numbers counted from the least of them. */
function countedBetween(answers: Float64Array, codesOf: (least: number, most: number) => Codes): Encoded {
  let least = Number.POSITIVE_INFINITY
  let most = Number.NEGATIVE_INFINITY
  for (const value of answers) {
    if (value < least) least = value
    if (value > most) most = value
  }
  if (least > most) return counted(answers, 0, codesOf(0, -1))
  return counted(answers, least, codesOf(least, most))
}

/**
 * What the compiler suggests for the trade's other words, as the run time does: a description whose phrases or kinds are
 * not understood is held against one in which each of them stands as it should be written.
 */
import type { MEANT_WORDS, ROW_COUNTS } from '../table/phrase/trade-words.ts'
import type { Builtin, Description, Drawing, Elsewhere } from './description.ts'
import type { Kind } from './model.ts'
import type { Cycle, End, Name, Phrase, Unit } from './phrases.ts'
import type { KINDS } from './trade-words.ts'

/** Where a string is a phrase. */
type Bound =
  | 'x'
  | 'y'
  | 'color'
  | 'series'
  | 'size'
  | 'shape'
  | 'dash'
  | 'link'
  | 'label'
  | 'through'
  | 'panes'
type Opening = 'sum' | 'mean' | 'median' | 'share' | 'rank' | 'sum so far' | 'bins' | End | Unit | Cycle

/** Our word for one of the trade's. */
type Opened<W extends string> = W extends Opening
  ? W
  : W extends
        | `percentile ${infer N extends number}`
        | `${infer N extends number}${'th' | 'st' | 'nd' | 'rd'} percentile`
    ? `p${N}`
    : {
        [K in keyof typeof MEANT_WORDS]: W extends (typeof MEANT_WORDS)[K][number] ? K : never
      }[keyof typeof MEANT_WORDS]

/** The column of this name, whatever its letters' case. */
type Column<R, C extends string> = { [K in Name<R>]: Lowercase<K> extends C ? K : never }[Name<R>]

/** What a phrase may be taken apart into: an opening word and the column that it is about. */
type Parts<S extends string> =
  | (S extends `${infer W} of ${infer C}` | `${infer W}(${infer C})` ? [W, C] : never)
  | (S extends `${infer C}, ${'by' | 'per'} ${infer U}` ? [`by ${U}`, C] : never)
  | (S extends `${infer C} ${'by' | 'per'} ${infer U}` ? [`by ${U}`, C] : never)
  | (S extends `${infer W} ${infer C}` ? [W, C] : never)

type FromParts<R, P> = P extends [infer W extends string, infer C extends string]
  ? W extends 'number' | 'count' | 'no.' | '#'
    ? 'count' | `distinct ${Column<R, C>}`
    : Opened<W> extends 'distinct'
      ? `distinct ${Column<R, C>}`
      : `${Opened<W>} of ${Column<R, C>}`
  : never

/** What `S` should be, where that is known. */
type Meant<R, S extends string> = S extends (typeof ROW_COUNTS)[number]
  ? 'count'
  : Extract<Column<R, S> | FromParts<R, Parts<S>>, Phrase<R>>

/** A phrase as it should be written; all phrases where nothing near is known, of which the compiler tells the nearest. */
type Phrased<R, S> = S extends string
  ? string extends S
    ? S
    : S extends Phrase<R>
      ? S
      : [Meant<R, Lowercase<S>>] extends [never]
        ? Phrase<R>
        : Meant<R, Lowercase<S>>
  : S extends readonly unknown[]
    ? { [I in keyof S]: Phrased<R, S[I]> }
    : S

type PlainKind<S extends string> =
  S extends `${infer K}${' ' | '-' | '_'}${'chart' | 'graph' | 'plot' | 'diagram'}` ? K : S

/** A kind as it is called here. */
type Called<S> = S extends string
  ? S extends Builtin
    ? S
    : PlainKind<Lowercase<S>> extends infer P
      ? P extends Builtin
        ? P
        : P extends keyof typeof KINDS
          ? (typeof KINDS)[P] extends `Draw "${infer K}"${string}`
            ? K
            : Builtin
          : Builtin
      : never
  : S extends Kind | Elsewhere
    ? S
    : AsMeant<string, S>

/** The same description with each phrase and kind as it should be written. */
export type AsMeant<R, D> = {
  [K in keyof D]: K extends Bound
    ? Phrased<R, D[K]>
    : K extends 'draw' | 'as'
      ? D[K] extends readonly unknown[]
        ? { [I in keyof D[K]]: Drawn<R, D[K][I]> }
        : Drawn<R, D[K]>
      : D[K]
}
type Drawn<R, S> = S extends string ? Called<S> : S extends Kind | Elsewhere ? S : AsMeant<R, S>

type Text = string & {}
type LooseRoles<X> = Omit<X, Bound | 'as'> & {
  [K in Extract<keyof X, Bound>]?: X[K] | Text | Text[]
} & ('as' extends keyof X ? { as: Builtin | Kind | Text } : unknown)
type LooseDrawing<R> = Builtin | Kind | Text | LooseRoles<Drawing<R>> | Elsewhere

/** A description in which any string may stand where a phrase or a kind does. */
export type Loose<R> = Omit<LooseRoles<Description<R>>, 'draw'> & {
  draw: LooseDrawing<R> | LooseDrawing<R>[]
}
/** A drawing in which any string may stand where a phrase or a kind does. */
export type LooseOne<R> = LooseRoles<Drawing<R>>

/** What is wanted of `D`: to be a `Whole`, or, where its phrases are at fault, to be as they were meant. */
export type Wanted<R, D, Whole> = [D] extends [unknown]
  ? [D] extends [Whole]
    ? Whole
    : [D] extends [AsMeant<R, D>]
      ? Whole
      : AsMeant<R, D>
  : // Never taken: it is where the compiler learns `D` from.
    D

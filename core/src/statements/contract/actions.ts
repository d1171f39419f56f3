import type { ResultTable } from './results'

/** What a line may ask before it says what it can do. */
export interface ActionFacts {
  /** The line has results to show. */
  speaks: boolean
  letter: string
  /** The slider that a place moves by, and whether it is a place itself; null where none does. */
  sliderOf(place: string): { name: string; place: boolean } | null
  isMeasured(curve: string): boolean
  /** The value of a typed number, or null where it has none. */
  number(text: string): number | null
}

/** Something a line can do in one press. All of it is data: the page knows how each is carried out. */
export type LineAction = { id: string; label: string } & (
  | { does: 'change'; change: object; pressed?: boolean }
  | { does: 'add'; line: object }
  /** A slider goes over its bounds in equal steps, with a pause at each; a lane is opened for it. */
  | { does: 'sweep'; slider: string; change: object; lane: { curve: string; order: number } }
  /** A slider goes to 0 by ever smaller distances, with the frame or without. */
  | { does: 'walk'; slider: string; from: string; distances: readonly number[] }
  /** Some of a list of choices, in their order. */
  | {
      does: 'choose'
      field: string
      options: readonly {
        value: string
        text: string
        chosen: boolean
        fixed: boolean
        /** What taking it or leaving it comes to, where that is more than the list. */
        change?: object
      }[]
      all: readonly string[]
    }
  /** Numbers that may be given, and are usual where they are not. */
  | {
      does: 'numbers'
      fields: readonly { field: string; words: string; text: string }[]
    }
  /** A slider leads through what the line has gone through, one by one; `letter` is what it is called by. */
  | {
      does: 'follow'
      field: string
      letter: string
      table: ResultTable['name']
      bounds?: { from: number; to: number }
    }
  /** A number to type. */
  | { does: 'number'; field: string; words: string; value: number }
)

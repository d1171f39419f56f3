import type { Hint, Problem } from '../../language/problems'
import type { LineTexts } from '../../vocabulary/equation'
import type { ExactForm } from '../../vocabulary/exactForms'
import type { Mark } from './marks'
import type { SpaceMark } from './space'

/** A number or equation under a sentence: exactly what a person would copy. */
export interface Readout {
  /** What it is, whatever it is called: slope, line, rSquared. */
  id: string
  /** What a person calls it. */
  label: string
  text: string
  /** The same as LaTeX, where it is a formula that is read better typeset. */
  latex?: string
  /** For a straight line: what its other forms are made of. */
  straight?: LineTexts
  /** The unrounded number behind it, where it is one number. */
  value?: number
  /** The same number with fractions, roots and π, where there is such a form. */
  exact?: ExactForm
}

/** Something in the way of a line, in words, with a way out. */
export interface LineProblem {
  message: string
  fix?: string
  /** The text of it that is underlined, where it is words. */
  piece?: string
  /** A name that lacks a value. */
  missing?: string
  /** Where in the formula it stands. */
  at?: Pick<Problem, 'from' | 'to' | 'replacement' | 'choices'>
}

/** Rows of numbers under a sentence. */
export interface ResultTable {
  name:
    | 'Secants'
    | 'Solutions'
    | 'Values'
    | 'Strips'
    | 'Features'
    | 'Candidates'
    | 'Counts'
    | 'Closing in'
    | 'Probes'
    | 'Terms'
    | 'Searches'
  /** Which of several of its name it is. */
  of?: string
  columns: readonly string[]
  /** What the columns are, whatever their headings, where lines are worked out from them. */
  columnIds?: readonly string[]
  /** How many rows there are; they are made when they are first read. */
  count: number
  readonly rows: readonly ResultRow[]
  /** Shown at once; else behind a button. */
  open: boolean
}
/** What a table is called, among several of its name. */
export const tableTitle = ({ name, of }: Pick<ResultTable, 'name' | 'of'>) =>
  of === undefined ? name : `${name}, ${of}`

export interface ResultRow {
  /** As a person reads and copies it. */
  cells: readonly string[]
  /** The numbers behind the cells, for sorting and files; null where a cell is no number. */
  values: readonly (number | null)[]
  /** Where on the axis the row belongs, so that row and point light each other. */
  x?: number
}

/** A table whose rows are made when they are first looked at: most stay closed during a drag. */
export function lazyTable(
  head: Omit<ResultTable, 'rows'>,
  make: () => readonly ResultRow[],
): ResultTable {
  let rows: readonly ResultRow[] | undefined
  return {
    ...head,
    get rows() {
      return (rows ??= make())
    },
  }
}

/** Points of one kind in a chart. */
export interface ChartSeries {
  name: string
  points: readonly (readonly [x: number, y: number])[]
}
export interface ResultChart {
  name: string
  xLabel: string
  yLabel: string
  /** Both scales count in powers of ten. */
  logarithmic: boolean
  series: readonly ChartSeries[]
  /** What it shows, for those who do not see it. */
  summary: string
}

/** Signs of several functions over one span, row by row. */
export interface SignFigure {
  from: number
  to: number
  rows: readonly {
    name: string
    stretches: readonly { from: number; to: number; sign: 1 | -1; words: string }[]
    /** Places where it is 0 or missing. */
    marks: readonly { x: number; text: string; zero: boolean }[]
  }[]
}

/** What follows from a line in one press: another line, or the words that would ask for one. */
export type Follower = { text: string } & ({ line: object } | { words: string })

/** Whether a list is whole, in words. */
export interface Verdict {
  complete: boolean
  text: string
  /** A stretch that could not be settled. */
  unresolved: readonly (readonly [number, number])[]
}

export interface LineResult {
  readouts: Readout[]
  marks: Mark[]
  /** What it adds to the view of the surfaces. */
  space?: readonly SpaceMark[]
  problems: LineProblem[]
  /** What else is to be said about it, a sentence each. */
  notes?: string[]
  tables?: readonly ResultTable[]
  charts?: readonly ResultChart[]
  /** Sentences that follow, each with the place it is read from. */
  conclusions?: readonly { text: string; at?: number }[]
  /** Signs as a compact figure. */
  signs?: SignFigure
  /** The sum in sigma notation, as LaTeX; null where there is none. */
  sigma?: string | null
  verdict?: Verdict
  /** Longer work is under way; what stands here is from before. */
  pending?: boolean
  /** Lines that follow from this one in one press. */
  offers?: readonly Follower[]
  /** Remarks that are no fault, such as another way a formula could have been meant. */
  hints: Hint[]
}

export const emptyResult: LineResult = { readouts: [], marks: [], problems: [], hints: [] }
export const failed = (...problems: LineProblem[]): LineResult => ({ ...emptyResult, problems })

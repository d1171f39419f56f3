import type { z } from 'zod'
import type { RealFunction } from '../evaluate/compile'
import type { Examination } from '../features/examine'
import type { Hint, Problem } from '../language/problems'
import type { Tree } from '../language/tree'
import type { Steps } from '../features/zeros'
import type { ExactForm } from '../study/exactForms'
import type { SpanText, Variable } from '../study/parts'

/** A stretch of a sentence: fixed words, or a slot that is edited in place. */
export type Phrase =
  /** Mathematics among the words has its own LaTeX. */
  | { text: string; latex?: string }
  | {
      slot: SlotKind
      /** The member of the line that the slot edits. */
      field: string
      /** What the slot holds, in plain characters. */
      text: string
      /** What an editor opens with. */
      source: string
      latex: string
      /** What a choice can be, each as text; the text is what the member takes. */
      choices?: readonly { value: string; text: string }[]
    }

export type SlotKind =
  'formula' | 'domain' | 'curve' | 'place' | 'span' | 'target' | 'number' | 'choice'

export type ReadoutLabel =
  | 'slope'
  | 'line'
  | 'value'
  | 'rise'
  | 'run'
  | 'dy'
  | 'formula'
  | 'R²'
  | 'sum'
  | 'exact'
  | 'difference'
  | 'over'
  | 'short'
  | 'area'
  | 'total'
  | 'average'
  | 'displacement'
  | 'distance'
  | 'highest'
  | 'lowest'
  | 'length'

/** A number or equation under a sentence: exactly what a person would copy. */
export interface Readout {
  label: ReadoutLabel
  text: string
  /** For a straight line: what its other forms are made of. */
  straight?: StraightLine
  /** The unrounded number behind it, where it is one number. */
  value?: number
  /** The same number with fractions, roots and π, where there is such a form. */
  exact?: ExactForm
}

/** Something in the way of a line, in words, with a way out. */
export interface LineProblem {
  message: string
  fix?: string
  /** A name that lacks a value. */
  missing?: string
  /** Where in the formula it stands. */
  at?: Pick<Problem, 'from' | 'to' | 'replacement'>
}

/** A straight line through a point. */
export interface StraightLine {
  at: number
  value: number
  slope: number
}

/** Rows of numbers under a sentence. */
export interface ResultTable {
  name: 'Secants' | 'Solutions' | 'Values' | 'Strips' | 'Features' | 'Candidates' | 'Counts'
  columns: readonly string[]
  /** How many rows there are; they are made when they are first read. */
  count: number
  readonly rows: readonly ResultRow[]
  /** Shown at once; else behind a button. */
  open: boolean
}
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

/** Which lane a mark belongs to: the curve's own, or one of its derivatives'. */
export interface LaneOf {
  curve: string
  order: number
}

/** What a line adds to the picture, in the coordinates of its lane. */
export type Mark = { lane: LaneOf } & (
  | { kind: 'dot'; x: number; y: number; place: string; label?: string }
  | { kind: 'line'; x: number; y: number; slope: number; extent: 'whole' | 'short' }
  | { kind: 'riseOverRun'; x: number; y: number; slope: number; unitLabel: (run: number) => string }
  | { kind: 'chord'; x: number; y: number; toX: number; toY: number; rise: string; run: string }
  | { kind: 'joint'; x: number; y: number; toX: number; toY: number; label: string }
  | { kind: 'level'; y: number; from: number; to: number; label: string }
  | { kind: 'stem'; x: number; y: number; label: string }
  | { kind: 'points'; points: readonly (readonly [x: number, y: number])[] }
  | { kind: 'graph'; f: (x: number) => number; from: number; to: number }
  | {
      kind: 'strips'
      strips: readonly { from: number; to: number; height: number }[]
      /** The top of a strip that is not level, or null. */
      curved: ((strip: number, x: number) => number) | null
      slivers: readonly { strip: number; from: number; to: number; area: number }[]
      f: (x: number) => number
    }
  | {
      kind: 'shade'
      from: number
      to: number
      f: (x: number) => number
      /** The other curve, or the axis. */
      g?: (x: number) => number
    }
)

export interface LineResult {
  readouts: Readout[]
  marks: Mark[]
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
  /** What the longer work was: with it the line is worked out at once, wherever it is wanted. */
  examined?: Examined
  /** Lines that follow from this one in one press. */
  offers?: readonly Follower[]
  /** Remarks that are no fault, such as another way a formula could have been meant. */
  hints: Hint[]
}

/** The examination of a curve over a span; plain data, as a worker sends it. */
export interface Examined {
  curve: string
  order: number
  from: number
  to: number
  found: Examination
}

export const emptyResult: LineResult = { readouts: [], marks: [], problems: [], hints: [] }
export const failed = (...problems: LineProblem[]): LineResult => ({ ...emptyResult, problems })

/** A curve of the study, ready for use. */
export interface CurveResult {
  name: string
  unit: string
  /** As typed. */
  tree: Tree
  f: RealFunction
  from: number
  to: number
  /** Set while the typed formula cannot be read and the last readable one stands in. */
  stale: boolean
  /** What is wrong with the typed formula or its span. */
  problems: LineProblem[]
  hints: Hint[]
  /** Given by a formula; else by an area or by readings, and then it has no derivative formula. */
  formula: boolean
  /** For an accumulated area: what lies under which curve, and from where. */
  accumulates?: { curve: string; order: number; lower: number; f: RealFunction }
  /** Places and readings of a curve that is given by them. */
  readings?: { xs: readonly number[]; ys: readonly number[] }
  /** The derivative of an order as a formula and as a function; order 0 is the curve. */
  derivative(order: number): { tree: Tree; f: RealFunction }
  /** What a lane draws: the derivative of an order, or for -1 the area from the span's beginning. */
  drawn(order: number): DrawnFunction
}

/** A function as a lane draws it. */
export type DrawnFunction = Pick<
  RealFunction,
  'value' | 'values' | 'derivatives' | 'enclose' | 'tree'
>

export type CurveLookup = { ok: true; curve: CurveResult } | { ok: false; problem: LineProblem }
export type NumberLookup =
  /** `exact` is what was typed, where it hangs on no slider. */
  { ok: true; value: number; exact: Tree | null } | { ok: false; problem: LineProblem }

/** What a line may look at while it is evaluated. What it looks at is what it depends on. */
export interface LineContext {
  variable: Variable
  decimals: number
  curve(name: string): CurveLookup
  /** The value of a place or an end of a span, as typed. */
  number(text: string): NumberLookup
  /** Where the slider of a place begins and by what it steps: in a sweep by its equal steps. */
  range(place: string): { from: number; step: number } | null
  /** A typed formula of the variable as a function, with curves and sliders put in. */
  formula(text: string): { ok: true; f: RealFunction } | { ok: false; problem: LineProblem }
  /** Takes work in steps to its end, or null where it takes too long to wait for it. */
  steps<R>(work: Steps<R>): R | null
  /** What the table of a curve has come to, or null where there is none. */
  tableOf(curve: string, order: number): LineResult | null
}

/** What a sentence may look at; sentences read the study, not its values. */
export interface SentenceContext {
  variable: Variable
  notation: 'primes' | 'ratios'
  /** The formula of a typed text, or null where it cannot be read. */
  read(text: string): Tree | null
  /** The derivative formula of a curve, or null where it cannot be read. */
  derivative(curve: string, order: number): Tree | null
  /** Whether a text such as r or r' names a curve of the study. */
  isCurve(text: string): boolean
  /** The value of a typed number, or null where it has none. */
  number(text: string): number | null
  /** Whether a curve is given by readings. */
  isMeasured(name: string): boolean
  /** Whether a curve has a value at the ends of its span. */
  ends(curve: string): { from: boolean; to: boolean }
}

/** What "Say what to add" knows when it looks for sentences. */
export interface Request {
  /** The words typed, trimmed. */
  text: string
  variable: Variable
  curves: { name: string; from: string; to: string }[]
  /** Those of them that are given by readings. */
  measured: string[]
  sliders: string[]
  /** Sliders that are no places. */
  otherSliders: string[]
  /** The place that is selected, as text, or null. */
  place: string | null
  /** The span that is selected, or null. */
  span: SpanText | null
  /** The curve that is selected, or null for any. */
  ref: LaneOf | null
}

/** A slider that a line brings with it. */
export interface NewSlider {
  name: string
  /** Where it stands and what it can be; a place that says nothing goes to the span's middle. */
  value?: number
  from?: number
  to?: number
  step?: number
  place: boolean
  scale?: 'even' | 'growing'
}

/** A line to add, with the sliders that do not exist yet. */
export interface Proposal<L> {
  line: L
  newSliders?: readonly NewSlider[]
}

/** What a slider does in a line, for its track. */
export interface SliderRole {
  /** strips, height at */
  words: string
  /** Values with a name of their own; the pointer is drawn to them. */
  marks: readonly { value: number; text: string }[]
}

/** A kind of line: all that the rest of the project knows about it. */
export interface StatementKind<L extends { kind: string; id: string }> {
  kind: L['kind']
  schema: z.ZodType<L>
  sentence(line: L, context: SentenceContext): Phrase[]
  evaluate(line: L, context: LineContext): LineResult
  /** Lines this kind would offer for what was typed; ids are given later. */
  offers(request: Request): Proposal<L>[]
  /** The members that hold a place as text, so that flags and dragging find them. */
  placeFields: readonly (keyof L & string)[]
  /** Whether the member `span` is a bar on the ruler. */
  hasSpan?: boolean
  /** What the sliders do that stand in this line alone, by their names. */
  sliderRoles?(line: L): Readonly<Record<string, SliderRole>>
  rename(line: L, names: (text: string) => string): L
}

import type { z } from 'zod'
import type { RealFunction } from '../evaluate/compile'
import type { Hint, Problem } from '../language/problems'
import type { Tree } from '../language/tree'
import type { ExactForm } from '../study/exactForms'
import type { Variable } from '../study/parts'

/** A stretch of a sentence: fixed words, or a slot that is edited in place. */
export type Phrase =
  | { text: string }
  | {
      slot: SlotKind
      /** The member of the line that the slot edits. */
      field: string
      /** What the slot holds, in plain characters. */
      text: string
      /** What an editor opens with. */
      source: string
      latex: string
    }

export type SlotKind = 'formula' | 'domain' | 'curve' | 'place'

/** A number or equation under a sentence: exactly what a person would copy. */
export interface Readout {
  label: 'slope' | 'line' | 'value'
  text: string
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
)

export interface LineResult {
  readouts: Readout[]
  marks: Mark[]
  problems: LineProblem[]
  /** What else is to be said about it, a sentence each. */
  notes?: string[]
  /** Remarks that are no fault, such as another way a formula could have been meant. */
  hints: Hint[]
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
  /** The derivative of an order as a formula and as a function; order 0 is the curve. */
  derivative(order: number): { tree: Tree; f: RealFunction }
}

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
}

/** What a sentence may look at; sentences read the study, not its values. */
export interface SentenceContext {
  variable: Variable
  notation: 'primes' | 'ratios'
  /** The formula of a typed text, or null where it cannot be read. */
  read(text: string): Tree | null
  /** The derivative formula of a curve, or null where it cannot be read. */
  derivative(curve: string, order: number): Tree | null
  /** Whether a curve has a value at the ends of its span. */
  ends(curve: string): { from: boolean; to: boolean }
}

/** What "Say what to add" knows when it looks for sentences. */
export interface Request {
  /** The words typed, trimmed. */
  text: string
  variable: Variable
  curves: { name: string; from: string; to: string }[]
  sliders: string[]
  /** The place that is selected, as text, or null. */
  place: string | null
  /** The curve that is selected, or null for any. */
  ref: LaneOf | null
}

/** A line to add. A place that does not exist yet is a slider to make. */
export interface Proposal<L> {
  line: L
  newPlace?: string
}

/** A kind of line: all that the rest of the project knows about it. */
export interface StatementKind<L extends { kind: string; id: string }> {
  kind: L['kind']
  schema: z.ZodType<L>
  sentence(line: L, context: SentenceContext): Phrase[]
  evaluate(line: L, context: LineContext): LineResult
  /** Lines this kind would offer for what was typed; ids are given later. */
  offers(request: Request): Proposal<L>[]
  /** The curves and places a line names, so that renaming and dragging find them. */
  places(line: L): string[]
  rename(line: L, names: (text: string) => string): L
}

import type { RealFunction } from '../../evaluate/compile'
import type { Hint } from '../../language/problems'
import type { Tree } from '../../formula/tree'
import type { LineProblem } from './results'

/** A curve of the study, ready for use. */
export interface CurveResult {
  name: string
  /** The letter it runs along, where that is not the variable of the study: of a section of a surface. */
  along?: string
  unit: string
  /** As typed. */
  tree: Tree
  f: RealFunction
  /** The span: that which was asked for, else the window within the domain. */
  from: number
  to: number
  /** Where the curve is drawn and may be asked about: its span, or everywhere where none was asked for. */
  reach: { from: number; to: number }
  /** What the frame opens on, where no span was asked for. */
  window: readonly [number, number] | null
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
> &
  /** Those of a formula, so that it can be worked out with more digits. */
  Partial<Pick<RealFunction, 'variable' | 'parameters'>>

export type CurveLookup = { ok: true; curve: CurveResult } | { ok: false; problem: LineProblem }
export type NumberLookup =
  /**
   * `exact` is what was typed, where it hangs on no slider; `tree` the number as a formula without
   * names, with every slider as the decimal that it shows; `rough` that one of these has the rounding of
   * doubles in it, as after a drag, so that what follows from it has no exact digits.
   */
  | { ok: true; value: number; exact: Tree | null; tree: Tree; rough: boolean }
  | { ok: false; problem: LineProblem }

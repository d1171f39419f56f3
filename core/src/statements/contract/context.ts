import type { RealFunction } from '../../evaluate/compile'
import type { Steps } from '../../features/budget'
import type { Hint } from '../../language/problems'
import type { Tree } from '../../formula/tree'
import type { Variable } from '../../vocabulary/members'
import type { CurveLookup, NumberLookup } from './curves'
import type { SurfaceLookup } from './surfaces'
import type { LineProblem, LineResult } from './results'

/** What a line may look at while it is evaluated. What it looks at is what it depends on. */
export interface LineContext {
  variable: Variable
  decimals: number
  curve(name: string): CurveLookup
  surface(name: string): SurfaceLookup
  /** Whether a text such as r or r' names a curve of the study. */
  isCurve(text: string): boolean
  /** The name of a curve that is known by this graph as its derivative of an order, or null. */
  curveGivenBy(graph: string, order: number): string | null
  /** The value of a place or an end of a span, as typed. */
  number(text: string): NumberLookup
  /** Where the slider of a place begins and by what it steps: in a sweep by its equal steps. */
  range(place: string): { from: number; step: number } | null
  /** A typed formula of the variable as a function, with curves and sliders put in. */
  formula(text: string): { ok: true; f: RealFunction } | { ok: false; problem: LineProblem }
  /** Takes work in steps to its end, or null where it takes too long to wait for it. */
  steps<R>(work: Steps<R>): R | null
  /** What was made once for an owner, such as a curve, under this key; a few are kept for each. */
  memo<T>(owner: object, key: string, make: () => T): T
  /** What the table of a curve has come to: a certain one, or the first; null where there is none. */
  tableOf(curve: string, order: number, id?: string): LineResult | null
}

/** What else a line may look at while its curve is made. */
export interface CurveContext extends LineContext {
  /** A typed formula as it is read in this study. */
  read(
    text: string,
  ): { ok: true; tree: Tree; hints: Hint[] } | { ok: false; problems: LineProblem[] }
  /** A readable formula of a curve, with the curves it uses and the present slider values put in. */
  bind(
    tree: Tree,
    own: string,
  ): { ok: true; derivative(order: number): RealFunction } | { ok: false; problem: LineProblem }
  /** The derivative of a formula as it was typed. */
  derivativeOf(tree: Tree, order: number): Tree
  /** Why a curve stands on itself, or null where it does not. */
  circle(name: string): LineProblem | null
}

/** What else a line may look at while its surface is made. */
export interface SurfaceContext extends LineContext {
  /** A typed formula of these two letters, with the curves it uses put in. */
  readOver(
    text: string,
    letters: readonly [string, string],
  ): { ok: true; tree: Tree; hints: Hint[] } | { ok: false; problems: LineProblem[] }
  /** The present values of the sliders that a formula uses. */
  valuesIn(tree: Tree): Record<string, number>
}

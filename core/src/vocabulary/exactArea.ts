import { antiderivative } from '../algebra/antiderivative'
import { substitute } from '../algebra/curves'
import type { Integral } from '../calculus/integrate'
import { compileTree, type RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { rationalFromNumber } from '../arithmetic/rational'
import { entryOf, type FunctionName, unaryNames } from '../functions'
import { exactly, negate, sum, type Tree } from '../formula/tree'
import { closedForm, closedQuotient, type ExactForm } from './exactForms'

/** An end of a span: its value, and what was typed where that hangs on no slider. */
export interface End {
  value: number
  exact: Tree | null
}

/** Functions of numbers that count as an exact form of an area. */
const functions: readonly FunctionName[] = unaryNames.filter((n) => entryOf(n).readable)

/** Room for the roundings of both sides in the check below. */
const slack = 1e-11

/**
 * The area under a curve from end to end as a number in exact form, such as 20/3, ln 3 or e − 1: an
 * antiderivative taken at both ends. Its proof is the rule it was found by, that it is bounded on the
 * whole span, as its enclosure shows (so that no pole lies between the ends), and that it agrees with
 * the area by quadrature; null where one of these is missing, where no rule fits, or where the form is
 * too long to read or says no more than the decimals.
 */
export function exactArea(
  f: RealFunction,
  from: End,
  to: End,
  area: Integral,
  decimals: number,
): ExactForm | null {
  const tree = areaTree(f, from, to, area)
  return tree && closedForm(tree, decimals, functions)
}

/** The average over the span in exact form: the same area over the distance of the ends. */
export function exactAverage(
  f: RealFunction,
  from: End,
  to: End,
  area: Integral,
  decimals: number,
): ExactForm | null {
  const tree = areaTree(f, from, to, area)
  const width = sum(treeOf(to), negate(treeOf(from)))
  return tree && closedQuotient(tree, width, decimals, functions)
}

const treeOf = (end: End): Tree => end.exact ?? exactly(rationalFromNumber(end.value))

const known = new WeakMap<RealFunction, Tree | null>()
/** While an end of a span is dragged the curve is the same. */
function antiderivativeOf(f: RealFunction): Tree | null {
  const kept = known.get(f)
  if (kept !== undefined) return kept
  const found = antiderivative(withValues(f.tree, f.parameters), f.variable)
  known.set(f, found)
  return found
}

/** The difference of an antiderivative at both ends, where it is proven to be the area. */
function areaTree(f: RealFunction, from: End, to: End, area: Integral): Tree | null {
  if (!Number.isFinite(area.value)) return null
  const found = antiderivativeOf(f)
  if (!found) return null
  const [lo, hi] = compileTree(found, { variable: f.variable }).enclose(from.value, to.value)
  if (!Number.isFinite(lo) || !Number.isFinite(hi)) return null
  const at = (end: End) => substitute(found, f.variable, treeOf(end))
  const whole = sum(at(to), negate(at(from)))
  const value = compileTree(whole).value(0)
  const near = area.errorBound + slack * Math.max(1, Math.abs(lo), Math.abs(hi))
  return Math.abs(value - area.value) <= near ? whole : null
}

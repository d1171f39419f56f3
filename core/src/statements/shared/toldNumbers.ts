import { substitute } from '../../algebra/curves'
import { simplify } from '../../algebra/simplify'
import { decimalOfNumber } from '../../arithmetic/rational'
import type { RealFunction } from '../../evaluate/compile'
import { withValues } from '../../evaluate/withValues'
import { exactly, name, negate, product, sum, type Tree, whole } from '../../formula/tree'
import { toPlain } from '../../language/print'
import { lineEquation, type LineTexts } from '../../vocabulary/equation'
import {
  exactNumber,
  likelyForm,
  plainFunctions,
  readableFunctions,
} from '../../vocabulary/exactForms'
import { formatCertain, formatNumber, formatTiny } from '../../vocabulary/numbers'
import { tellNumber, type Told } from '../../vocabulary/told'
import { withUnit } from '../../vocabulary/units'
import type { CurveResult, LineContext, Readout } from '../contract'

/** A place, and the number that it is: as it was typed, with every slider as the decimal it shows. */
export interface Place {
  x: number
  tree: Tree
  /** It has the rounding of doubles in it, and what follows from it no exact digits. */
  rough: boolean
}

/** The place that a double is written as. */
export const placeOf = (x: number): Place => ({
  x,
  tree: exactly(decimalOfNumber(x)),
  rough: false,
})

/** An end of a span, where it is the one that was typed; a span that is cut to the curve's own has others. */
export function endOf(
  text: string,
  x: number,
  context: LineContext,
): Place & { exact: Tree | null } {
  const typed = context.number(text)
  return typed.ok && typed.value === x
    ? { x, exact: typed.exact, tree: typed.tree, rough: typed.rough }
    : { ...placeOf(x), exact: null }
}

/** The value of a function at a place as a formula without names. */
export const valueTree = (f: RealFunction, place: Tree): Tree =>
  substitute(withValues(f.tree, f.parameters), f.variable, place)

/**
 * A number by its formula, where that has one and its digits can be made certain; else as the double
 * that is known of it. Exact forms are told of what was typed, and not of what slides.
 */
export function tellTree(
  tree: Tree | null,
  known: number,
  { decimals }: Pick<LineContext, 'decimals'>,
  isTyped: boolean,
): Told {
  const told = tree && tellNumber(tree, decimals, isTyped ? plainFunctions : null)
  if (told && told.certain && Number.isFinite(told.value)) {
    if (told.exact || told.fraction || !isTyped) return told
    const likely = likelyForm(told.value, decimals)
    return likely ? { ...told, exact: likely } : told
  }
  return { value: known, text: formatNumber(known, decimals), certain: false }
}

/**
 * A number that is known to lie within a bound, such as an area by quadrature: by its exact form, where
 * there is one, else with the digits that the bound leaves, and ≈ where these are fewer.
 */
export function tellWithin(
  tree: Tree | null,
  { value, errorBound }: { value: number; errorBound: number },
  { decimals }: Pick<LineContext, 'decimals'>,
  isTyped: boolean,
): Told {
  const told = tree && tellNumber(tree, decimals, isTyped ? readableFunctions : null)
  if (told?.certain && Number.isFinite(told.value)) return told
  const isZero = Math.abs(value) <= errorBound
  const shown = formatCertain([value - errorBound, value + errorBound], decimals)
  const reads = /[1-9]/.test(shown.text) || isZero ? shown.text : formatTiny(value, decimals)
  return { value, text: shown.certain ? reads : `≈ ${reads}`, certain: shown.certain }
}

/**
 * The formula of a derivative of a curve at a place, where `known` is its value; null for a curve
 * without a formula.
 */
export function derivativeTree(
  curve: CurveResult,
  order: number,
  place: Place,
  known: number,
): Tree | null {
  if (!curve.formula || place.rough) return null
  const { f } = order === 0 ? curve : curve.derivative(order)
  // The slope of an area is what its integrand tends to, whatever value that has at a single place.
  const differs = !(Math.abs(f.value(place.x) - known) <= 1e-9 * Math.max(1, Math.abs(known)))
  return curve.accumulates && order > 0 && differs ? null : valueTree(f, place.tree)
}

export const toldReadout = (id: string, { text, value, exact }: Told, unit: string): Readout => ({
  id,
  label: id,
  text: withUnit(text, unit),
  value,
  ...(exact ? { exact } : {}),
})

/** A line through a point: what its readout needs, with the exact equation where there is one. */
export function toldLine(
  { place, value, slope }: { place: Place; value: Tree | null; slope: Tree | null },
  known: { value: number; slope: number },
  context: LineContext,
  isTyped: boolean,
): Readout {
  const { letter } = context.variable
  const at = place.tree
  const intercept = value && slope && sum(value, negate(product(slope, at)))
  const tell = (tree: Tree | null, number: number) => tellTree(tree, number, context, isTyped)
  const height = tell(value, known.value)
  const steep = tell(slope, known.slope)
  const texts: LineTexts = {
    at: tellTree(at, place.x, { decimals: Math.max(3, context.decimals) }, false).text,
    value: height.text,
    slope: steep.text,
    intercept: tell(intercept, known.value - known.slope * place.x).text,
  }
  const text = lineEquation(texts, letter)
  const exact = isTyped && slope && intercept ? exactLine(slope, intercept, letter) : null
  return {
    id: 'line',
    label: 'line',
    text,
    straight: texts,
    ...(exact && exact !== text ? { exact: { text: exact, proven: true } } : {}),
  }
}

/** Longer equations nobody reads. */
const longestEquation = 40

/** y = √3 x/2 + 1/2, where slope and height have exact forms and one of them is no short decimal. */
function exactLine(slope: Tree, intercept: Tree, letter: string): string | null {
  const [m, b] = [slope, intercept].map((tree) => exactNumber(tree, readableFunctions))
  if (!m || !b) return null
  const terms = [m, b].flatMap((tree) => (tree.kind === 'sum' ? tree.terms : [tree]))
  if (terms.every((t) => t.kind === 'number' && /^-?\d+(\.\d{1,3})?$/.test(decimalText(t))))
    return null
  const text = `y = ${toPlain(simplify(sum(whole(0), product(m, name(letter)), b)))}`
  return text.length <= longestEquation ? text : null
}

const decimalText = (tree: Tree & { kind: 'number' }) =>
  tree.exact.d === 1n ? String(tree.exact.n) : String(Number(tree.exact.n) / Number(tree.exact.d))

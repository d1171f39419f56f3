import { simplify } from '../../algebra/simplify'
import {
  countParts,
  exactly,
  isNumber,
  name,
  negate,
  power,
  product,
  quotient,
  sum,
  type Tree,
  whole,
} from '../../formula/tree'
import { type Rational, rationalFromNumber } from '../../arithmetic/rational'
import { substitute } from '../../algebra/curves'
import { closedForm } from '../../vocabulary/exactForms'
import { formatPower, formatShort, formatTiny, showNumber } from '../../vocabulary/numbers'
import type { CurveResult, LineContext, LineProblem } from '../contract'

/** The highest order that is worked out: beyond it k! swallows all digits a picture could show. */
export const highestOrder = 40

/** An order as it was typed, or why it is none. */
export function degreeIn(
  text: string,
  usual: number,
  context: LineContext,
): { ok: true; degree: number } | { ok: false; problem: LineProblem } {
  const read = context.number(text)
  if (!read.ok) return read
  const degree = read.value
  if (Number.isInteger(degree) && degree >= 0 && degree <= highestOrder) return { ok: true, degree }
  return {
    ok: false,
    problem: {
      message: `an order is a whole number from 0 to ${highestOrder}, and not ${formatShort(degree, 6)}`,
      fix: `give ${degree > highestOrder ? highestOrder : usual}`,
    },
  }
}

/** A term of a Taylor polynomial: its coefficient, and how that is written. */
export interface Term {
  k: number
  /** f⁽ᵏ⁾(a) */
  derivative: number
  coefficient: number
  /** With fractions, roots and e where that is worked out; else rounded, and then `exact` is false. */
  text: string
  exact: boolean
}

/** Formulas of derivatives grow quickly: longer ones, or of a higher order, are left to numbers. */
const [longestTree, highestExact] = [250, 10]

/**
 * The terms of the Taylor polynomial of a derivative of a curve at x, by Taylor arithmetic; up to the first
 * that has no derivative. `at` is the place as it was typed, where it hangs on no slider.
 */
export function termsOf(
  curve: CurveResult,
  order: number,
  {
    x,
    at,
    letter,
    degree,
    decimals,
  }: { x: number; at: Tree | null; letter: string; degree: number; decimals: number },
): Term[] {
  const derivatives = curve.f.derivatives(x, order + degree).slice(order)
  const terms: Term[] = []
  let factorial = 1
  // Each derivative is made of the one before: the first that is long ends the exact ones.
  let isShort = curve.formula && at !== null
  for (const [k, derivative] of derivatives.entries()) {
    isShort &&= k <= highestExact && countParts(curve.derivative(order + k).tree) <= longestTree
    if (!Number.isFinite(derivative)) break
    if (k > 1) factorial *= k
    const coefficient = derivative / factorial
    terms.push({
      k,
      derivative,
      coefficient,
      ...written(coefficient, factorial, k, curve, order, at, letter, decimals, isShort),
    })
  }
  return terms
}

function written(
  value: number,
  factorial: number,
  k: number,
  curve: CurveResult,
  order: number,
  at: Tree | null,
  letter: string,
  decimals: number,
  isShort: boolean,
): { text: string; exact: boolean } {
  const digits = Math.max(3, decimals)
  const plain = showNumber(value, digits)
  if (at && isShort) {
    const { tree: whose } = curve.derivative(order + k)
    // Where it has a value, the one piece that a domain leaves is the formula.
    const tree =
      whose.kind === 'pieces' && whose.pieces.length === 1 ? whose.pieces[0]!.body : whose
    const own = simplify(quotient(substitute(tree, letter, at), whole(factorial)))
    if (isNumber(own)) return { text: fractionText(own.exact), exact: true }
    const form = closedForm(own, digits, ['sqrt', 'ln'])
    if (form?.proven) return { text: form.text.replace('-', '−'), exact: true }
  }
  if (Number(plain.replace('−', '-')) === value) return { text: plain, exact: true }
  return { text: formatTiny(value, digits), exact: false }
}

function isTerminating(d: bigint): boolean {
  let rest = d
  for (const p of [2n, 5n]) while (rest % p === 0n) rest /= p
  return rest === 1n
}

/** A fraction as it is written among terms: 3, −1/2; a long one as a decimal. */
function fractionText({ n, d }: Rational): string {
  if (d === 1n) return String(n).replace('-', '−')
  // What was typed in decimals stays in them.
  if (d % 5n === 0n && isTerminating(d)) return formatTiny(Number(n) / Number(d), 9)
  const fraction = `${n}/${d}`.replace('-', '−')
  return fraction.length <= 9 ? fraction : formatTiny(Number(n) / Number(d), 6)
}

const raised = '⁰¹²³⁴⁵⁶⁷⁸⁹'
const superscript = (k: number) => [...String(k)].map((c) => raised[Number(c)]).join('')

/** "1 − (t − 2)²/2 + …": the terms that are not 0, as they are written by hand. */
export function formulaText(
  terms: readonly Term[],
  letter: string,
  place: string,
  x: number,
): string {
  const run =
    x === 0
      ? letter
      : place.startsWith('−') || /^-/.test(place)
        ? `(${letter} + ${place.slice(1)})`
        : `(${letter} − ${/[+−-]/.test(place) ? `(${place})` : place})`
  const parts = terms.flatMap(({ k, coefficient, text }) => {
    if (coefficient === 0) return []
    const isNegative = text.startsWith('−')
    const size = isNegative ? text.slice(1) : text
    const base = k === 0 ? '' : k === 1 ? run : `${run}${superscript(k)}`
    const fraction = /^(\d+)\/(\d+)$/.exec(size)
    const isOne = base !== '' && size === '1'
    const front = isOne ? '' : base !== '' && /[+−/(]/.test(size) ? `(${size})` : size
    const term =
      base !== '' && fraction
        ? `${fraction[1] === '1' ? '' : fraction[1]!}${base}/${fraction[2]!}`
        : `${front}${front.includes('·') ? '·' : ''}${base}`
    return [{ isNegative, term }]
  })
  if (parts.length === 0) return '0'
  return parts
    .map(({ isNegative, term }, i) =>
      i === 0 ? (isNegative ? `−${term}` : term) : ` ${isNegative ? '−' : '+'} ${term}`,
    )
    .join('')
}

/** The polynomial as a formula, for drawing. */
export function polynomialTree(terms: readonly Term[], letter: string, x: number): Tree {
  const number = (v: number) => exactly(rationalFromNumber(v), true)
  const run = x === 0 ? name(letter) : sum(name(letter), negate(number(x)))
  const all = terms.map(({ k, coefficient }) =>
    k === 0
      ? number(coefficient)
      : product(number(coefficient), k === 1 ? run : power(run, whole(k))),
  )
  return simplify(all.length === 1 ? all[0]! : sum(...all))
}

/** The value of the polynomial, the smallest powers last so that little is lost. */
export const polynomialAt = (terms: readonly Pick<Term, 'coefficient'>[], run: number): number =>
  terms.reduceRight((total, { coefficient }) => total * run + coefficient, 0)

/** A bound as it is shown: rounded up, so that what is said stays true. */
export function boundText(bound: number): string {
  if (bound === 0) return '0'
  if (!Number.isFinite(bound)) return 'none'
  const power = Math.floor(Math.log10(bound)) - 1
  let steps = Math.ceil(bound / 10 ** power)
  if (steps * 10 ** power < bound) steps += 1
  const value = Number(`${steps}e${power}`)
  return value >= 1e-3 && value < 1e4 ? formatShort(value, Math.max(0, -power)) : formatPower(value)
}

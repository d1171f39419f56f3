import { entryOf, type FunctionName, unaryNames } from '../functions'
import { substitute } from '../algebra/curves'
import { withKnownValues } from '../algebra/knownValues'
import { compileTree } from '../evaluate/compile'
import { toPlain } from '../language/print'
import { rational, toDecimalText, toNumber } from '../arithmetic/rational'
import {
  call,
  childrenOf,
  constant,
  exactly,
  literalFraction,
  mapChildren,
  power,
  product,
  quotient,
  type Tree,
  whole,
} from '../formula/tree'

/** A number written with fractions, roots and π. */
export interface ExactForm {
  text: string
  /** Worked out with exact arithmetic; otherwise it is only a likely match of the digits. */
  proven: boolean
}

const largestDenominator = 10_000
const longestForm = 40

/** What the value of a function at a place may have: sin(0.7) says no more than the question. */
export const plainFunctions: readonly FunctionName[] = ['sqrt', 'cbrt', 'ln']

/** Functions of numbers that count as an exact form people read. */
export const readableFunctions: readonly FunctionName[] = unaryNames.filter(
  (n) => entryOf(n).readable,
)

/**
 * The number that a formula without names is, as far as exact arithmetic leads: a fraction, or fractions
 * with roots, e, π and the given functions of numbers. Null where something else is left in it.
 */
export function exactNumber(tree: Tree, functions: readonly FunctionName[]): Tree | null {
  const result = withKnownValues(asFractions(tree))
  return isClosed(result, functions) ? result : null
}

/**
 * The exact form of a formula's value at a place given as a formula without names, or null where
 * exact arithmetic does not come to a short form of fractions, roots, e and π, or where the decimal
 * itself is exact within the given decimals. Proven: the simplifier works on BigInt rationals.
 */
export const provenForm = (
  tree: Tree,
  variable: string,
  at: Tree,
  decimals: number,
): ExactForm | null => closedForm(substitute(tree, variable, at), decimals, ['sqrt'])

/** The same for a formula without names, in which these functions of numbers may stand. */
export const closedForm = (
  tree: Tree,
  decimals: number,
  functions: readonly FunctionName[],
): ExactForm | null => shownForm(withKnownValues(asFractions(tree)), decimals, functions)

function shownForm(
  result: Tree,
  decimals: number,
  functions: readonly FunctionName[],
): ExactForm | null {
  if (result.kind === 'number') {
    const { n, d } = result.exact
    const ends = toDecimalText(result.exact)
    const shown = ends !== null && (ends.split('.')[1] ?? '').length <= decimals
    if (d > largestDenominator || shown) return null
    return { text: `${n < 0n ? '−' : ''}${n < 0n ? -n : n}/${d}`, proven: true }
  }
  if (!isClosed(result, functions)) return null
  const text = toPlain(result)
  return text.length <= longestForm && Number.isFinite(compileTree(result).value(0))
    ? { text, proven: true }
    : null
}

/** Decimals as the fractions they are, and powers of fractions taken apart: (π/4)² is π²/16. */
function asFractions(tree: Tree): Tree {
  if (tree.kind === 'number') return exactly(tree.exact)
  const done = mapChildren(tree, asFractions)
  const { base, exponent } = done.kind === 'power' ? done : { base: null, exponent: null }
  const natural = exponent?.kind === 'number' && exponent.exact.d === 1n && exponent.exact.n > 0n
  return base?.kind === 'quotient' && natural
    ? quotient(power(base.above, exponent), power(base.below, exponent))
    : done
}

/** Only numbers, π, e and these functions of them. */
function isClosed(tree: Tree, functions: readonly FunctionName[]): boolean {
  if (tree.kind === 'name' || tree.kind === 'curve' || tree.kind === 'pieces') return false
  if (tree.kind === 'call' && !functions.includes(tree.name)) return false
  if (tree.kind === 'power' && tree.exponent.kind !== 'number') {
    const isE = tree.base.kind === 'constant' && tree.base.name === 'e'
    if (!isE && !literalFraction(tree.exponent)) return false
  }
  return childrenOf(tree).every((part) => isClosed(part, functions))
}

/**
 * A fraction, a square root of a fraction or a fraction of π that agrees with a value to all its
 * digits, or null. Such agreement is no proof, and the form says so.
 */
export function likelyForm(value: number, decimals: number): ExactForm | null {
  if (!Number.isFinite(value) || value === 0) return null
  const plain = fractionOf(value, 400)
  if (plain) {
    const ends = toDecimalText(plain)
    if (ends !== null && (ends.split('.')[1] ?? '').length <= decimals) return null
    return { text: toPlain(exactly(plain)), proven: false }
  }
  const ofPi = fractionOf(value / Math.PI, 60)
  if (ofPi) return { text: formOf(ofPi, constant('pi')), proven: false }
  const squared = fractionOf(value * value, 200)
  if (squared) {
    // √(n/d) = √(nd)/d, with the largest square taken out of nd.
    const { n, d } = squared
    let inside = n * d
    let outside = 1n
    for (let k = 2n; k * k <= inside && k < 2000n; k++) {
      while (inside % (k * k) === 0n) {
        inside /= k * k
        outside *= k
      }
    }
    const sign = value < 0 ? -1n : 1n
    return {
      text: formOf(rational(sign * outside, d), call('sqrt', whole(inside))),
      proven: false,
    }
  }
  return null
}

function formOf(factor: { n: bigint; d: bigint }, part: Tree): string {
  const size = factor.n < 0n ? -factor.n : factor.n
  const above = size === 1n ? part : product(whole(size), part)
  const text = toPlain(factor.d === 1n ? above : quotient(above, whole(factor.d)))
  return factor.n < 0n ? `−${text}` : text
}

/** Agreement to within a few roundings of a double. */
const agreement = 2e-15

/** The fraction with the smallest denominator that agrees with a value, by continued fractions. */
function fractionOf(value: number, most: number) {
  let [p0, q0, p1, q1] = [0, 1, 1, 0]
  let rest = value
  for (let i = 0; i < 20; i++) {
    const part = Math.floor(rest)
    ;[p0, q0, p1, q1] = [p1, q1, part * p1 + p0, part * q1 + q0]
    if (Math.abs(q1) > most || Math.abs(p1) > 1e6) return null
    const found = rational(BigInt(p1), BigInt(q1))
    if (p1 !== 0 && Math.abs(toNumber(found) - value) <= agreement * Math.abs(value)) return found
    if (rest === part) return null
    rest = 1 / (rest - part)
  }
  return null
}

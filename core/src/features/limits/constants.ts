import { maybeEntry } from '../../functions'
import { withKnownValues } from '../../algebra/knownValues'
import * as I from '../../arithmetic/intervals'
import type { Interval } from '../../arithmetic/intervals'
import {
  addRational,
  divideRational,
  multiplyRational,
  type Rational,
  rational,
} from '../../arithmetic/rational'
import { binaryRational, compileBoxes, numberInterval } from '../../evaluate/enclosures'
import {
  constant,
  exactly,
  isNumber,
  mapChildren,
  power,
  product,
  quotient,
  sum,
  type Tree,
  whole,
} from '../../formula/tree'
import { pinned } from '../pinned'

/** A number as a formula without the variable, and enclosed. */
export interface Const {
  tree: Tree
  range: Interval
}

/** Whether two things are equal, or what sign one has, cannot be told. */
export class Unsure extends Error {}
/** A formula has no values there. */
export class NoValues extends Error {}

/**
 * The place at which a limit is looked for. Where it is known exactly constants hold no variable;
 * else the variable stands for the place, which is enclosed, and some parts are known to be 0 there.
 */
export interface Place {
  variable: string
  enclosure: Interval
  zeros: ReadonlySet<string>
}

/**
 * √2² is 2, and 4/√2 is 2√2: roots of numbers from 0 on, raised to what undoes them, are gone, and
 * none stands below.
 */
function withoutRoots(tree: Tree): Tree {
  let changed = false
  const visit = (part: Tree): Tree => {
    const done = mapChildren(part, visit)
    if (done.kind === 'quotient' && done.below.kind === 'call' && done.below.name === 'sqrt') {
      const [n] = done.below.args
      if (n && isNumber(n) && n.exact.n > 0n) {
        changed = true
        return quotient(product(done.above, done.below), n)
      }
    }
    if (done.kind !== 'power' || done.base.kind !== 'call' || !isNumber(done.exponent)) return done
    const [inside] = done.base.args
    const root = maybeEntry(done.base.name)?.root
    const { n, d } = done.exponent.exact
    if (
      !root ||
      !inside ||
      !isNumber(inside) ||
      inside.exact.n < 0n ||
      d !== 1n ||
      n % root !== 0n
    ) {
      return done
    }
    changed = true
    return power(inside, whole(n / root))
  }
  const visited = visit(tree)
  return changed ? withKnownValues(visited) : tree
}

/** Constants larger than this are not simplified any more: what they are worth is enclosed. */
const mostParts = 400

/** Arithmetic on constants at a place. */
export class Constants {
  constructor(private readonly place: Place) {}

  readonly of = (tree: Tree): Const => {
    if (isNumber(tree)) return { tree, range: numberInterval(tree.exact) }
    const exact = withoutRoots(withKnownValues(pinned(tree, this.place.zeros)))
    if (isNumber(exact)) return { tree: exact, range: numberInterval(exact.exact) }
    const notes = I.noNotes()
    const { variable, enclosure } = this.place
    const [range] = compileBoxes(exact, variable)(enclosure, 1, notes)
    if (notes.empty) throw new NoValues()
    // An enclosure of one double is that double.
    if (range!.lo === range!.hi && Number.isFinite(range!.lo) && !notes.partial) {
      return { tree: exactly(binaryRational(range!.lo)), range: range! }
    }
    if (notes.partial || JSON.stringify(exact, big).length > mostParts * 40) throw new Unsure()
    return { tree: exact, range: range! }
  }

  readonly rational = (n: number | bigint, d: number | bigint = 1): Const => {
    const exact = rational(BigInt(n), BigInt(d))
    return { tree: exactly(exact), range: numberInterval(exact) }
  }

  readonly add = (a: Const, b: Const): Const => this.combine(a, b, addRational, (p, q) => sum(p, q))
  readonly multiply = (a: Const, b: Const): Const =>
    this.combine(a, b, multiplyRational, (p, q) => product(p, q))
  readonly negate = (a: Const): Const => this.multiply(this.rational(-1), a)
  readonly divide = (a: Const, b: Const): Const => {
    if (signOf(b) === 0) throw new NoValues()
    return this.combine(a, b, divideRational, (p, q) => quotient(p, q))
  }
  readonly power = (a: Const, p: Const): Const => {
    const [base, exponent] = [rationalOf(a), rationalOf(p)]
    const exact = base && exponent && fractionToPower(base, exponent)
    return exact ? this.rational(exact.n, exact.d) : this.of(power(a.tree, p.tree))
  }
  /** e to a constant. */
  readonly exp = (a: Const): Const =>
    a.tree.kind === 'call' && a.tree.name === 'ln'
      ? this.of(a.tree.args[0]!)
      : this.of(power(constant('e'), a.tree))

  private combine(
    a: Const,
    b: Const,
    exact: (p: Rational, q: Rational) => Rational,
    general: (p: Tree, q: Tree) => Tree,
  ): Const {
    if (isNumber(a.tree) && isNumber(b.tree)) {
      const tree = exactly(exact(a.tree.exact, b.tree.exact))
      return { tree, range: numberInterval(tree.exact) }
    }
    return this.of(general(a.tree, b.tree))
  }
}

const big = (_: string, value: unknown) => (typeof value === 'bigint' ? String(value) : value)

/** The whole n-th root of a whole number, or null. */
function wholeRoot(a: bigint, n: bigint): bigint | null {
  if (a < 2n) return a < 0n ? null : a
  let low = 1n
  let high = 1n << (BigInt(a.toString(2).length) / n + 1n)
  while (low < high) {
    const middle = (low + high) / 2n
    if (middle ** n < a) low = middle + 1n
    else high = middle
  }
  return low ** n === a ? low : null
}

/** A fraction to a fractional power where that is a fraction again, such as 4^(1/2). */
function fractionToPower(a: Rational, p: Rational): Rational | null {
  const size = p.n < 0n ? -p.n : p.n
  if (a.n < 0n || a.n === 0n || size > 40n || p.d > 40n) return null
  const [n, d] = [wholeRoot(a.n, p.d), wholeRoot(a.d, p.d)]
  if (n === null || d === null) return null
  return p.n < 0n ? rational(d ** size, n ** size) : rational(n ** size, d ** size)
}

/** Whether a constant is known to be 0. */
export const isExactZero = ({ tree, range }: Const) =>
  (isNumber(tree) && tree.exact.n === 0n) || (range.lo === 0 && range.hi === 0)

/** The sign of a constant; Unsure where neither its form nor its enclosure tells. */
export function signOf(a: Const): -1 | 0 | 1 {
  if (isExactZero(a)) return 0
  const sign = I.signOf(a.range)
  if (sign === 0) throw new Unsure()
  return sign
}

/** The number itself where it is a fraction. */
export const rationalOf = ({ tree }: Const): Rational | null => (isNumber(tree) ? tree.exact : null)

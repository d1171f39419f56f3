import { isNumber, keyOf, type Tree } from '../../formula/tree'
import { maybeEntry } from '../../functions'
import {
  addFractions,
  fractionOfPolynomials,
  multiplyFractions,
  type Polynomial,
  type RationalFunction,
} from '../polynomials'

/** p + q·√r with fractions of polynomials p and q. */
interface Pair {
  p: RationalFunction
  q: RationalFunction
}

const none: RationalFunction = { above: [], below: [1n] }
const oneOverOne: RationalFunction = { above: [1n], below: [1n] }

/**
 * A polynomial among whose zeros are all those of a formula in the variable and the square root of one
 * polynomial: p + q√r is 0 only where p² − q²r is. Null for another formula.
 */
export function withoutRoot(tree: Tree, variable: string): Polynomial | null {
  const root = soleRoot(tree)
  const r = root && fractionOfPolynomials(root, variable)
  if (!root || !r) return null
  const read = readPair(tree, variable, keyOf(root), r)
  if (!read) return null
  const minus = negated(multiplyFractions(multiplyFractions(read.q, read.q), r))
  return addFractions(multiplyFractions(read.p, read.p), minus).above
}

const negated = ({ above, below }: RationalFunction): RationalFunction => ({
  above: above.map((c) => -c),
  below,
})

/** What stands under the square roots of a formula, where that is one formula. */
function soleRoot(tree: Tree): Tree | null {
  const found = new Map<string, Tree>()
  const visit = (part: Tree): void => {
    const root = rootOf(part)
    if (root) found.set(keyOf(root.of), root.of)
    else if (part.kind === 'sum') part.terms.forEach(visit)
    else if (part.kind === 'product') part.factors.forEach(visit)
    else if (part.kind === 'quotient') [part.above, part.below].forEach(visit)
    else if (part.kind === 'power') visit(part.base)
  }
  visit(tree)
  return found.size === 1 ? [...found.values()][0]! : null
}

/** √u is u to 1/2, and u^(3/2) to 3/2. */
function rootOf(part: Tree): { of: Tree; times: bigint } | null {
  if (part.kind === 'call' && maybeEntry(part.name)?.root === 2n) {
    return { of: part.args[0]!, times: 1n }
  }
  if (part.kind !== 'power') return null
  const { exponent } = part
  const half = isNumber(exponent) && exponent.exact.d === 2n ? exponent.exact.n : null
  const typed =
    exponent.kind === 'quotient' &&
    isNumber(exponent.above) &&
    isNumber(exponent.below) &&
    exponent.below.exact.n === 2n &&
    exponent.above.exact.d === 1n
      ? exponent.above.exact.n
      : null
  const times = half ?? typed
  return times === null ? null : { of: part.base, times }
}

function readPair(tree: Tree, variable: string, root: string, r: RationalFunction): Pair | null {
  const plain = fractionOfPolynomials(tree, variable)
  if (plain) return { p: plain, q: none }
  const read = (part: Tree) => readPair(part, variable, root, r)
  const own = rootOf(tree)
  if (own) {
    if (keyOf(own.of) !== root) return null
    return raised({ p: none, q: oneOverOne }, Number(own.times), r)
  }
  switch (tree.kind) {
    case 'sum':
      return joined(tree.terms.map(read), (a, b) => ({
        p: addFractions(a.p, b.p),
        q: addFractions(a.q, b.q),
      }))
    case 'product':
      return joined(tree.factors.map(read), (a, b) => times(a, b, r))
    case 'quotient': {
      const [above, below] = [read(tree.above), read(tree.below)]
      const turned = below && reciprocal(below, r)
      return above && turned && times(above, turned, r)
    }
    case 'power': {
      const { exponent } = tree
      const base = isNumber(exponent) && exponent.exact.d === 1n ? read(tree.base) : null
      return base && isNumber(exponent) ? raised(base, Number(exponent.exact.n), r) : null
    }
    default:
      return null
  }
}

const joined = (parts: readonly (Pair | null)[], join: (a: Pair, b: Pair) => Pair): Pair | null =>
  parts.every((part) => part !== null) ? parts.reduce(join) : null

const times = (a: Pair, b: Pair, r: RationalFunction): Pair => ({
  p: addFractions(multiplyFractions(a.p, b.p), multiplyFractions(multiplyFractions(a.q, b.q), r)),
  q: addFractions(multiplyFractions(a.p, b.q), multiplyFractions(a.q, b.p)),
})

/** 1/(p + q√r) is (p − q√r)/(p² − q²r). */
function reciprocal({ p, q }: Pair, r: RationalFunction): Pair | null {
  const size = addFractions(
    multiplyFractions(p, p),
    negated(multiplyFractions(multiplyFractions(q, q), r)),
  )
  if (size.above.length === 0) return null
  const turned: RationalFunction = { above: size.below, below: size.above }
  return { p: multiplyFractions(p, turned), q: negated(multiplyFractions(q, turned)) }
}

function raised(base: Pair, n: number, r: RationalFunction): Pair | null {
  if (Math.abs(n) > 8) return null
  let out: Pair = { p: oneOverOne, q: none }
  for (let i = 0; i < Math.abs(n); i++) out = times(out, base, r)
  return n < 0 ? reciprocal(out, r) : out
}

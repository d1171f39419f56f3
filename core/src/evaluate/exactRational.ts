import {
  addRational,
  divideRational,
  multiplyRational,
  negateRational,
  one,
  type Rational,
  rational,
  zero,
} from '../arithmetic/rational'
import { holds } from '../formula/relations'
import { type Condition, exactly, literalFraction, type Tree } from '../formula/tree'
import { entryOf } from '../functions'
import { writtenOut } from '../functions/writtenOut'

/** Numbers with more bits than this are no numbers that people write. */
const mostBits = 4096n
const limit = 1n << mostBits

const isLong = ({ n, d }: Rational) => n > limit || n < -limit || d > limit

/**
 * The fraction that a formula without names is, worked out in whole numbers; null where it is none, or
 * where these rules do not tell: sums, products, quotients and whole powers, roots of squares and
 * cubes, bars, steps, and functions at the places where everybody knows their value.
 */
export function exactRational(tree: Tree): Rational | null {
  const found = rationalOf(tree)
  return found && !isLong(found) ? found : null
}

function rationalOf(tree: Tree): Rational | null {
  switch (tree.kind) {
    case 'number':
      return tree.exact
    case 'sum':
      return folded(tree.terms, addRational)
    case 'product':
      return folded(tree.factors, multiplyRational)
    case 'quotient': {
      const above = rationalOf(tree.above)
      const below = above && rationalOf(tree.below)
      return above && below && below.n !== 0n ? divideRational(above, below) : null
    }
    case 'power': {
      const { base, exponent } = tree
      const share = literalFraction(exponent) ?? rationalOf(exponent)
      if (!share) return null
      if (base.kind === 'constant') return base.name === 'e' && share.n === 0n ? one : null
      const inside = rationalOf(base)
      if (!inside) return null
      const isRealRoot = literalFraction(exponent) !== null
      if (inside.n < 0n && share.d !== 1n && !(isRealRoot && share.d % 2n === 1n)) return null
      return raised(inside, share)
    }
    case 'call':
      return ofCall(tree)
    case 'pieces':
      for (const { body, when } of tree.pieces) {
        const answer = when ? conditionOf(when) : true
        if (answer === null) return null
        if (answer) return rationalOf(body)
      }
      return null
    default:
      return null
  }
}

function folded(
  parts: readonly Tree[],
  join: (a: Rational, b: Rational) => Rational,
): Rational | null {
  let total: Rational | null = null
  for (const part of parts) {
    const next = rationalOf(part)
    if (!next) return null
    total = total ? join(total, next) : next
    if (isLong(total)) return null
  }
  return total
}

/** base^(p/q) where that is a fraction. */
function raised(base: Rational, { n: p, d: q }: Rational): Rational | null {
  if (base.n === 0n) return p > 0n ? zero : p === 0n ? one : null
  const times = p < 0n ? -p : p
  if (times > 400n || q > 12n) return null
  const [top, bottom] = [rootOf(base.n, q), rootOf(base.d, q)]
  if (top === null || bottom === null) return null
  const bits = BigInt(Math.max(top.toString(2).length, bottom.toString(2).length))
  if (bits * times > mostBits) return null
  const [n, d] = [top ** times, bottom ** times]
  return p < 0n ? rational(d, n) : rational(n, d)
}

/** The whole q-th root of a whole number, with its sign; null where there is none. */
function rootOf(n: bigint, q: bigint): bigint | null {
  if (q === 1n) return n
  if (n < 0n) {
    const root = q % 2n === 1n ? rootOf(-n, q) : null
    return root === null ? null : -root
  }
  if (n < 2n) return n
  // Newton's method in whole numbers comes down to the root from above.
  let x = 1n << BigInt(Math.ceil(n.toString(2).length / Number(q)) + 1)
  for (;;) {
    const next = ((q - 1n) * x + n / x ** (q - 1n)) / q
    if (next >= x) break
    x = next
  }
  return x ** q === n ? x : null
}

function ofCall(tree: Tree & { kind: 'call' }): Rational | null {
  const written = writtenOut(tree)
  if (written !== tree) return rationalOf(written)
  if (tree.name === 'min' || tree.name === 'max') {
    const sign = tree.name === 'min' ? -1n : 1n
    return folded(tree.args, (a, b) => ((a.n * b.d - b.n * a.d) * sign >= 0n ? a : b))
  }
  if (tree.name === 'logBase') return null
  const inside = rationalOf(tree.args[0]!)
  if (!inside) return null
  const entry = entryOf(tree.name)
  if (entry.root)
    return inside.n < 0n && entry.root % 2n === 0n ? null : raised(inside, rational(1n, entry.root))
  if (tree.name === 'abs') return inside.n < 0n ? negateRational(inside) : inside
  if (tree.name === 'sgn') return rational(inside.n > 0n ? 1n : inside.n < 0n ? -1n : 0n)
  if (inside.n === 0n && entry.atZero !== undefined) return rational(BigInt(entry.atZero))
  const exact = entry.exact?.(exactly(inside))
  return exact?.kind === 'number' ? exact.exact : null
}

function conditionOf(condition: Condition): boolean | null {
  if (condition.kind !== 'compare') {
    const answers = condition.of.map(conditionOf)
    const decisive = condition.kind === 'any'
    if (answers.includes(decisive)) return decisive
    return answers.includes(null) ? null : !decisive
  }
  const values = condition.terms.map(rationalOf)
  let isOpen = false
  for (const [i, relation] of condition.relations.entries()) {
    const [a, b] = [values[i], values[i + 1]]
    if (!a || !b) {
      isOpen = true
      continue
    }
    const gap = a.n * b.d - b.n * a.d
    if (!holds(relation, gap > 0n ? 1 : gap < 0n ? -1 : 0, 0)) return false
  }
  return isOpen ? null : true
}

import { rational, type Rational } from '../../arithmetic/rational'
import {
  childrenOf,
  dependsOn,
  exactly,
  isNumber,
  keyOf,
  mapChildren,
  name,
  negate,
  power,
  quotient,
  sum,
  type Tree,
  whole,
} from '../../formula/tree'
import { maybeEntry } from '../../functions'
import { cancelFreely, simplify } from '../simplify'

/** What a function is called while it stands for a letter; no formula has such a name. */
export const letter = 'z*'

/** The fraction that an exponent is, or null. */
export const shareOf = (exponent: Tree): Rational | null =>
  isNumber(exponent)
    ? exponent.exact
    : exponent.kind === 'quotient' && isNumber(exponent.above) && isNumber(exponent.below)
      ? rational(
          exponent.above.exact.n * exponent.below.exact.d,
          exponent.above.exact.d * exponent.below.exact.n,
        )
      : null

/** Functions of the variable in a formula that may stand for a letter. */
export function functionsIn(tree: Tree, variable: string): Tree[] {
  const all = new Map<string, Tree>()
  const visit = (part: Tree) => {
    if (!dependsOn(part, variable)) return
    const isBroken = part.kind === 'power' && (shareOf(part.exponent)?.d ?? 1n) > 1n
    const isExponential = part.kind === 'power' && dependsOn(part.exponent, variable)
    if (part.kind === 'call' || isBroken || isExponential) all.set(keyOf(part), part)
    childrenOf(part).forEach(visit)
  }
  visit(tree)
  return [...all.values()].slice(0, 6)
}

/** The formula with a letter for a function, for its powers, and for squares of what stands beside it. */
export function withLetter(tree: Tree, u: Tree, variable: string): Tree | null {
  const key = keyOf(u)
  const z = name(letter)
  const own = u.kind === 'power' ? u : null
  const root = u.kind === 'call' ? maybeEntry(u.name)?.root : undefined
  const rootBase = root && u.kind === 'call' ? u.args[0]! : null
  const ownShare = own ? shareOf(own.exponent) : null
  const visit = (part: Tree): Tree => {
    if (keyOf(part) === key) return z
    if (own && dependsOn(own.exponent, variable) && part.kind === 'power') {
      // e^(2x) is u² for u = e^x.
      if (keyOf(part.base) === keyOf(own.base)) {
        const ratio = simplify(cancelFreely(simplify(quotient(part.exponent, own.exponent))))
        if (isNumber(ratio) && ratio.exact.d === 1n) return power(z, ratio)
      }
    }
    if (ownShare && own && part.kind === 'power' && keyOf(part.base) === keyOf(own.base)) {
      const share = shareOf(part.exponent)
      const ratio = share && rational(share.n * ownShare.d, share.d * ownShare.n)
      if (ratio?.d === 1n) return power(z, exactly(ratio))
    }
    const under = rootBase ?? (ownShare?.n === 1n ? own!.base : null)
    const order = root ?? ownShare?.d
    if (under && order) {
      const share =
        part.kind === 'power' && keyOf(part.base) === keyOf(under) ? shareOf(part.exponent) : null
      if (share && order % share.d === 0n) {
        return power(z, exactly(rational(share.n * order, share.d)))
      }
      if (keyOf(part) === keyOf(under)) return power(z, whole(order))
    }
    const square = squareBeside(part, u)
    if (square) return square(z)
    return mapChildren(part, visit)
  }
  return visit(tree)
}

/** cos² v is 1 − u² for u = sin v, and the other way round, also in even powers. */
function squareBeside(part: Tree, u: Tree): ((z: Tree) => Tree) | null {
  const other = u.kind === 'call' ? { sin: 'cos', cos: 'sin' }[u.name as 'sin' | 'cos'] : undefined
  if (!other || part.kind !== 'power' || part.base.kind !== 'call' || u.kind !== 'call') return null
  const share = shareOf(part.exponent)
  const isEven = share && share.d === 1n && share.n % 2n === 0n
  if (part.base.name !== other || !isEven || keyOf(part.base.args[0]!) !== keyOf(u.args[0]!)) {
    return null
  }
  return (z) => power(sum(whole(1), negate(power(z, whole(2)))), whole(share.n / 2n))
}

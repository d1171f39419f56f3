import { maybeEntry } from '../functions'
import { toText } from '../language/print'
import { type Tree, whole } from '../formula/tree'

/** Over more denominators than this a sum only grows: nothing is seen in it any more. */
const mostDenominators = 6

const productOf = (factors: Tree[]): Tree =>
  factors.length === 1 ? factors[0]! : { kind: 'product', factors }

/**
 * A formula as one quotient above/below, with sums brought over one denominator and tan, sec and
 * their like taken apart; null where nothing is divided by
 * more than a number, or by too much to be brought together. Where below is not 0 both are equal.
 */
export function asQuotient(tree: Tree): { above: Tree; below: Tree } | null {
  if (tree.kind === 'quotient') {
    const inner = asQuotient(tree.above)
    // Divided by a number alone it is as good as whole.
    if (!inner && tree.below.kind === 'number') return null
    return inner
      ? { above: inner.above, below: { kind: 'product', factors: [inner.below, tree.below] } }
      : { above: tree.above, below: tree.below }
  }
  if (tree.kind === 'product') {
    const parts = tree.factors.map(asQuotient)
    const belows = parts.flatMap((p) => (p ? [p.below] : []))
    if (belows.length === 0) return null
    const factors = tree.factors.map((f, i) => parts[i]?.above ?? f)
    return { above: { kind: 'product', factors }, below: productOf(belows) }
  }
  if (tree.kind === 'call') {
    const parts = maybeEntry(tree.name)?.quotient
    if (parts) return parts(tree.args[0]!)
  }
  if (tree.kind === 'power' && tree.exponent.kind === 'number' && tree.exponent.exact.d === 1n) {
    const { n } = tree.exponent.exact
    const inner = asQuotient(tree.base)
    if (n < 0n) {
      const size: Tree = { ...tree.exponent, exact: { n: -n, d: 1n } }
      return { above: whole(1), below: { kind: 'power', base: tree.base, exponent: size } }
    }
    if (inner) {
      return {
        above: { kind: 'power', base: inner.above, exponent: tree.exponent },
        below: { kind: 'power', base: inner.below, exponent: tree.exponent },
      }
    }
  }
  if (tree.kind === 'sum') {
    const parts = tree.terms.map(asQuotient)
    const belows = new Map(parts.flatMap((p) => (p ? [[toText(p.below), p.below]] : [])))
    if (belows.size === 0 || belows.size > mostDenominators) return null
    const terms = tree.terms.map((t, i): Tree => {
      const part = parts[i]
      const others = [...belows].filter(([key]) => !part || key !== toText(part.below))
      const factors = [part?.above ?? t, ...others.map(([, below]) => below)]
      return productOf(factors)
    })
    return { above: { kind: 'sum', terms }, below: productOf([...belows.values()]) }
  }
  return null
}

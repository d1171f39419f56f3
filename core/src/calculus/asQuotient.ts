import { call, type Tree, whole } from '../language/tree'

/**
 * A formula as one quotient above/below, with sums brought over one denominator and tan, sec and
 * their like taken apart; null where nothing is divided. Where below is not 0 both are equal.
 */
export function asQuotient(tree: Tree): { above: Tree; below: Tree } | null {
  if (tree.kind === 'quotient') {
    const inner = asQuotient(tree.above)
    return inner
      ? { above: inner.above, below: { kind: 'product', factors: [inner.below, tree.below] } }
      : { above: tree.above, below: tree.below }
  }
  if (tree.kind === 'product') {
    const at = tree.factors.findIndex((f) => asQuotient(f) !== null)
    if (at < 0) return null
    const { above, below } = asQuotient(tree.factors[at]!)!
    const factors = tree.factors.map((f, i) => (i === at ? above : f))
    return { above: { kind: 'product', factors }, below }
  }
  if (tree.kind === 'call') {
    const [u] = tree.args as [Tree]
    const [sine, cosine] = [call('sin', u), call('cos', u)]
    if (tree.name === 'tan') return { above: sine, below: cosine }
    if (tree.name === 'cot') return { above: cosine, below: sine }
    if (tree.name === 'sec') return { above: whole(1), below: cosine }
    if (tree.name === 'csc') return { above: whole(1), below: sine }
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
    // Over the one denominator that any of the terms has.
    const parts = tree.terms.map((t) => asQuotient(t))
    const at = parts.findIndex((p) => p !== null)
    if (at < 0) return null
    const { below } = parts[at]!
    const terms = tree.terms.map((t, i): Tree =>
      i === at ? parts[i]!.above : { kind: 'product', factors: [t, below] },
    )
    const above: Tree = { kind: 'sum', terms }
    const again = parts.some((p, i) => p !== null && i !== at) ? asQuotient(above) : null
    return again
      ? { above: again.above, below: { kind: 'product', factors: [again.below, below] } }
      : { above, below }
  }
  return null
}

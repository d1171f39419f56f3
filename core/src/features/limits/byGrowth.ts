import * as I from '../../arithmetic/intervals'
import { maybeEntry } from '../../functions'
import {
  call,
  constant,
  countParts,
  dependsOn,
  isNegative,
  isNumber,
  isOne,
  negate,
  power,
  product,
  quotient,
  sum,
  type Tree,
  whole,
} from '../../formula/tree'
import { toPlain } from '../../language/print'
import { isExactZero, NoValues, type Place, signOf, Unsure } from './constants'
import { Expander } from './expand'
import type { Monomial, Term } from './monomials'
import { growsTo, type OneSided, tendsTo } from './oneSided'
import type { Series, SeriesAlgebra } from './series'

/** Where a formula is looked at: the variable as a series in t → ∞, and t in terms of the variable. */
export interface Approach {
  place: Place
  variable: (algebra: SeriesAlgebra) => Series
  /**
   * t is this formula to the power ± 1, or less than it where it is turned; for the words. Null
   * where the place has no form.
   */
  t: { base: Tree; power: 1 | -1; turned: boolean } | null
  /** close to 0; far out */
  where: string
}

/** So many terms are kept, more where they cancel. */
const sizes = [4, 8, 14]
/** Longer formulas are not expanded. */
const mostParts = 250

/**
 * The limit of a formula by its growth: series in powers, logarithms and exponentials, whose leading
 * term decides. What sines and cosines leave open is bounded by 1 (a squeeze). Null where it does not
 * decide. Source: D. Gruntz, On Computing Limits in a Symbolic Manipulation System, ETH Zürich 1996,
 * for the idea of comparing by the most rapidly varying parts (from memory).
 */
export function limitByGrowth(tree: Tree, approach: Approach): OneSided | null {
  if (countParts(tree) > (approach.t ? mostParts : 60)) return null
  // A place without a form makes long constants: only the easy cases are worth the work.
  for (const most of approach.t ? sizes : sizes.slice(0, 1)) {
    const expander = new Expander(approach.place, approach.variable, most)
    try {
      const found = verdict(expander.of(tree), expander, approach)
      if (found) return found
      if (neverSettles(tree, expander, approach.place.variable)) {
        return { kind: 'none', reason: 'the values go to and fro without settling' }
      }
    } catch (error) {
      if (error instanceof NoValues) return { kind: 'none', reason: 'there are no values there' }
      if (!(error instanceof Unsure)) throw error
    }
  }
  return null
}

/** What the leading term says; null where what is left out outweighs it. */
function verdict(series: Series, { algebra }: Expander, approach: Approach): OneSided | null {
  const { growth } = algebra.monomials
  const [first] = series.terms
  if (!first) {
    if (!series.rest) return tendsTo(I.zeroInterval, 'it is 0 there throughout', zero)
    return growth(series.rest) < 0
      ? tendsTo(
          I.zeroInterval,
          `it lies between ${bounds(series.rest, approach)}, which vanish`,
          zero,
        )
      : null
  }
  const way = growth(first.monomial)
  if (way > 0) return growsTo(signOf(first.coefficient) as -1 | 1, likeWords(series, approach))
  if (way < 0) return tendsTo(I.zeroInterval, likeWords(series, approach), zero)
  const { range, tree } = first.coefficient
  const exact = dependsOn(tree, approach.place.variable) ? undefined : tree
  return tendsTo(range, likeWords(series, approach), exact)
}
const zero: Tree = whole(0)

/** A growth as a formula in the variable. */
function termTree({ monomial: { exponent, powers }, coefficient }: Term, t: T): Tree {
  const above: Tree[] = []
  const below: Tree[] = []
  const put = (base: Tree, p: Tree) => {
    const isDown = isNegative(p)
    const size = isDown ? negate(p) : p
    ;(isDown ? below : above).push(isOne(size) ? base : power(base, size))
  }
  let turns = false
  powers.forEach((p, depth) => {
    if (isExactZero(p)) return
    if (depth === 0) {
      // A whole power of −u is one of u, but for its sign.
      const isWhole = isNumber(p.tree) && p.tree.exact.d === 1n
      if (t.turned && isWhole && p.tree.kind === 'number' && p.tree.exact.n % 2n !== 0n) {
        turns = !turns
      }
      const base = t.turned && !isWhole ? negate(t.base) : t.base
      put(base, t.power > 0 ? p.tree : negate(p.tree))
    } else {
      // ln t is −ln of what t is one over: an odd power of it turns the sign.
      const turned = t.power < 0 && depth === 1
      const odd = isNumber(p.tree) && p.tree.exact.d === 1n
      if (turned && odd) turns = turns !== (p.tree.kind === 'number' && p.tree.exact.n % 2n !== 0n)
      let base: Tree = call('ln', t.turned ? negate(t.base) : t.base)
      if (t.power < 0 && !(turned && odd)) base = negate(base)
      for (let k = 1; k < depth; k++) base = call('ln', base)
      put(base, p.tree)
    }
  })
  if (exponent.length > 0) {
    above.push(power(constant('e'), sum(...exponent.map((term) => termTree(term, t)))))
  }
  const signed = turns ? negate(coefficient.tree) : coefficient.tree
  if (isNumber(signed)) {
    const { n, d } = signed.exact
    const size = n < 0n ? -n : n
    if (size !== 1n || above.length === 0) above.unshift(whole(size))
    if (d !== 1n) below.unshift(whole(d))
    const whole_ =
      below.length > 0 ? quotient(product(...above), product(...below)) : product(...above)
    return n < 0n ? negate(whole_) : whole_
  }
  above.unshift(signed)
  return below.length > 0 ? quotient(product(...above), product(...below)) : product(...above)
}
type T = NonNullable<Approach['t']>

/** Longer words than these say nothing to a reader. */
const longest = 48

/** “close to 0 it is like 1/4 − x/64”, by its two leading terms. */
function likeWords({ terms, rest }: Series, { t, where, place }: Approach): string {
  const other = `its leading term ${where} decides`
  if (!t || terms.some(({ coefficient }) => dependsOn(coefficient.tree, place.variable)))
    return other
  const [{ monomial }] = terms as [Term]
  if (monomial.exponent.length > 0) {
    const [first] = monomial.exponent as [Term]
    const exponent = toPlain(sum(...monomial.exponent.map((term) => termTree(term, t))))
    const way = signOf(first.coefficient) > 0 ? 'grows' : 'falls'
    return exponent.length <= longest
      ? `${where} its exponent is like ${exponent}, which ${way} without bound`
      : other
  }
  const shown = terms.slice(0, 2).map((term) => {
    const tree = termTree(term, t)
    return tree.kind === 'sum' ? `(${toPlain(tree)})` : toPlain(tree)
  })
  const text = shown.reduce((a, b) => (b.startsWith('−') ? `${a} − ${b.slice(1)}` : `${a} + ${b}`))
  const exact = rest === null && terms.length <= 2
  if (text.length > longest) return other
  return `${where} it is ${exact ? '' : 'like '}${text}`
}

function bounds(rest: Monomial, { t }: Approach): string {
  const one = { tree: whole(1), range: I.point(1) }
  const tree = t && termTree({ monomial: rest, coefficient: one }, t)
  const size = tree && toPlain(call('abs', isNegative(tree) ? negate(tree) : tree))
  return size && size.length <= longest ? `multiples of −${size} and ${size}` : 'two bounds'
}

/**
 * Whether a formula is proven to come near to more than one number: a sine of something that grows
 * takes all values from −1 to 1 again and again, and what is made of it alone does as well.
 */
function neverSettles(tree: Tree, expander: Expander, variable: string): boolean {
  const { algebra, of } = expander
  const { growth } = algebra.monomials
  const grows = (part: Tree) => {
    const { terms, rest } = of(part)
    const [first] = terms
    return (
      first !== undefined &&
      growth(first.monomial) > 0 &&
      !(rest && algebra.monomials.compare(rest, first.monomial) >= 0)
    )
  }
  /** It tends to a number, and where asked not to 0. */
  const tends = (part: Tree, apartFromZero: boolean) => {
    const { terms, rest } = of(part)
    if (rest && growth(rest) >= 0) return false
    const way = terms[0] ? growth(terms[0].monomial) : -1
    return apartFromZero ? way >= 0 : way <= 0
  }
  const visit = (part: Tree): boolean => {
    if (!dependsOn(part, variable)) return false
    switch (part.kind) {
      case 'call': {
        const [u] = part.args as [Tree]
        if (part.name === 'sin' || part.name === 'cos') return grows(u)
        // A quotient of waves takes every value where its argument grows.
        if (maybeEntry(part.name)?.quotient) return grows(u)
        return (part.name === 'exp' || part.name === 'arctan' || part.name === 'cbrt') && visit(u)
      }
      case 'sum': {
        const open = part.terms.filter(visit)
        const others = part.terms.filter((term) => !open.includes(term))
        return open.length === 1 && others.every((term) => tends(term, false))
      }
      case 'product': {
        const open = part.factors.filter(visit)
        const others = part.factors.filter((factor) => !open.includes(factor))
        return open.length === 1 && others.every((factor) => tends(factor, true))
      }
      case 'quotient':
        return visit(part.above) && tends(part.below, true) && !grows(part.below)
      case 'power':
        return (
          (part.exponent.kind === 'number' && part.exponent.exact.n > 0n && visit(part.base)) ||
          (part.base.kind === 'constant' && visit(part.exponent))
        )
      default:
        return false
    }
  }
  return visit(tree)
}

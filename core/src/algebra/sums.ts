import { addRational, divideRational, toNumber } from '../arithmetic/rational'
import {
  call,
  exactly,
  equalsNumber,
  isNegative,
  isNumber,
  isOne,
  isZero,
  keyOf,
  type NumberTree,
  power,
  quotient,
  splitCoefficient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'
import {
  type Factor,
  factorsOf,
  gatherFactors,
  isNatural,
  isTotal,
  multiplyFactors,
  rebuilt,
  reducePower,
  withCoefficient,
} from './products'

/** Adds up like terms; a term whose factor becomes 0 goes only if it was defined everywhere. */
export function gatherTerms(terms: readonly Tree[]): Tree {
  const gathered = addLikeTerms(terms)
  const before = termCount(gathered)
  if (before < 2 || before > expansionLimit) return gathered
  const factored = gathered.kind === 'sum' ? factorOut(gathered.terms) : null
  if (factored) return factored
  const expanded = addLikeTerms(
    gathered.kind === 'sum' ? gathered.terms.flatMap(expand) : expand(gathered),
  )
  return termCount(expanded) < before ? expanded : gathered
}

/**
 * Takes out what a derivative by the product rule leaves in every term: powers of one sum, such as
 * (x - 1)²(x + 2) + 2(x - 1)(x + 2)², and one exponential. Null where there is nothing of it.
 */
function factorOut(terms: readonly Tree[]): Tree | null {
  if (terms.some((t) => t.kind === 'quotient')) return null
  const all = terms.map(factorsOf)
  const common: Tree[] = []
  for (const [key, { base, exponent }] of all[0]!) {
    const alike = all.map((factors) => factors.get(key))
    if (base.kind === 'constant' && base.name === 'e' && !isNumber(exponent)) {
      const same = (f: Factor | undefined) => f && keyOf(f.exponent) === keyOf(exponent)
      if (!alike.every(same)) continue
      common.push(power(base, exponent))
      alike.forEach((f) => (f!.exponent = whole(0)))
    } else if (base.kind === 'sum') {
      const sizes = alike.map((f) =>
        f && isNatural(f.exponent) ? (f.exponent as NumberTree).exact.n : 0n,
      )
      const least = sizes.reduce((a, b) => (b < a ? b : a))
      if (least === 0n || sizes.every((n) => n === 1n)) continue
      common.push(reducePower(base, whole(least)))
      alike.forEach((f, i) => (f!.exponent = whole(sizes[i]! - least)))
    }
  }
  if (common.length === 0) return null
  const rest = gatherTerms(all.map((factors) => multiplyFactors(rebuilt(factors))))
  return gatherFactors([...common, byDegree(rest)])
}

/** A polynomial with its highest power first, unless that would put a minus sign in front. */
function byDegree(tree: Tree): Tree {
  if (tree.kind !== 'sum') return tree
  const degreeOf = (term: Tree): number => {
    const part = splitTerm(term)[1]
    if (isOne(part)) return 0
    if (part.kind === 'name') return 1
    const natural = part.kind === 'power' && part.base.kind === 'name' && isNatural(part.exponent)
    return natural ? toNumber((part.exponent as NumberTree).exact) : NaN
  }
  const terms = tree.terms.map((term) => ({ term, degree: degreeOf(term) }))
  if (terms.some(({ degree }) => Number.isNaN(degree))) return tree
  const sorted = terms.sort((a, b) => b.degree - a.degree).map(({ term }) => term)
  return isNegative(sorted[0]!) ? tree : sum(...sorted)
}

/** Sums with more terms than this are left as they stand. */
const expansionLimit = 12

/** The terms a reader has to look at, those inside factors included: 3(t - 2) + 3(t + 1) has 4. */
function termCount(tree: Tree): number {
  const terms = tree.kind === 'sum' ? tree.terms : [tree]
  return terms.reduce((count, term) => {
    const factors = term.kind === 'product' ? term.factors : [term]
    const inside = factors.map((f) => (f.kind === 'sum' ? f.terms.length : 1))
    return count + Math.max(1, ...inside)
  }, 0)
}

/** Multiplies out the sums among the factors of one term. */
function expand(term: Tree): Tree[] {
  const at = term.kind === 'product' ? term.factors.findIndex((f) => f.kind === 'sum') : -1
  if (term.kind !== 'product' || at < 0) return [term]
  const inner = term.factors[at]!
  const others = term.factors.filter((_, i) => i !== at)
  if (inner.kind !== 'sum' || inner.terms.length > expansionLimit) return [term]
  return inner.terms.flatMap((part) => expand(gatherFactors([...others, part])))
}

function addLikeTerms(terms: readonly Tree[]): Tree {
  const flat = terms.flatMap((t) => (t.kind === 'sum' ? t.terms : [t]))
  const gathered = new Map<string, CountedTerm>()
  for (const term of flat) {
    // A term that has vanished must not keep a place for later numbers: 0 + 3.6 cos t - 0.3.
    if (isZero(term)) continue
    const [coefficient, part] = splitTerm(term)
    // sin t·cos t and cos t·sin t are alike.
    const key = part.kind === 'product' ? part.factors.map(keyOf).sort().join('·') : keyOf(part)
    const known = gathered.get(key)
    if (!known) gathered.set(key, { coefficient, part })
    else {
      known.coefficient = addNumbers(known.coefficient, coefficient)
    }
  }
  const kept = joinSquares([...gathered.values()])
    .filter(({ coefficient, part }) => !(isZero(coefficient) && isTotal(part)))
    .map(({ coefficient, part }) => withCoefficient(coefficient, part))
  if (kept.length === 0) return whole(0)
  const [first, second] = kept
  // 1 - x² reads better than -x² + 1; longer sums keep the order they were written in.
  const turn = kept.length === 2 && isNegative(first!) && !isNegative(second!)
  return turn ? sum(second!, first!) : sum(...kept)
}

interface CountedTerm {
  coefficient: NumberTree
  part: Tree
}

/** sin²u + cos²u is 1; 1 − sin²u alone is cos²u. Both have values wherever u has one. */
function joinSquares(terms: CountedTerm[]): CountedTerm[] {
  const squareOf = ({ part }: CountedTerm, name: 'sin' | 'cos'): Tree | null =>
    part.kind === 'power' &&
    equalsNumber(part.exponent, 2) &&
    part.base.kind === 'call' &&
    part.base.name === name &&
    isTotal(part.base)
      ? part.base.args[0]!
      : null
  for (const sine of terms) {
    const angle = squareOf(sine, 'sin')
    const cosine =
      angle &&
      terms.find((t) => {
        const other = squareOf(t, 'cos')
        return other !== null && keyOf(other) === keyOf(angle) && sameNumber(t, sine)
      })
    if (!cosine) continue
    const rest = terms.filter((t) => t !== sine && t !== cosine)
    const plain = rest.find((t) => isOne(t.part))
    const total = addNumbers(plain?.coefficient ?? whole(0), sine.coefficient)
    return joinSquares([...rest.filter((t) => t !== plain), { coefficient: total, part: whole(1) }])
  }
  if (terms.length !== 2) return terms
  const plain = terms.find((t) => isOne(t.part))
  const square = terms.find((t) => t !== plain)!
  for (const [name, other] of [
    ['sin', 'cos'],
    ['cos', 'sin'],
  ] as const) {
    const angle = squareOf(square, name)
    if (!plain || !angle || !isZero(addNumbers(plain.coefficient, square.coefficient))) continue
    return [{ coefficient: plain.coefficient, part: power(call(other, angle), whole(2)) }]
  }
  return terms
}

const addNumbers = (a: NumberTree, b: NumberTree): NumberTree =>
  exactly(addRational(a.exact, b.exact), a.decimal || b.decimal)

const sameNumber = (a: CountedTerm, b: CountedTerm) => keyOf(a.coefficient) === keyOf(b.coefficient)

/** Like splitCoefficient, and also sees the number in x²/3 and 2x/3. */
function splitTerm(term: Tree): [NumberTree, Tree] {
  if (term.kind !== 'quotient') return splitCoefficient(term)
  const [above, rest] = splitCoefficient(term.above)
  if (isNumber(term.below) && !isZero(term.below)) {
    const factor = exactly(divideRational(above.exact, term.below.exact), above.decimal)
    return [factor, rest]
  }
  if (isOne(above)) return [above, term]
  return [above, quotient(rest, term.below)]
}

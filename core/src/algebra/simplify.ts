import { type FunctionName, maybeEntry, severalOrNull } from '../functions'
import { writtenOut } from '../functions/writtenOut'
import {
  addRational,
  divideRational,
  isWhole,
  multiplyRational,
  one,
  powerRational,
  type Rational,
  rational,
  toNumber,
} from '../arithmetic/rational'
import {
  call,
  childrenOf,
  exactly,
  equalsNumber,
  isNegative,
  isNumber,
  isOne,
  isZero,
  keyOf,
  literalFraction,
  mapChildren,
  type NumberTree,
  power,
  pieces,
  product,
  quotient,
  splitCoefficient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'

/** Powers of numbers are worked out only while they stay readable. */
const foldedDigits = 30

/**
 * Rewrites a tree the way a teacher would leave it: numbers worked out exactly, like terms and
 * powers gathered, number factors in front. Never changes a domain: x/x, √x·√x and 0·ln x stay
 * as they are, since what was not defined somewhere must not become so.
 */
export function simplify(tree: Tree): Tree {
  let result = simplified.get(tree)
  if (!result) {
    const plain = simplifyParts(writtenOut(tree))
    const freed = cancelKnown(plain)
    result = freed === plain ? plain : simplifyParts(freed)
    simplified.set(tree, result)
  }
  return result
}

// Trees never change and are shared by what is made of them: each is simplified once.
const simplified = new WeakMap<Tree, Tree>()
const simplifiedParts = new WeakMap<Tree, Tree>()

function simplifyParts(part: Tree): Tree {
  let result = simplifiedParts.get(part)
  if (!result) {
    result = simplifyNode(mapChildren(part, simplifyParts))
    simplifiedParts.set(part, result)
  }
  return result
}

function simplifyNode(tree: Tree): Tree {
  switch (tree.kind) {
    case 'sum':
      return insidePiece(tree.terms, sum) ?? gatherTerms(tree.terms)
    case 'product':
      return insidePiece(tree.factors, product) ?? gatherFactors(tree.factors)
    case 'quotient':
      return reduceQuotient(tree.above, tree.below)
    case 'power':
      return reducePower(tree.base, tree.exponent)
    case 'call':
      return reduceCall(tree)
    default:
      return tree
  }
}

/**
 * What stands beside one formula under a condition goes under it as well: 1 − (0 if c) is (1 if c),
 * and has a value where that has one.
 */
function insidePiece(parts: readonly Tree[], join: (...parts: Tree[]) => Tree): Tree | null {
  const conditional = parts.filter((part) => part.kind === 'pieces')
  const [one] = conditional
  const [piece, another] = one?.pieces ?? []
  if (conditional.length !== 1 || !piece?.when || another) return null
  const whole = join(...parts.map((part) => (part === one ? piece.body : part)))
  return pieces({ body: simplifyNode(whole), when: piece.when })
}

const totals = new WeakMap<Tree, boolean>()

/** Whether a tree has a value wherever its names have one, so that leaving it out loses nothing. */
export function isTotal(tree: Tree): boolean {
  let known = totals.get(tree)
  if (known === undefined) {
    known = isTotalNode(tree)
    totals.set(tree, known)
  }
  return known
}

function isTotalNode(tree: Tree): boolean {
  switch (tree.kind) {
    case 'number':
    case 'constant':
    case 'name':
      return true
    case 'sum':
      return tree.terms.every(isTotal)
    case 'product':
      return tree.factors.every(isTotal)
    case 'quotient':
      return isTotal(tree.above) && isNeverZero(tree.below)
    case 'power': {
      const fraction = literalFraction(tree.exponent)
      if (isPositive(tree.base)) return isTotal(tree.exponent)
      if (fraction) return isTotal(tree.base) && fraction.n > 0n && fraction.d % 2n === 1n
      return (
        isTotal(tree.base) &&
        tree.exponent.kind === 'number' &&
        isWhole(tree.exponent.exact) &&
        tree.exponent.exact.n >= 0n
      )
    }
    case 'call':
      return isTotalFunction(tree.name) && tree.args.every(isTotal)
    case 'curve':
    case 'pieces':
      return false
  }
}

const isTotalFunction = (name: FunctionName) =>
  (severalOrNull(name) ?? maybeEntry(name))?.total === true

/** Surely above 0 wherever it has a value, and having one everywhere. */
export function isPositive(tree: Tree): boolean {
  switch (tree.kind) {
    case 'number':
      return tree.exact.n > 0n
    case 'constant':
      return true
    case 'call':
      return maybeEntry(tree.name)?.positive === true && isTotal(tree)
    case 'power':
      return isPositive(tree.base) && isTotal(tree.exponent)
    case 'product':
      return tree.factors.every(isPositive)
    case 'sum':
      return tree.terms.every((t) => isPositive(t) || isSquare(t)) && tree.terms.some(isPositive)
    default:
      return false
  }
}

const isSquare = (tree: Tree) =>
  tree.kind === 'power' &&
  tree.exponent.kind === 'number' &&
  isWhole(tree.exponent.exact) &&
  tree.exponent.exact.n % 2n === 0n &&
  tree.exponent.exact.n > 0n &&
  isTotal(tree.base)

export const isNeverZero = (tree: Tree) => isPositive(tree) || isPositive(negated(tree))

function negated(tree: Tree): Tree {
  const [coefficient, rest] = splitCoefficient(tree)
  return withCoefficient(multiplyNumbers(coefficient, whole(-1)), rest)
}

const multiplyNumbers = (a: NumberTree, b: NumberTree): NumberTree =>
  exactly(multiplyRational(a.exact, b.exact), a.decimal || b.decimal)

/** A number factor in front of a part that has none. */
function withCoefficient(coefficient: NumberTree, part: Tree): Tree {
  if (isOne(coefficient)) return part
  if (isNumber(part)) return multiplyNumbers(coefficient, part)
  if (isZero(coefficient) && isTotal(part)) return whole(0)
  if (part.kind === 'quotient') {
    return reduceQuotient(withCoefficient(coefficient, part.above), part.below)
  }
  // x²/3 rather than (1/3)x²; decimals stay in front.
  if (!isWhole(coefficient.exact) && !coefficient.decimal) {
    const above = withCoefficient(whole(coefficient.exact.n), part)
    return quotient(above, whole(coefficient.exact.d))
  }
  return part.kind === 'product'
    ? product(coefficient, ...part.factors)
    : product(coefficient, part)
}

/** Adds up like terms; a term whose factor becomes 0 goes only if it was defined everywhere. */
function gatherTerms(terms: readonly Tree[]): Tree {
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

/** The place of a factor in a product: numbers, then letters, then functions, then sums. */
function rank(tree: Tree): number {
  if (tree.kind === 'number') return 0
  if (tree.kind === 'constant') return 1
  if (tree.kind === 'name') return 2
  if (tree.kind === 'power') return rank(tree.base) === 1 ? 3.5 : rank(tree.base) + 0.1
  if (tree.kind === 'call' || tree.kind === 'curve') return 4
  return 3
}

function gatherFactors(factors: readonly Tree[]): Tree {
  const flat = factors.flatMap((f) => (f.kind === 'product' ? f.factors : [f]))
  const above: Tree[] = []
  const below: Tree[] = []
  for (const factor of flat) {
    const fraction = factor.kind === 'power' ? literalFraction(factor.exponent) : null
    if (factor.kind === 'power' && fraction && fraction.n < 0n && factor.base.kind !== 'constant') {
      below.push(reducePower(factor.base, exactly(rational(-fraction.n, fraction.d))))
    } else if (factor.kind === 'quotient') {
      above.push(...(factor.above.kind === 'product' ? factor.above.factors : [factor.above]))
      below.push(factor.below)
    } else above.push(factor)
  }
  const top = multiplyFactors(above)
  if (below.length === 0) return top
  return reduceQuotient(
    top,
    multiplyFactors(below.flatMap((b) => (b.kind === 'product' ? b.factors : [b]))),
  )
}

function multiplyFactors(factors: readonly Tree[]): Tree {
  let coefficient: NumberTree = exactly(one)
  const gathered = new Map<string, Factor>()
  const apart: Tree[] = []
  for (const factor of factors) {
    if (isNumber(factor)) {
      coefficient = multiplyNumbers(coefficient, factor)
      continue
    }
    const { base, exponent } = asPower(factor)
    const key = keyOf(base)
    const known = gathered.get(key)
    if (!known) gathered.set(key, { base, exponent })
    else if (mayAddExponents(base, known.exponent, exponent)) {
      known.exponent = simplify(sum(known.exponent, exponent))
    } else apart.push(factor)
  }
  const powers = [...gathered.values()].map(({ base, exponent }) => reducePower(base, exponent))
  const all = [...powers, ...apart].filter((part) => {
    if (!isNumber(part)) return true
    coefficient = multiplyNumbers(coefficient, part)
    return false
  })
  if (all.length === 0) return coefficient
  // Sorting is stable, so equal kinds keep the order they were written in.
  const sorted = all.sort((a, b) => rank(a) - rank(b))
  const onlySum = sorted.length === 1 && sorted[0]!.kind === 'sum' ? sorted[0]! : null
  if (onlySum && onlySum.kind === 'sum' && equalsNumber(coefficient, -1)) {
    return sum(...onlySum.terms.map((t) => negated(t)))
  }
  return withCoefficient(coefficient, product(...sorted))
}

function asPower(factor: Tree): Factor {
  if (factor.kind === 'power') return { base: factor.base, exponent: factor.exponent }
  if (factor.kind === 'call' && factor.name === 'exp') {
    return { base: { kind: 'constant', name: 'e' }, exponent: factor.args[0]! }
  }
  return { base: factor, exponent: whole(1) }
}

const isNatural = (tree: Tree) => isNumber(tree) && isWhole(tree.exact) && tree.exact.n > 0n

/** x²·x³ is x⁵; √x·√x is not x, since it has no value for x < 0. */
const mayAddExponents = (base: Tree, a: Tree, b: Tree) =>
  isPositive(base) ? isTotal(a) && isTotal(b) : isNatural(a) && isNatural(b)

function reduceQuotient(above: Tree, below: Tree): Tree {
  if (above.kind === 'quotient') {
    return reduceQuotient(above.above, gatherFactors([above.below, below]))
  }
  if (below.kind === 'quotient' && isNeverZero(below.below) && isTotal(below.below)) {
    return reduceQuotient(gatherFactors([above, below.below]), below.above)
  }
  const [p, top] = splitCoefficient(above)
  const [q, bottom] = splitCoefficient(below)
  if (isZero(q)) return quotient(above, below)
  const [topRest, bottomRest] = cancel(top, bottom)
  if (isZero(p))
    return isTotal(topRest) && isNeverZero(bottomRest) ? whole(0) : quotient(whole(0), below)
  const ratio = exactly(divideRational(p.exact, q.exact), p.decimal || q.decimal)
  if (isOne(bottomRest)) {
    const plain = ratio.decimal || isWhole(ratio.exact)
    if (plain || isOne(topRest)) return withCoefficient(ratio, topRest)
  }
  if (ratio.decimal) return quotient(withCoefficient(ratio, topRest), bottomRest)
  return quotient(
    withCoefficient(whole(ratio.exact.n), topRest),
    withCoefficient(whole(ratio.exact.d), bottomRest),
  )
}

/** A quotient where the denominator is known not to be 0: all common factors go. */
export function quotientOfNonzero(above: Tree, below: Tree): Tree {
  const [p, top] = splitCoefficient(simplify(above))
  if (isZero(p)) return whole(0)
  const [topRest, bottomRest] = cancel(top, simplify(below), () => 0n)
  return reduceQuotient(withCoefficient(p, topRest), bottomRest)
}

/** Cancels every common factor of a formula whose denominators are known not to be 0. */
export function cancelFreely(tree: Tree): Tree {
  const done = mapChildren(tree, cancelFreely)
  return done.kind === 'quotient' ? quotientOfNonzero(done.above, done.below) : done
}

const nonzeros = new WeakMap<Tree, ReadonlySet<string>>()

/** Keys of the parts that are not 0 wherever a tree has a value: ln x and 1/x both ask x ≠ 0. */
function nonzeroIn(tree: Tree): ReadonlySet<string> {
  const known = nonzeros.get(tree)
  if (known) return known
  const keys = new Set<string>()
  if (tree.kind === 'quotient') for (const key of factorsOf(tree.below).keys()) keys.add(key)
  if (tree.kind === 'call' && (tree.name === 'ln' || tree.name === 'log')) {
    keys.add(keyOf(tree.args[0]!))
  }
  // Only the piece that holds has to have a value.
  if (tree.kind !== 'pieces') {
    for (const part of childrenOf(tree)) for (const key of nonzeroIn(part)) keys.add(key)
  }
  nonzeros.set(tree, keys)
  return keys
}

/**
 * Cancels x/x where another part has no value at 0 anyway: ln x + x/x is ln x + 1. The domain
 * stays, since that other part keeps it.
 */
function cancelKnown(tree: Tree, known: ReadonlySet<string> = new Set()): Tree {
  if (nonzeroIn(tree).size === 0) return tree
  if (tree.kind === 'quotient') {
    const below = cancelKnown(tree.below, known)
    const above = cancelKnown(tree.above, new Set([...known, ...factorsOf(below).keys()]))
    const [p, top] = splitCoefficient(above)
    const least = (base: Tree) => (known.has(keyOf(base)) ? 0n : 1n)
    const shares = [...factorsOf(top).keys()].some((k) => known.has(k) && factorsOf(below).has(k))
    if (shares) {
      const [topRest, bottomRest] = cancel(top, below, least)
      return reduceQuotient(withCoefficient(p, topRest), bottomRest)
    }
    return above === tree.above && below === tree.below ? tree : quotient(above, below)
  }
  if (tree.kind !== 'sum' && tree.kind !== 'product') return tree
  const parts = [...(tree.kind === 'sum' ? tree.terms : tree.factors)]
  let changed = false
  parts.forEach((part, i) => {
    const others = parts.flatMap((other, k) => (k === i ? [] : [...nonzeroIn(other)]))
    const freed = cancelKnown(part, new Set([...known, ...others]))
    if (freed !== part) changed = true
    parts[i] = freed
  })
  if (!changed) return tree
  return tree.kind === 'sum' ? sum(...parts) : product(...parts)
}

/**
 * Takes common factors out of a quotient as far as the domain stays: x/x² is 1/x, and x²/x stays,
 * because at least one x must remain below. Factors that are never 0 go altogether.
 */
function cancel(top: Tree, bottom: Tree, least: (base: Tree) => bigint = () => 1n): [Tree, Tree] {
  const above = factorsOf(top)
  const below = factorsOf(bottom)
  for (const [key, over] of above) {
    const under = below.get(key)
    if (!under || !isNumber(over.exponent) || !isNumber(under.exponent)) continue
    // Where the base is known not to be 0 it has a value as well.
    const free = least(over.base) === 0n
    if (!free && !isTotal(over.base)) continue
    const [a, b] = [over.exponent.exact, under.exponent.exact]
    if (!isWhole(a) || !isWhole(b) || a.n <= 0n || b.n <= 0n) continue
    const keepBelow = isNeverZero(over.base) ? 0n : least(over.base)
    const common = [a.n, b.n - keepBelow].reduce((m, v) => (v < m ? v : m))
    if (common <= 0n) continue
    over.exponent = whole(a.n - common)
    under.exponent = whole(b.n - common)
  }
  return [multiplyFactors(rebuilt(above)), multiplyFactors(rebuilt(below))]
}

interface Factor {
  base: Tree
  exponent: Tree
}

const rebuilt = (factors: ReadonlyMap<string, Factor>): Tree[] =>
  [...factors.values()].map(({ base, exponent }) => reducePower(base, exponent))

function factorsOf(tree: Tree): Map<string, Factor> {
  const parts = tree.kind === 'product' ? tree.factors : [tree]
  const factors = new Map<string, Factor>()
  parts.forEach((part, i) => {
    const { base, exponent } = asPower(part)
    const key = keyOf(base)
    factors.set(factors.has(key) ? `${key}#${i}` : key, { base, exponent })
  })
  return factors
}

function reducePower(base: Tree, exponent: Tree): Tree {
  if (isOne(exponent)) return base
  if (isZero(exponent)) return isTotal(base) ? whole(1) : power(base, exponent)
  if (isOne(base) && isTotal(exponent)) return whole(1)
  if (isNumber(exponent) && isWhole(exponent.exact)) {
    if (isNumber(base)) {
      const folded = foldPower(base, exponent.exact)
      if (folded) return folded
    }
    // (x²)³ is x⁶ for whole exponents above 0; with others a domain or a sign could change.
    if (base.kind === 'power' && isNatural(base.exponent) && isNatural(exponent)) {
      return reducePower(base.base, multiplyNumbers(base.exponent as NumberTree, exponent))
    }
    if (base.kind === 'call' && isNatural(exponent)) {
      // √u³ is u^(3/2), ∛u² is u^(2/3); √u² stays, since u alone has values below 0.
      const { n } = exponent.exact
      const [u] = base.args as [Tree]
      if (base.name === 'sqrt' && n % 2n === 1n) return reducePower(u, exactly(rational(n, 2n)))
      if (base.name === 'cbrt') return reducePower(u, exactly(rational(n, 3n)))
    }
    if (base.kind === 'quotient' && isNumber(base.below) && !isZero(base.below)) {
      const below = isNatural(exponent) ? foldPower(base.below, exponent.exact) : null
      if (below) return reduceQuotient(reducePower(base.above, exponent), below)
    }
    const [coefficient, rest] = splitCoefficient(base)
    if (!isOne(coefficient) && !isNumber(base)) {
      const folded = foldPower(coefficient, exponent.exact)
      if (folded) return withCoefficient(folded, reducePower(rest, exponent))
    }
  }
  const fraction = literalFraction(exponent)
  if (fraction && fraction.n < 0n && base.kind !== 'constant' && !isZero(base)) {
    return quotient(whole(1), reducePower(base, exactly(rational(-fraction.n, fraction.d))))
  }
  if (fraction && base.kind === 'power' && isNatural(base.exponent)) {
    return rootOfPower(base.base, (base.exponent as NumberTree).exact.n, fraction)
  }
  return power(base, exponent)
}

/**
 * (u^m)^(p/q) as one power. For an odd q the real root keeps the sign; for an even q an even m
 * leaves |u| (√(u²) is |u|), an odd m the same domain u ≥ 0.
 */
function rootOfPower(u: Tree, m: bigint, { n: p, d: q }: Rational): Tree {
  const joined = exactly(rational(m * p, q))
  const even = q % 2n === 0n && m % 2n === 0n
  const signless = isWhole(joined.exact) && joined.exact.n % 2n === 0n
  return reducePower(even && !signless ? call('abs', u) : u, joined)
}

function foldPower(base: NumberTree, exponent: Rational): NumberTree | null {
  const size = toNumber(exponent)
  if (isZero(base) && size < 0) return null
  const digits = base.exact.n.toString().length + base.exact.d.toString().length
  if (digits * Math.abs(size) > foldedDigits) return null
  return exactly(powerRational(base.exact, size), base.decimal)
}

function reduceCall(tree: Tree & { kind: 'call' }): Tree {
  const [first] = tree.args
  if (!first) return tree
  const entry = maybeEntry(tree.name)
  const exact = entry?.exact?.(first)
  if (exact) return exact
  if (isZero(first) && entry?.atZero !== undefined) return whole(entry.atZero)
  if (tree.name === 'sqrt') {
    // √(x²) is |x|; √9 is 3.
    if (first.kind === 'power' && isNatural(first.exponent)) {
      const { n } = (first.exponent as NumberTree).exact
      if (n % 2n === 0n) return rootOfPower(first.base, n, rational(1n, 2n))
    }
    if (isNumber(first) && first.exact.n > 0n) {
      const [n, d] = [wholeRoot(first.exact.n), wholeRoot(first.exact.d)]
      if (n !== null && d !== null) return exactly(rational(n, d), first.decimal)
    }
  }
  if (tree.name === 'cbrt' && first.kind === 'power' && isNatural(first.exponent)) {
    const { n } = (first.exponent as NumberTree).exact
    if (n % 3n === 0n) return rootOfPower(first.base, n, rational(1n, 3n))
  }
  if (tree.name === 'abs' && isNumber(first)) {
    return first.exact.n < 0n ? multiplyNumbers(first, whole(-1)) : first
  }
  return tree
}

/** The whole square root of n, or null where it is not whole. */
function wholeRoot(n: bigint): bigint | null {
  const near = Math.round(Math.sqrt(Number(n)))
  // Beyond doubles the root is no number anyone would read.
  if (!Number.isFinite(near)) return null
  const guess = BigInt(near)
  return guess * guess === n ? guess : null
}

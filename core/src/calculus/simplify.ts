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
} from '../language/rational'
import {
  call,
  exactly,
  equalsNumber,
  isNumber,
  isOne,
  isZero,
  keyOf,
  literalFraction,
  mapChildren,
  type NumberTree,
  power,
  product,
  quotient,
  splitCoefficient,
  sum,
  type Tree,
  whole,
} from '../language/tree'

/** Powers of numbers are worked out only while they stay readable. */
const foldedDigits = 30

/**
 * Rewrites a tree the way a teacher would leave it: numbers worked out exactly, like terms and
 * powers gathered, number factors in front. Never changes a domain: x/x, √x·√x and 0·ln x stay
 * as they are, since what was not defined somewhere must not become so.
 */
export function simplify(tree: Tree): Tree {
  const done = new Map<Tree, Tree>()
  const visit = (part: Tree): Tree => {
    let result = done.get(part)
    if (!result) {
      result = simplifyNode(mapChildren(part, visit))
      done.set(part, result)
    }
    return result
  }
  return visit(tree)
}

function simplifyNode(tree: Tree): Tree {
  switch (tree.kind) {
    case 'sum':
      return gatherTerms(tree.terms)
    case 'product':
      return gatherFactors(tree.factors)
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
      return totalFunctions.has(tree.name) && tree.args.every(isTotal)
    case 'curve':
    case 'pieces':
      return false
  }
}

const totalFunctions = new Set([
  'sin',
  'cos',
  'arctan',
  'arccot',
  'sinh',
  'cosh',
  'tanh',
  'exp',
  'cbrt',
  'abs',
  'sgn',
  'floor',
  'ceil',
  'min',
  'max',
])

/** Surely above 0 wherever it has a value, and having one everywhere. */
function isPositive(tree: Tree): boolean {
  switch (tree.kind) {
    case 'number':
      return tree.exact.n > 0n
    case 'constant':
      return true
    case 'call':
      return (tree.name === 'exp' || tree.name === 'cosh') && isTotal(tree)
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

const isNeverZero = (tree: Tree) => isPositive(tree) || isPositive(negated(tree))

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
  const expanded = addLikeTerms(
    gathered.kind === 'sum' ? gathered.terms.flatMap(expand) : expand(gathered),
  )
  return termCount(expanded) < before ? expanded : gathered
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
  const gathered = new Map<string, { coefficient: NumberTree; part: Tree }>()
  for (const term of flat) {
    // A term that has vanished must not keep a place for later numbers: 0 + 3.6 cos t - 0.3.
    if (isZero(term)) continue
    const [coefficient, part] = splitTerm(term)
    const key = keyOf(part)
    const known = gathered.get(key)
    if (!known) gathered.set(key, { coefficient, part })
    else {
      known.coefficient = exactly(
        addRational(known.coefficient.exact, coefficient.exact),
        known.coefficient.decimal || coefficient.decimal,
      )
    }
  }
  const kept = [...gathered.values()]
    .filter(({ coefficient, part }) => !(isZero(coefficient) && isTotal(part)))
    .map(({ coefficient, part }) => withCoefficient(coefficient, part))
  if (kept.length === 0) return whole(0)
  const [first, second] = kept
  // 1 - x² reads better than -x² + 1; longer sums keep the order they were written in.
  const turn = kept.length === 2 && isNegative(first!) && !isNegative(second!)
  return turn ? sum(second!, first!) : sum(...kept)
}

const isNegative = (tree: Tree): boolean =>
  tree.kind === 'quotient' ? isNegative(tree.above) : splitCoefficient(tree)[0].exact.n < 0n

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
    if (factor.kind === 'quotient') {
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
  const gathered = new Map<string, { base: Tree; exponent: Tree }>()
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

function asPower(factor: Tree): { base: Tree; exponent: Tree } {
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
  const [topRest, bottomRest] = cancel(top, simplify(below), 0n)
  return reduceQuotient(withCoefficient(p, topRest), bottomRest)
}

/** Cancels every common factor of a formula whose denominators are known not to be 0. */
export function cancelFreely(tree: Tree): Tree {
  const done = mapChildren(tree, cancelFreely)
  return done.kind === 'quotient' ? quotientOfNonzero(done.above, done.below) : done
}

/**
 * Takes common factors out of a quotient as far as the domain stays: x/x² is 1/x, and x²/x stays,
 * because at least one x must remain below. Factors that are never 0 go altogether.
 */
function cancel(top: Tree, bottom: Tree, least = 1n): [Tree, Tree] {
  const above = factorsOf(top)
  const below = factorsOf(bottom)
  for (const [key, over] of above) {
    const under = below.get(key)
    if (!under || !isNumber(over.exponent) || !isNumber(under.exponent)) continue
    if (!isTotal(over.base)) continue
    const [a, b] = [over.exponent.exact, under.exponent.exact]
    if (!isWhole(a) || !isWhole(b) || a.n <= 0n || b.n <= 0n) continue
    const keepBelow = isNeverZero(over.base) ? 0n : least
    const common = [a.n, b.n - keepBelow].reduce((m, v) => (v < m ? v : m))
    if (common <= 0n) continue
    over.exponent = whole(a.n - common)
    under.exponent = whole(b.n - common)
  }
  const build = (factors: Map<string, { base: Tree; exponent: Tree }>) =>
    multiplyFactors([...factors.values()].map(({ base, exponent }) => reducePower(base, exponent)))
  return [build(above), build(below)]
}

function factorsOf(tree: Tree): Map<string, { base: Tree; exponent: Tree }> {
  const parts = tree.kind === 'product' ? tree.factors : [tree]
  const factors = new Map<string, { base: Tree; exponent: Tree }>()
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
    const [coefficient, rest] = splitCoefficient(base)
    if (!isOne(coefficient) && !isNumber(base)) {
      const folded = foldPower(coefficient, exponent.exact)
      if (folded) return withCoefficient(folded, reducePower(rest, exponent))
    }
  }
  return power(base, exponent)
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
  if (tree.name === 'ln' && first.kind === 'constant' && first.name === 'e') return whole(1)
  if (tree.name === 'ln' && isOne(first)) return whole(0)
  if (isZero(first)) {
    if (
      ['sin', 'tan', 'arcsin', 'arctan', 'sinh', 'tanh', 'sqrt', 'cbrt', 'abs', 'sgn'].includes(
        tree.name,
      )
    ) {
      return whole(0)
    }
    if (['cos', 'sec', 'cosh', 'exp'].includes(tree.name)) return whole(1)
  }
  if (tree.name === 'sqrt') {
    // √(x²) is |x|; √9 is 3.
    if (first.kind === 'power' && equalsNumber(first.exponent, 2)) return call('abs', first.base)
    if (isNumber(first) && first.exact.n > 0n) {
      const [n, d] = [wholeRoot(first.exact.n), wholeRoot(first.exact.d)]
      if (n !== null && d !== null) return exactly(rational(n, d), first.decimal)
    }
  }
  if (tree.name === 'abs' && isNumber(first)) {
    return first.exact.n < 0n ? multiplyNumbers(first, whole(-1)) : first
  }
  return tree
}

/** The whole square root of n, or null where it is not whole. */
function wholeRoot(n: bigint): bigint | null {
  const guess = BigInt(Math.round(Math.sqrt(Number(n))))
  return guess * guess === n ? guess : null
}

import { again } from './again'
import { type FunctionName, maybeEntry, severalOrNull } from '../functions'
import {
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
  exactly,
  equalsNumber,
  isNumber,
  isOne,
  isZero,
  keyOf,
  literalFraction,
  type NumberTree,
  power,
  product,
  quotient,
  splitCoefficient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'

/** Powers of numbers are worked out only while they stay readable. */
const foldedDigits = 30

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
    case 'area':
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

export const multiplyNumbers = (a: NumberTree, b: NumberTree): NumberTree =>
  exactly(multiplyRational(a.exact, b.exact), a.decimal || b.decimal)

/** A number factor in front of a part that has none. */
export function withCoefficient(coefficient: NumberTree, part: Tree): Tree {
  if (isOne(coefficient)) return part
  if (isNumber(part)) return multiplyNumbers(coefficient, part)
  if (isZero(coefficient) && isTotal(part)) return whole(0)
  const [own, rest] = splitCoefficient(part)
  if (!isOne(own)) return withCoefficient(multiplyNumbers(coefficient, own), rest)
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

/** The place of a factor in a product: numbers, then letters, then functions, then sums. */
function rank(tree: Tree): number {
  if (tree.kind === 'number') return 0
  if (tree.kind === 'constant') return 1
  if (tree.kind === 'name') return 2
  if (tree.kind === 'power') return rank(tree.base) === 1 ? 3.5 : rank(tree.base) + 0.1
  if (tree.kind === 'call' || tree.kind === 'curve') return 4
  return 3
}

export function gatherFactors(factors: readonly Tree[]): Tree {
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

export function multiplyFactors(factors: readonly Tree[]): Tree {
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
      known.exponent = again.simplify(sum(known.exponent, exponent))
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
  const onlySum = sorted.length === 1 && sorted[0]!.kind === 'sum' ? sorted[0] : null
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

export const isNatural = (tree: Tree) => isNumber(tree) && isWhole(tree.exact) && tree.exact.n > 0n

/** x²·x³ is x⁵; √x·√x is not x, since it has no value for x < 0. */
const mayAddExponents = (base: Tree, a: Tree, b: Tree) =>
  isPositive(base) ? isTotal(a) && isTotal(b) : isNatural(a) && isNatural(b)

export function reduceQuotient(above: Tree, below: Tree): Tree {
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

/**
 * Takes common factors out of a quotient as far as the domain stays: x/x² is 1/x, and x²/x stays,
 * because at least one x must remain below. Factors that are never 0 go altogether.
 */
export function cancel(
  top: Tree,
  bottom: Tree,
  least: (base: Tree) => bigint = () => 1n,
): [Tree, Tree] {
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

export interface Factor {
  base: Tree
  exponent: Tree
}

export const rebuilt = (factors: ReadonlyMap<string, Factor>): Tree[] =>
  [...factors.values()].map(({ base, exponent }) => reducePower(base, exponent))

export function factorsOf(tree: Tree): Map<string, Factor> {
  const parts = tree.kind === 'product' ? tree.factors : [tree]
  const factors = new Map<string, Factor>()
  parts.forEach((part, i) => {
    const { base, exponent } = asPower(part)
    const key = keyOf(base)
    factors.set(factors.has(key) ? `${key}#${i}` : key, { base, exponent })
  })
  return factors
}

export function reducePower(base: Tree, exponent: Tree): Tree {
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
export function rootOfPower(u: Tree, m: bigint, { n: p, d: q }: Rational): Tree {
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

import { again } from './again'
import { maybeEntry } from '../functions'
import { writtenOut } from '../functions/writtenOut'
import { rational } from '../arithmetic/rational'
import {
  childrenOf,
  exactly,
  isNumber,
  isZero,
  keyOf,
  mapChildren,
  type NumberTree,
  pieces,
  product,
  quotient,
  splitCoefficient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'
import { gatherTerms } from './sums'
import {
  cancel,
  factorsOf,
  gatherFactors,
  isNatural,
  multiplyNumbers,
  reducePower,
  reduceQuotient,
  rootOfPower,
  withCoefficient,
} from './products'

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

again.simplify = simplify

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

import { greatestCommonDivisor, type Rational, rational } from '../../arithmetic/rational'
import {
  call,
  childrenOf,
  constant,
  countParts,
  dependsOn,
  exactly,
  isZero,
  keyOf,
  mapChildren,
  name,
  negate,
  power,
  product,
  quotient,
  sum,
  type Tree,
  whole,
} from '../../formula/tree'
import { maybeEntry } from '../../functions'
import { substitute } from '../curves'
import { differentiate } from '../differentiate'
import { polynomialCoefficients } from '../expandPolynomials'
import { cancelFreely, simplify } from '../simplify'
import { bare, nextLetter, rationalOf, type Search } from './search'

/** Formulas with more parts than this are not searched for an inner function. */
const largestSearched = 80

/** ∫ g(u) u′ dx = G(u): an inner function u whose slope is a factor of the rest. */
export function bySubstitution(tree: Tree, search: Search): Tree | null {
  const letter = nextLetter(search)
  if (!letter || countParts(tree) > largestSearched) return null
  for (const u of innerParts(tree, search)) {
    const slope = simplify(bare(differentiate(u, search.variable)))
    if (isZero(slope)) continue
    const rest = withLetter(without(tree, slope), u, letter)
    if (dependsOn(rest, search.variable)) continue
    const found = search.integrate(rest, { ...search, variable: letter })
    if (found) return substitute(found, letter, u)
  }
  return null
}

/** A formula over one of its factors. */
function without(tree: Tree, factor: Tree): Tree {
  if (tree.kind === 'quotient' && keyOf(tree.above) === keyOf(factor)) {
    return quotient(whole(1), tree.below)
  }
  return cancelFreely(simplify(quotient(tree, factor)))
}

/** Parts that stand inside another one and are no straight function, each once. */
function innerParts(tree: Tree, search: Search): Tree[] {
  const found = new Map<string, Tree>()
  const visit = (part: Tree) => {
    const polynomial = polynomialCoefficients(part, search.variable)
    const isPlain =
      !dependsOn(part, search.variable) || (polynomial !== null && polynomial.length < 3)
    const fits = part.kind === 'sum' || part.kind === 'call' || part.kind === 'power'
    if (!isPlain && fits && part !== tree) found.set(keyOf(part), part)
    childrenOf(part).forEach(visit)
  }
  visit(tree)
  return [...found.values()]
}

/** The formula with the letter for an inner function, and for whole powers of it: x⁴ is u² for u = x². */
function withLetter(tree: Tree, u: Tree, letter: string): Tree {
  const key = keyOf(u)
  const own = u.kind === 'power' ? rationalOf(u.exponent) : null
  const visit = (part: Tree): Tree => {
    if (keyOf(part) === key) return name(letter)
    if (own && u.kind === 'power' && part.kind === 'power' && keyOf(part.base) === keyOf(u.base)) {
      const times = rationalOf(part.exponent)
      const ratio = times && rational(times.n * own.d, times.d * own.n)
      if (ratio?.d === 1n) return power(name(letter), exactly(ratio))
    }
    return mapChildren(part, visit)
  }
  return visit(tree)
}

/**
 * A formula in which the variable stands under roots of one straight argument: u is the root of the
 * common order, x = (uⁿ − b)/m. Null where there is no such root, or more than one argument.
 */
export function byRoot(tree: Tree, search: Search): Tree | null {
  const letter = nextLetter(search)
  if (!letter || countParts(tree) > largestSearched) return null
  const orders: bigint[] = []
  let inner: Tree | null = null
  const visit = (part: Tree): boolean => {
    const root = rootIn(part)
    if (root && dependsOn(root.of, search.variable)) {
      if (inner && keyOf(inner) !== keyOf(root.of)) return false
      inner = root.of
      orders.push(root.share.d)
      return true
    }
    return childrenOf(part).every(visit)
  }
  if (!visit(tree) || !inner) return null
  const line = polynomialCoefficients(inner, search.variable)
  if (line?.length !== 2) return null
  const order = orders.reduce((m, d) => (m / greatestCommonDivisor(m, d)) * d, 1n)
  if (order > 12n) return null
  const u = name(letter)
  const [b, m] = line as [Rational, Rational]
  const x = quotient(sum(power(u, whole(order)), exactly({ n: -b.n, d: b.d })), exactly(m))
  const swapped = (part: Tree): Tree => {
    const root = rootIn(part)
    if (root && keyOf(root.of) === keyOf(inner!)) {
      return power(u, exactly(rational(root.share.n * order, root.share.d)))
    }
    if (part.kind === 'name' && part.name === search.variable) return x
    return mapChildren(part, swapped)
  }
  const run = quotient(product(whole(order), power(u, whole(order - 1n))), exactly(m))
  const found = search.integrate(cancelFreely(simplify(product(swapped(tree), run))), {
    ...search,
    variable: letter,
  })
  return found && substitute(found, letter, rootOfOrder(inner, order))
}

function rootOfOrder(inner: Tree, order: bigint): Tree {
  if (order === 2n) return call('sqrt', inner)
  if (order === 3n) return call('cbrt', inner)
  return power(inner, quotient(whole(1), whole(order)))
}

/** √u, ³√u or u to a broken power: what stands under it, and the power. */
function rootIn(part: Tree): { of: Tree; share: Rational } | null {
  const order = part.kind === 'call' ? maybeEntry(part.name)?.root : undefined
  if (order && part.kind === 'call') return { of: part.args[0]!, share: rational(1n, order) }
  const share = part.kind === 'power' ? rationalOf(part.exponent) : null
  return share && share.d > 1n && part.kind === 'power' ? { of: part.base, share } : null
}

/**
 * A formula of exponentials whose rates are whole multiples of one: u = e^(r x), dx = du/(r u). With
 * hyperbolic functions as the exponentials they are.
 */
export function byExponential(tree: Tree, search: Search): Tree | null {
  const letter = nextLetter(search)
  if (!letter || countParts(tree) > largestSearched) return null
  const plain = simplify(inExponentials(tree))
  const rates: Rational[] = []
  const visit = (part: Tree): boolean => {
    const exponent = exponentOfE(part)
    if (!exponent || !dependsOn(exponent, search.variable)) return childrenOf(part).every(visit)
    const line = polynomialCoefficients(exponent, search.variable)
    if (line?.length !== 2) return false
    rates.push(line[1]!)
    return true
  }
  if (!visit(plain) || rates.length === 0) return null
  const d = rates.reduce((m, r) => (m / greatestCommonDivisor(m, r.d)) * r.d, 1n)
  const n = rates.reduce((g, r) => greatestCommonDivisor(g, r.n * (d / r.d)), 0n)
  const rate = rational(n, d)
  const u = name(letter)
  const swapped = (part: Tree): Tree => {
    const exponent = exponentOfE(part)
    const line = exponent && polynomialCoefficients(exponent, search.variable)
    if (line?.length !== 2) return mapChildren(part, swapped)
    const times = exactly(rational(line[1]!.n * rate.d, line[1]!.d * rate.n))
    const front = line[0]!.n === 0n ? [] : [power(constant('e'), exactly(line[0]!))]
    return product(...front, power(u, times))
  }
  const inside = swapped(plain)
  if (dependsOn(inside, search.variable)) return null
  const found = search.integrate(
    cancelFreely(simplify(quotient(inside, product(exactly(rate), u)))),
    {
      ...search,
      variable: letter,
    },
  )
  return (
    found &&
    substitute(found, letter, power(constant('e'), product(exactly(rate), name(search.variable))))
  )
}

function exponentOfE(part: Tree): Tree | null {
  if (part.kind === 'call' && part.name === 'exp') return part.args[0]!
  const isE = part.kind === 'power' && part.base.kind === 'constant' && part.base.name === 'e'
  return isE ? part.exponent : null
}

/** sinh, cosh and tanh by what they are made of. */
function inExponentials(tree: Tree): Tree {
  const done = mapChildren(tree, inExponentials)
  if (done.kind !== 'call') return done
  const u = done.args[0]!
  const [grows, falls] = [power(constant('e'), u), power(constant('e'), negate(u))]
  const [difference, total] = [sum(grows, negate(falls)), sum(grows, falls)]
  switch (done.name) {
    case 'sinh':
      return quotient(difference, whole(2))
    case 'cosh':
      return quotient(total, whole(2))
    case 'tanh':
      return quotient(difference, total)
    default:
      return done
  }
}

/** A formula of ln x beside powers of x: x = e^u, dx = e^u du. */
export function byLogarithm(tree: Tree, search: Search): Tree | null {
  const letter = nextLetter(search)
  if (!letter || countParts(tree) > largestSearched) return null
  const own = name(search.variable)
  const log = keyOf(call('ln', own))
  let present = false
  const u = name(letter)
  const swapped = (part: Tree): Tree => {
    if (keyOf(part) === log) {
      present = true
      return u
    }
    if (part.kind === 'name' && part.name === search.variable) return power(constant('e'), u)
    const root = rootIn(part)
    const share = root?.share ?? (part.kind === 'power' ? rationalOf(part.exponent) : null)
    const base = root?.of ?? (part.kind === 'power' ? part.base : null)
    if (share && base && keyOf(base) === keyOf(own)) {
      return power(constant('e'), product(exactly(share), u))
    }
    return mapChildren(part, swapped)
  }
  const inside = swapped(tree)
  if (!present) return null
  const found = search.integrate(simplify(product(inside, power(constant('e'), u))), {
    ...search,
    variable: letter,
  })
  if (!found) return null
  const back = (part: Tree): Tree => {
    const exponent = exponentOfE(part)
    const line = exponent && polynomialCoefficients(exponent, letter)
    if (line?.length === 2 && line[0]!.n === 0n) return power(own, exactly(line[1]!))
    return part.kind === 'name' && part.name === letter ? call('ln', own) : mapChildren(part, back)
  }
  return back(simplify(found))
}

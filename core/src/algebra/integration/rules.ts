import {
  addRational,
  divideRational,
  isWhole,
  negateRational,
  type Rational,
  rational,
} from '../../arithmetic/rational'
import { maybeEntry } from '../../functions'
import {
  call,
  constant,
  dependsOn,
  exactly,
  isNumber,
  name,
  negate,
  power,
  product,
  quotient,
  sum,
  type Tree,
  whole,
} from '../../formula/tree'
import { substitute } from '../curves'
import { byPowers, polynomialCoefficients } from '../expandPolynomials'
import { simplify } from '../simplify'
import { byDifferentiating, exponentialWave, highestDegree, polynomialTimes } from './byParts'
import { ofFraction } from './fractions'
import { ofQuadraticRoot } from './quadraticRoots'
import { factorsApart, rationalOf, type Search, straight } from './search'
import { byExponential, byLogarithm, byRoot, bySubstitution } from './substitutions'
import { byTangent, ofTangents, wavesApart } from './waves'

/** A rule takes a formula that depends on the variable, and answers with null where it does not fit. */
type Rule = (tree: Tree, search: Search) => Tree | null

/** From the plainest to the longest: what comes first gives the shorter forms. */
const rules: readonly Rule[] = [
  ofPolynomial,
  bySides,
  ofOne,
  ofQuadraticRoot,
  ofProduct,
  ofQuotient,
  ofTangents,
  bySubstitution,
  byDifferentiating,
  ofFraction,
  ofTurned,
  (tree, search) => {
    const apart = wavesApart(tree, search)
    return apart && search.integrate(apart, search)
  },
  multipliedOut,
  byLogarithm,
  byRoot,
  byExponential,
  byTangent,
]

/** The first rule that has an answer. */
export function byRules(tree: Tree, search: Search): Tree | null {
  if (!dependsOn(tree, search.variable)) return product(tree, name(search.variable))
  const { fixed, moving } = factorsApart(tree, search)
  const rest = fixed.length > 0 ? product(whole(1), ...moving) : tree
  for (const rule of rules) {
    const found = rule(fixed.length > 0 ? simplify(rest) : tree, search)
    if (found) return fixed.length > 0 ? product(...fixed, found) : found
  }
  return null
}

function ofPolynomial(tree: Tree, { variable }: Search): Tree | null {
  const coefficients = polynomialCoefficients(tree, variable)
  if (!coefficients) return null
  const next = coefficients.map((c, k) => divideRational(c, rational(BigInt(k + 1))))
  return byPowers([rational(0n), ...next], variable)
}

/** Sums term by term. */
function bySides(tree: Tree, search: Search): Tree | null {
  if (tree.kind !== 'sum') return null
  const terms = tree.terms.map((term) => search.integrate(term, search))
  return terms.every((t) => t !== null) ? sum(...terms) : null
}

/** One factor that is no product: each rule with the slope of its straight argument below it. */
function ofOne(tree: Tree, search: Search): Tree | null {
  if (tree.kind === 'power') {
    const { base, exponent } = tree
    if (!dependsOn(base, search.variable)) {
      const slope = straight(exponent, search)
      const isE = base.kind === 'constant' && base.name === 'e'
      return slope && quotient(tree, isE ? slope : product(slope, call('ln', base)))
    }
    const fraction = rationalOf(exponent)
    const slope = straight(base, search)
    if (!fraction || !slope) return null
    if (fraction.n === -fraction.d) return quotient(call('ln', call('abs', base)), slope)
    const next = rational(fraction.n + fraction.d, fraction.d)
    const below = product(slope, exactly(next))
    return next.n < 0n
      ? quotient(whole(1), product(below, power(base, exactly(negateRational(next)))))
      : quotient(power(base, exactly(next)), below)
  }
  if (tree.kind !== 'call' || tree.args.length !== 1) return null
  const inner = tree.args[0]!
  const slope = straight(inner, search)
  if (!slope) return null
  const found = maybeEntry(tree.name)?.antiderivative
  return found ? quotient(found(inner), slope) : null
}

/** A polynomial and one part, and what else products have rules of their own for. */
function ofProduct(tree: Tree, search: Search): Tree | null {
  if (tree.kind !== 'product') return null
  const { factors } = tree
  const others = factors.filter((f) => !polynomialCoefficients(f, search.variable))
  const [g] = others
  if (g && others.length === 1) {
    const p = product(whole(1), ...factors.filter((f) => f !== g))
    const degree = polynomialCoefficients(p, search.variable)?.length ?? Infinity
    const rooted = degree <= highestDegree + 1 ? polynomialTimesRoot(p, g, search) : null
    if (rooted) return rooted
  }
  return exponentialWave(factors, search) ?? polynomialTimes(factors, search)
}

/** The root of a straight argument in a power, √u or ³√u, with its exponent; null for another part. */
function rootOf(g: Tree, search: Search): { inner: Tree; exponent: Rational } | null {
  const asPower = g.kind === 'power' ? rationalOf(g.exponent) : null
  const inner = g.kind === 'power' ? g.base : g.kind === 'call' ? g.args[0]! : null
  const order = g.kind === 'call' ? maybeEntry(g.name)?.root : undefined
  const exponent = asPower ?? (order ? rational(1n, order) : null)
  return exponent && !isWhole(exponent) && inner && straight(inner, search)
    ? { inner, exponent }
    : null
}

const letter = 'p*'
/** ∫ p(x) u^r dx for u = m x + b: p by powers of u, each of which is integrated with the root. */
function polynomialTimesRoot(p: Tree, g: Tree, search: Search): Tree | null {
  const root = rootOf(g, search)
  const line = root && polynomialCoefficients(root.inner, search.variable)
  if (!root || line?.length !== 2) return null
  const [b, m] = line as [Rational, Rational]
  const x = quotient(sum(name(letter), exactly(negateRational(b))), exactly(m))
  const byU = polynomialCoefficients(simplify(substitute(p, search.variable, x)), letter)
  if (!byU) return null
  const terms = byU.map((c, k) => {
    const next = addRational(root.exponent, rational(BigInt(k + 1)))
    if (next.n === 0n) return null
    const factor = divideRational(divideRational(c, next), m)
    return product(exactly(factor), power(root.inner, whole(k + 1)), g)
  })
  return terms.every((t) => t !== null) ? sum(whole(0), ...terms) : null
}

function ofQuotient(tree: Tree, search: Search): Tree | null {
  if (tree.kind !== 'quotient') return null
  const { above, below } = tree
  const { variable } = search
  if (!dependsOn(below, variable)) {
    const found = search.integrate(above, search)
    return found && quotient(found, below)
  }
  const found = dependsOn(above, variable) ? null : reciprocal(below, search)
  if (found) return product(above, found)
  const root = rootOf(below, search)
  const turned = root && power(root.inner, exactly(negateRational(root.exponent)))
  return (
    overMonomial(above, below, search) ?? (turned && polynomialTimesRoot(above, turned, search))
  )
}

/** A quotient over an exponential, a power of x, or a power of a cosine, as a product of what they are over 1. */
function ofTurned(tree: Tree, search: Search): Tree | null {
  if (tree.kind !== 'quotient') return null
  const { above, below } = tree
  const parts = below.kind === 'product' ? below.factors : [below]
  const turned = parts.map((part) => over1(part, search))
  if (!turned.every((one) => one !== null)) return null
  return search.integrate(simplify(product(above, ...turned)), search)
}

const overCircular = { cos: 'sec', sin: 'csc', tan: 'cot' } as const

function over1(part: Tree, search: Search): Tree | null {
  const { base, exponent } =
    part.kind === 'power' ? part : { base: part, exponent: whole(1) as Tree }
  if (base.kind === 'constant') return power(base, negate(exponent))
  if (base.kind !== 'call' || !straight(base.args[0]!, search)) return null
  if (base.name === 'exp') return power(constant('e'), negate(product(base.args[0]!, exponent)))
  return base.name in overCircular && isNumber(exponent)
    ? power(call(overCircular[base.name as keyof typeof overCircular], base.args[0]!), exponent)
    : null
}

/** 1/u of a straight u, a power or root of one, 1/e^u. */
function reciprocal(below: Tree, search: Search): Tree | null {
  const { fixed, moving } = factorsApart(below, search)
  const slope = fixed.length === 0 ? straight(below, search) : null
  if (slope) return quotient(call('ln', call('abs', below)), slope)
  if (fixed.length > 0 && moving.length > 0) {
    const found = search.integrate(simplify(quotient(whole(1), product(...moving))), search)
    return found && quotient(found, product(whole(1), ...fixed))
  }
  if (below.kind === 'power') {
    const { base, exponent } = below
    if (!dependsOn(base, search.variable)) return ofOne(power(base, negate(exponent)), search)
    const fraction = rationalOf(exponent)
    return fraction && ofOne(power(base, exactly(negateRational(fraction))), search)
  }
  if (below.kind === 'call' && below.name === 'exp') {
    return ofOne(call('exp', negate(below.args[0]!)), search)
  }
  if (below.kind === 'call' && below.name === 'sqrt') {
    return ofOne(power(below.args[0]!, exactly(rational(-1n, 2n))), search)
  }
  return null
}

/** Sums over a power or root of the variable, term by term. */
function overMonomial(above: Tree, below: Tree, search: Search): Tree | null {
  const coefficients = polynomialCoefficients(above, search.variable)
  const x = name(search.variable)
  const isX = (tree: Tree) => tree.kind === 'name' && tree.name === search.variable
  const degree = isX(below)
    ? rational(1n)
    : below.kind === 'power' && isX(below.base)
      ? rationalOf(below.exponent)
      : below.kind === 'call' && isX(below.args[0]!) && maybeEntry(below.name)?.root
        ? rational(1n, maybeEntry(below.name)!.root)
        : null
  if (!coefficients || !degree) return null
  const terms = coefficients.flatMap((c, k): (Tree | null)[] => {
    if (c.n === 0n) return []
    const exponent = rational(BigInt(k) * degree.d - degree.n, degree.d)
    if (exponent.n === 0n) return [product(exactly(c), x)]
    const part = ofOne(power(x, exactly(exponent)), search)
    return [part && product(exactly(c), part)]
  })
  return terms.every((t) => t !== null) ? sum(whole(0), ...terms) : null
}

/** Powers multiplied out up to this one. */
const mostMultiplied = 6

/** A product with a sum in it, a whole power of one, or a sum over one denominator, term by term. */
function multipliedOut(tree: Tree, search: Search): Tree | null {
  const factors = tree.kind === 'product' ? tree.factors : [tree]
  if (tree.kind === 'quotient' && tree.above.kind === 'sum') {
    return bySides(
      sum(...tree.above.terms.map((term) => simplify(quotient(term, tree.below)))),
      search,
    )
  }
  const flat = factors.flatMap((factor): Tree[] => {
    const times =
      factor.kind === 'power' && factor.base.kind === 'sum' ? rationalOf(factor.exponent) : null
    return factor.kind === 'power' && times?.d === 1n && times.n > 1n && times.n <= mostMultiplied
      ? Array.from({ length: Number(times.n) }, () => factor.base)
      : [factor]
  })
  if (!flat.some((f) => f.kind === 'sum')) return null
  const terms = flat.reduce<Tree[][]>(
    (all, factor) =>
      factor.kind === 'sum'
        ? all.flatMap((one) => factor.terms.map((term) => [...one, term]))
        : all.map((one) => [...one, factor]),
    [[]],
  )
  if (terms.length > 60) return null
  return bySides(sum(...terms.map((one) => simplify(product(whole(1), ...one)))), search)
}

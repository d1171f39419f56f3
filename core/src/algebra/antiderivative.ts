import { maybeEntry } from '../functions'
import {
  addRational,
  divideRational,
  isWhole,
  negateRational,
  type Rational,
  rational,
} from '../arithmetic/rational'
import {
  call,
  childrenOf,
  countParts,
  dependsOn,
  exactly,
  isNumber,
  isZero,
  keyOf,
  literalFraction,
  mapChildren,
  name,
  negate,
  power,
  product,
  quotient,
  splitCoefficient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'
import { substitute } from './curves'
import { differentiate } from './differentiate'
import { polynomialCoefficients } from './expandPolynomials'
import { cancelFreely, simplify } from './simplify'

/** A polynomial of a higher degree in front of e^x or sin x is left alone. */
const highestDegree = 12

/**
 * A function whose derivative is the given formula, or null where the table below has no rule for
 * one of its terms: powers, roots, exponentials, sines, cosines and logarithms of a straight
 * argument, 1/(c + k x²) and 1/√(c - k x²), polynomials in front of these, polynomials times a root of a straight argument, any of these of an inner function whose
 * slope is a factor, and sums of all that.
 * Logarithms take the size of their argument, so that the answer holds on both sides of a pole and
 * not across it. Source of the rules: NIST Digital Library of Mathematical Functions, sections 4.10
 * and 4.26 (from memory); the tests differentiate what comes out.
 */
export function antiderivative(tree: Tree, variable: string): Tree | null {
  const search: Search = { variable, open: new Set(), steps: { left: mostSteps } }
  const found = integrated(cancelFreely(simplify(tree)), search)
  return found && simplify(cancelFreely(found))
}

/** One question for an antiderivative, with what keeps its rules from calling each other without end. */
interface Search {
  variable: string
  /** What is being integrated at the moment, but for a constant factor, by its key. */
  open: Set<string>
  steps: { left: number }
}
/** More steps than this no antiderivative of the table takes. */
const mostSteps = 400

/** A rule that comes back to what it was asked for, or has been busy for long, has no answer. */
function integrated(tree: Tree, search: Search): Tree | null {
  const key = `${search.variable} ${keyOf(splitCoefficient(tree)[1])}`
  if (search.open.has(key) || search.steps.left <= 0) return null
  search.steps.left -= 1
  search.open.add(key)
  const found = byRules(tree, search)
  search.open.delete(key)
  return found
}

function byRules(tree: Tree, search: Search): Tree | null {
  if (!dependsOn(tree, search.variable)) return product(tree, name(search.variable))
  const coefficients = polynomialCoefficients(tree, search.variable)
  if (coefficients) {
    const terms = coefficients.flatMap((c, k): Tree[] =>
      c.n === 0n
        ? []
        : [
            product(
              exactly(divideRational(c, rational(BigInt(k + 1)))),
              power(name(search.variable), whole(k + 1)),
            ),
          ],
    )
    return sum(whole(0), ...terms)
  }
  switch (tree.kind) {
    case 'sum': {
      const terms = tree.terms.map((term) => integrated(term, search))
      return terms.every((t) => t !== null) ? sum(...terms) : null
    }
    case 'product':
      return ofFactors(tree.factors, search) ?? bySubstitution(tree, search)
    case 'quotient':
      return ofQuotient(tree.above, tree.below, search) ?? bySubstitution(tree, search)
    case 'power':
    case 'call':
      return ofOne(tree, search)
    default:
      return null
  }
}

/** Formulas with more parts than this are not searched for an inner function. */
const largestSearched = 80
/** What an inner function is called while it stands for a letter; no formula has such a name. */
const letter = 'u*'

/** ∫ g(u) u′ dx = G(u): an inner function u whose slope is a factor of the rest. */
function bySubstitution(tree: Tree, search: Search): Tree | null {
  if (search.variable === letter || countParts(tree) > largestSearched) return null
  for (const u of innerParts(tree, search)) {
    const slope = simplify(bare(differentiate(u, search.variable)))
    if (isZero(slope)) continue
    const rest = replaced(without(tree, slope), keyOf(u))
    if (dependsOn(rest, search.variable)) continue
    const found = integrated(rest, { ...search, variable: letter })
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

/** 1/x for "1/x if x > 0": where f has a value, what it needs for one holds. */
const bare = (tree: Tree): Tree =>
  tree.kind === 'pieces' && tree.pieces.length === 1
    ? bare(tree.pieces[0]!.body)
    : mapChildren(tree, bare)

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

const replaced = (tree: Tree, key: string): Tree =>
  keyOf(tree) === key ? name(letter) : mapChildren(tree, (part) => replaced(part, key))

/** An exponent that is a number; a quotient of whole numbers means the real root. */
const rationalOf = (exponent: Tree): Rational | null =>
  isNumber(exponent) ? exponent.exact : literalFraction(exponent)

/** The slope of a straight argument as a formula without the variable, or null. */
function straight(tree: Tree, search: Search): Tree | null {
  const slope = simplify(differentiate(tree, search.variable))
  return dependsOn(slope, search.variable) || isZero(slope) ? null : slope
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
    const squared = isNumber(exponent) && exponent.exact.n === 2n && isWhole(exponent.exact)
    if (squared && base.kind === 'call') return squareOf(base, search)
    const fraction = rationalOf(exponent)
    const slope = straight(base, search)
    if (!fraction || !slope) return null
    if (fraction.n === -fraction.d) return quotient(call('ln', call('abs', base)), slope)
    const next = exactly(rational(fraction.n + fraction.d, fraction.d))
    return quotient(power(base, next), product(slope, next))
  }
  if (tree.kind !== 'call' || tree.args.length !== 1) return null
  const inner = tree.args[0]!
  const slope = straight(inner, search)
  if (!slope) return null
  const found = maybeEntry(tree.name)?.antiderivative
  return found ? quotient(found(inner), slope) : null
}

/** sin² u = (1 - cos 2u)/2 and cos² u = (1 + cos 2u)/2. */
function squareOf(base: Tree & { kind: 'call' }, search: Search): Tree | null {
  if (base.name !== 'sin' && base.name !== 'cos') return null
  const inner = base.args[0]!
  const double = call('cos', product(whole(2), inner))
  const half = quotient(base.name === 'sin' ? negate(double) : double, whole(2))
  return integrated(sum(exactly(rational(1n, 2n)), half), search)
}

/** Constants go in front; what is left is one part, or a polynomial and one part. */
function ofFactors(factors: readonly Tree[], search: Search): Tree | null {
  const fixed = factors.filter((f) => !dependsOn(f, search.variable))
  const moving = factors.filter((f) => dependsOn(f, search.variable))
  const found = moving.length === 1 ? byRules(moving[0]!, search) : polynomialTimes(moving, search)
  return found && product(...fixed, found)
}

/** ∫ p g = p G - ∫ p′ G, as often as the degree of p asks for. */
function polynomialTimes(factors: readonly Tree[], search: Search): Tree | null {
  const others = factors.filter((f) => !polynomialCoefficients(f, search.variable))
  const [g] = others
  if (!g || others.length > 1) return null
  const polynomials = factors.filter((f) => f !== g)
  let p: Tree = product(whole(1), ...polynomials)
  const degree = (polynomialCoefficients(p, search.variable)?.length ?? Infinity) - 1
  if (degree > highestDegree) return null
  const rooted = polynomialTimesRoot(p, g, search)
  if (rooted) return rooted
  // A logarithm is differentiated instead: ∫ p ln u = P ln u - ∫ P u′/u.
  if (g.kind === 'call' && g.name === 'ln') return polynomialTimesLog(p, g, search)
  const terms: Tree[] = []
  let part: Tree = g
  for (let k = 0; k <= degree; k++) {
    const next = integrated(simplify(part), search)
    if (!next) return null
    part = next
    terms.push(k % 2 === 0 ? product(p, part) : negate(product(p, part)))
    p = simplify(differentiate(p, search.variable))
  }
  return sum(whole(0), ...terms)
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
    const factor = divideRational(divideRational(c, next), m)
    return product(exactly(factor), power(root.inner, whole(k + 1)), g)
  })
  return sum(whole(0), ...terms)
}

function polynomialTimesLog(p: Tree, g: Tree & { kind: 'call' }, search: Search): Tree | null {
  const raised = integrated(p, search)
  const inner = g.args[0]!
  const slope = straight(inner, search)
  if (!raised || !slope) return null
  const rest = integrated(cancelFreely(simplify(product(raised, quotient(slope, inner)))), search)
  return rest && sum(product(raised, g), negate(rest))
}

function ofQuotient(above: Tree, below: Tree, search: Search): Tree | null {
  if (!dependsOn(below, search.variable)) {
    const found = integrated(above, search)
    return found && quotient(found, below)
  }
  if (!dependsOn(above, search.variable)) {
    const found = reciprocal(below, search)
    return found && product(above, found)
  }
  const root = rootOf(below, search)
  const turned = root && power(root.inner, exactly(negateRational(root.exponent)))
  return (
    overMonomial(above, below, search) ?? (turned && polynomialTimesRoot(above, turned, search))
  )
}

/** 1/u of a straight u, a power or root of one, 1/(c + k x²), 1/√(c - k x²), 1/cos² u, 1/e^u. */
function reciprocal(below: Tree, search: Search): Tree | null {
  const slope = straight(below, search)
  if (slope) return quotient(call('ln', call('abs', below)), slope)
  if (below.kind === 'product') {
    const fixed = below.factors.filter((f) => !dependsOn(f, search.variable))
    const [moving, ...more] = below.factors.filter((f) => dependsOn(f, search.variable))
    const found =
      moving && more.length === 0 && fixed.length > 0 ? reciprocal(moving, search) : null
    return found && quotient(found, product(whole(1), ...fixed))
  }
  if (below.kind === 'power') {
    const { base, exponent } = below
    if (!dependsOn(base, search.variable)) return ofOne(power(base, negate(exponent)), search)
    const fraction = rationalOf(exponent)
    if (fraction && base.kind === 'call' && base.name === 'cos' && fraction.n === 2n * fraction.d) {
      const inner = straight(base.args[0]!, search)
      return inner && quotient(call('tan', base.args[0]!), inner)
    }
    return fraction && ofOne(power(base, exactly(negateRational(fraction))), search)
  }
  if (below.kind === 'call' && below.name === 'exp') {
    return ofOne(call('exp', negate(below.args[0]!)), search)
  }
  if (below.kind === 'call' && below.name === 'sqrt') {
    const inner = below.args[0]!
    if (straight(inner, search)) return ofOne(power(inner, exactly(rational(-1n, 2n))), search)
    const round = squares(inner, search)
    if (!round || round.c.n <= 0n || round.k.n >= 0n) return null
    // 1/√(c - k x²): arcsin(x √(k/c))/√k.
    const k = exactly(negateRational(round.k))
    const scale = call('sqrt', quotient(k, exactly(round.c)))
    return quotient(call('arcsin', product(name(search.variable), scale)), call('sqrt', k))
  }
  const round = squares(below, search)
  if (!round || round.c.n <= 0n || round.k.n <= 0n) return null
  // 1/(c + k x²): arctan(x √(k/c))/√(k c).
  const [c, k] = [exactly(round.c), exactly(round.k)]
  const scale = call('sqrt', quotient(k, c))
  return quotient(
    call('arctan', product(name(search.variable), scale)),
    call('sqrt', product(k, c)),
  )
}

/** c and k of c + k x², or null. */
function squares(tree: Tree, search: Search) {
  const all = polynomialCoefficients(tree, search.variable)
  return all && all.length === 3 && all[1]!.n === 0n ? { c: all[0]!, k: all[2]! } : null
}

/** A polynomial over a power or root of the variable, term by term. */
function overMonomial(above: Tree, below: Tree, search: Search): Tree | null {
  const coefficients = polynomialCoefficients(above, search.variable)
  const x = name(search.variable)
  const isX = (tree: Tree) => tree.kind === 'name' && tree.name === search.variable
  const degree = isX(below)
    ? rational(1n)
    : below.kind === 'power' && isX(below.base)
      ? rationalOf(below.exponent)
      : below.kind === 'call' && below.name === 'sqrt' && isX(below.args[0]!)
        ? rational(1n, 2n)
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

import { divideRational, multiplyRational, type Rational, rational } from '../arithmetic/rational'
import {
  call,
  constant,
  exactly,
  keyOf,
  mapChildren,
  name,
  namesIn,
  negate,
  power,
  product,
  quotient,
  splitCoefficient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'
import { compileTree } from '../evaluate/compile'
import { polynomialCoefficients } from './expandPolynomials'
import { withRootsOut } from './numberRoots'
import { simplify } from './simplify'

/**
 * Puts the values of sines, cosines and tangents of π/6, π/4, π/3 and their multiples, the arcs that
 * lead back to these, and ln(e^r) in place of the calls, and simplifies; what has no such value
 * stays. Source: the table every text on trigonometry has (common practice, no source).
 */
export function withKnownValues(tree: Tree): Tree {
  let found = tree
  // What was put together may hold a root below a line, a square of one, or another known value.
  for (let round = 0; round < mostRounds; round++) {
    const next = simplify(visit(found))
    if (keyOf(next) === keyOf(found)) return next
    found = next
  }
  return found
}
const mostRounds = 6

const visited = new WeakMap<Tree, Tree>()

/** Trees share their parts: each is looked at once. */
function visit(tree: Tree): Tree {
  let found = visited.get(tree)
  if (!found) visited.set(tree, (found = visitAnew(tree)))
  return found
}

function visitAnew(tree: Tree): Tree {
  const done = withRootsOut(mapChildren(tree, visit))
  if (done.kind === 'product') return productOfNumbers(done)
  if (done.kind === 'sum') return sum(...done.terms.flatMap(termsOver))
  if (done.kind === 'power') return raisedExponential(done) ?? done
  if (done.kind !== 'call' || done.args.length !== 1) return done
  const inner = simplify(done.args[0]!)
  switch (done.name) {
    case 'sin':
    case 'cos':
    case 'tan': {
      const turn = shareOfPi(inner)
      return (turn && atShare(done.name, turn)) ?? done
    }
    case 'sec':
    case 'csc':
    case 'cot': {
      const turn = shareOfPi(inner)
      return (turn && overKnown(done.name, turn)) ?? done
    }
    case 'arcsin':
    case 'arctan':
      return arcs[done.name].get(keyOf(inner)) ?? done
    case 'arccos': {
      const arc = arcs.arcsin.get(keyOf(inner))
      return arc ? simplify(sum(ofPi(1n, 2n), negate(arc))) : done
    }
    case 'abs': {
      if (namesIn(inner).size > 0) return done
      const [lo, hi] = compileTree(inner).enclose(0, 0)
      return lo > 0 ? inner : hi < 0 ? negate(inner) : done
    }
    case 'ln':
      return exponentOfE(inner) ?? lnOfNumber(inner) ?? lnOfRoot(inner) ?? done
    default:
      return done
  }
}

/** 0 times a number is 0; and a root taken into a sum of numbers, so that like terms come together. */
function productOfNumbers(tree: Tree & { kind: 'product' }): Tree {
  if (namesIn(tree).size > 0) return tree
  const value = compileTree(tree).value(0)
  if (tree.factors.some((f) => f.kind === 'number' && f.exact.n === 0n) && Number.isFinite(value)) {
    return whole(0)
  }
  const sums = tree.factors.filter((f) => f.kind === 'sum')
  const rest = tree.factors.filter((f) => f.kind !== 'sum')
  const [one] = sums
  if (sums.length !== 1 || one?.kind !== 'sum' || !rest.every(isPlainRoot)) return tree
  return sum(...one.terms.map((term) => withRootsOut(simplify(product(...rest, term)))))
}
/** (a + b)/2 within a sum as a/2 + b/2, so that like terms come together. */
const termsOver = (term: Tree): readonly Tree[] =>
  term.kind === 'quotient' &&
  term.above.kind === 'sum' &&
  term.below.kind === 'number' &&
  namesIn(term).size === 0
    ? term.above.terms.map((one) => quotient(one, term.below))
    : [term]

const isPlainRoot = (tree: Tree) =>
  tree.kind === 'number' || (tree.kind === 'call' && tree.name === 'sqrt')

/** e^(ln u) is u, and e^(2 ln 3) is 9. */
function raisedExponential(tree: Tree): Tree | null {
  if (tree.kind !== 'power') return null
  const { base, exponent } = tree
  if (base.kind !== 'constant' || base.name !== 'e') return null
  if (exponent.kind === 'sum' && exponent.terms.some((t) => raisedExponential(power(base, t)))) {
    return product(
      ...exponent.terms.map((t) => raisedExponential(power(base, t)) ?? power(base, t)),
    )
  }
  const [above, below] =
    exponent.kind === 'quotient' && exponent.below.kind === 'number'
      ? [exponent.above, exponent.below.exact]
      : [exponent, rational(1n)]
  const [coefficient, log] = splitCoefficient(above)
  if (log.kind !== 'call' || log.name !== 'ln' || below.n === 0n) return null
  const [inside] = log.args as [Tree]
  if (namesIn(inside).size > 0 || !(compileTree(inside).enclose(0, 0)[0] > 0)) return null
  return power(inside, exactly(divideRational(coefficient.exact, below)))
}

/** sec, csc and cot of a share of π, by sines and cosines. */
function overKnown(which: 'sec' | 'csc' | 'cot', turn: Rational): Tree | null {
  const below = atShare(which === 'sec' ? 'cos' : 'sin', turn)
  const above = which === 'cot' ? atShare('cos', turn) : whole(1)
  if (!above || !below || (below.kind === 'number' && below.exact.n === 0n)) return null
  return quotient(above, below)
}

/** r of r·π, or null. */
function shareOfPi(tree: Tree): Rational | null {
  const letter = 'p'
  const swap = (part: Tree): Tree =>
    part.kind === 'constant' && part.name === 'pi' ? name(letter) : mapChildren(part, swap)
  if (tree.kind === 'name') return null
  const found = polynomialCoefficients(swap(tree), letter)
  if (!found || found.length > 2 || (found[0] && found[0].n !== 0n)) return null
  return found[1] ?? rational(0n)
}

const half = (root: bigint) =>
  root === 1n ? exactly(rational(1n, 2n)) : quotient(call('sqrt', whole(root)), whole(2))
/** sin of 0, π/6, π/4, π/3 and π/2, by twelfths of π. */
const firstSines = new Map<bigint, Tree>([
  [0n, whole(0)],
  [2n, half(1n)],
  [3n, half(2n)],
  [4n, half(3n)],
  [6n, whole(1)],
])

function sineAt(twelfths: bigint): Tree | null {
  const k = ((twelfths % 24n) + 24n) % 24n
  if (k > 12n) {
    const mirrored = sineAt(k - 12n)
    return mirrored && negate(mirrored)
  }
  return firstSines.get(k > 6n ? 12n - k : k) ?? null
}

function atShare(which: 'sin' | 'cos' | 'tan', share: Rational): Tree | null {
  const twelfths = multiplyRational(share, rational(12n))
  if (twelfths.d !== 1n) return null
  const [sine, cosine] = [sineAt(twelfths.n), sineAt(twelfths.n + 6n)]
  if (which === 'sin') return sine
  if (which === 'cos') return cosine
  if (!sine || !cosine || (cosine.kind === 'number' && cosine.exact.n === 0n)) return null
  // tan π/6 is 1/√3, written √3/3.
  const root = call('sqrt', whole(3))
  const k = ((twelfths.n % 12n) + 12n) % 12n
  const first: Record<string, Tree> = {
    0: whole(0),
    2: quotient(root, whole(3)),
    3: whole(1),
    4: root,
  }
  return k > 6n ? negate(first[String(12n - k)]!) : first[String(k)]!
}

const ofPi = (n: bigint, d: bigint) => simplify(product(exactly(rational(n, d)), constant('pi')))
const both = (value: Tree, n: bigint, d: bigint): [string, Tree][] => [
  [keyOf(simplify(value)), ofPi(n, d)],
  [keyOf(simplify(negate(value))), ofPi(-n, d)],
]
const root3 = call('sqrt', whole(3))
const arcs = {
  arcsin: new Map([
    ...both(half(1n), 1n, 6n),
    ...both(half(2n), 1n, 4n),
    ...both(half(3n), 1n, 3n),
    ...both(whole(1), 1n, 2n),
  ]),
  arctan: new Map([
    ...both(quotient(root3, whole(3)), 1n, 6n),
    ...both(quotient(whole(1), root3), 1n, 6n),
    ...both(whole(1), 1n, 4n),
    ...both(root3, 1n, 3n),
  ]),
}

/** r of e^r with a number r, or null. */
function exponentOfE(tree: Tree): Tree | null {
  const { base, exponent } =
    tree.kind === 'power' ? tree : { base: tree, exponent: whole(1) as Tree }
  if (base.kind === 'constant' && base.name === 'e' && namesIn(exponent).size === 0) return exponent
  const reciprocal =
    tree.kind === 'quotient' &&
    tree.above.kind === 'number' &&
    tree.above.exact.n === tree.above.exact.d
      ? exponentOfE(tree.below)
      : null
  return reciprocal && negate(reciprocal)
}

/** ln 4 as 2 ln 2 and ln(1/3) as −ln 3, so that logarithms come together; null for the rest. */
function lnOfNumber(tree: Tree): Tree | null {
  const { n, d } = tree.kind === 'number' ? tree.exact : { n: 0n, d: 1n }
  if (n <= 0n || (d === 1n && rootOf(n)[1] === 1)) return null
  const ln = (amount: bigint): Tree => {
    const [base, exponent] = rootOf(amount)
    return product(whole(exponent), call('ln', whole(base)))
  }
  return d === 1n ? ln(n) : n === 1n ? negate(ln(d)) : sum(ln(n), negate(ln(d)))
}

/** ln √3 as ln(3)/2, and the logarithm of a power as a multiple of that of its base. */
function lnOfRoot(tree: Tree): Tree | null {
  if (tree.kind === 'call' && (tree.name === 'sqrt' || tree.name === 'cbrt')) {
    return quotient(call('ln', tree.args[0]!), whole(tree.name === 'sqrt' ? 2 : 3))
  }
  const [coefficient, root] =
    tree.kind === 'quotient' ? splitCoefficient(tree.above) : splitCoefficient(tree)
  const below = tree.kind === 'quotient' ? tree.below : whole(1)
  if (
    isPlainRoot(root) &&
    root.kind === 'call' &&
    below.kind === 'number' &&
    coefficient.exact.n > 0n
  ) {
    return sum(call('ln', root), call('ln', coefficient), negate(call('ln', below)))
  }
  if (tree.kind !== 'power' || tree.exponent.kind !== 'number') return null
  const { base, exponent } = tree
  const isPositive = namesIn(base).size === 0 && compileTree(base).enclose(0, 0)[0] > 0
  return isPositive ? product(exponent, call('ln', base)) : null
}

const largestRooted = 1_000_000n
/** The smallest base of which a number is a whole power: 8 is 2³, 12 is 12¹. */
function rootOf(number: bigint): [base: bigint, exponent: number] {
  if (number < 4n || number > largestRooted) return [number, 1]
  for (let base = 2n; base * base <= number; base++) {
    let [power, exponent] = [base, 1]
    while (power < number) [power, exponent] = [power * base, exponent + 1]
    if (power === number) return [base, exponent]
  }
  return [number, 1]
}

import { type Interval } from '../../arithmetic/intervals'
import { rational } from '../../arithmetic/rational'
import {
  call,
  childrenOf,
  constant,
  countParts,
  dependsOn,
  exactly,
  isNumber,
  isZero,
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
} from '../../formula/tree'
import { compileTree } from '../../evaluate/compile'
import { substitute } from '../curves'
import { differentiate } from '../differentiate'
import { bare } from '../integration/search'
import { withKnownValues } from '../knownValues'
import { fractionOfPolynomials, type Polynomial } from '../polynomials'
import { factorsOf } from '../products'
import { cancelFreely, simplify } from '../simplify'
import { trigFactors } from '../trigPolynomial'
import { functionsIn, letter, shareOf, withLetter } from './inOneFunction'
import { polynomialRoots, rootsOfOrder } from './polynomialRoots'
import { withoutRoot } from './rootPairs'

/** Formulas with more parts than this are left to their digits. */
const largest = 120
/** Ways of solving within each other. */
const deepest = 6

/** One equation: the letter it is solved for, and about where the zero in question lies. */
interface Question {
  variable: string
  near: number
  depth: number
}

/**
 * The zero of a formula that lies in an enclosure, as a number with fractions, roots, π, e, logarithms
 * and arcs; null where none of the rules of a first course leads to one. The enclosure must hold one
 * zero alone: then a number that the rules lead to, and that lies in it, is that zero.
 */
export function exactZero(tree: Tree, variable: string, enclosure: Interval): Tree | null {
  const known = found.get(tree)
  const key = `${variable} ${enclosure.lo} ${enclosure.hi}`
  const kept = known?.get(key)
  if (kept !== undefined) return kept
  const zero = zeroIn(tree, variable, enclosure)
  if (known) known.set(key, zero)
  else found.set(tree, new Map([[key, zero]]))
  return zero
}

const found = new WeakMap<Tree, Map<string, Tree | null>>()
/** What a formula is read as; a curve may have hundreds of places that are asked for. */
const plainOf = new WeakMap<Tree, Tree>()

function zeroIn(tree: Tree, variable: string, { lo, hi }: Interval): Tree | null {
  const near = lo + (hi - lo) / 2
  const width = Math.max(hi - lo, Math.abs(near) * 1e-15)
  if (!Number.isFinite(near) || width > 1e-7 * Math.max(1, Math.abs(near))) return null
  if (countParts(tree) > largest) return null
  let plain = plainOf.get(tree)
  if (!plain) plainOf.set(tree, (plain = cancelFreely(simplify(bare(tree)))))
  const lies = (candidate: Tree) => {
    const [a, b] = compileTree(candidate).enclose(0, 0)
    return a <= hi + 4 * width && b >= lo - 4 * width && b - a < 1e-9 * Math.max(1, Math.abs(near))
  }
  for (const candidate of zeros(plain, { variable, near, depth: 0 })) {
    if (namesIn(candidate).size > 0 || !lies(candidate)) continue
    const worked = withKnownValues(candidate)
    return lies(worked) ? worked : candidate
  }
  return null
}

/** Numbers among which a zero near the place is likely to be. */
function* zeros(tree: Tree, question: Question): Generator<Tree> {
  const { variable, depth } = question
  if (depth > deepest || !dependsOn(tree, variable)) return
  if (tree.kind === 'product') {
    for (const factor of tree.factors) yield* zeros(factor, question)
    return
  }
  if (tree.kind === 'quotient') {
    yield* zeros(tree.above, question)
    return
  }
  if (tree.kind === 'power' && !dependsOn(tree.exponent, variable)) {
    yield* zeros(tree.base, question)
    return
  }
  const read = fractionOfPolynomials(tree, variable)
  if (read) {
    yield* fromPolynomial(read.above)
    return
  }
  const common = commonFactor(tree, variable)
  if (common) {
    const inner = { ...question, depth: depth + 1 }
    for (const part of common) yield* zeros(part, inner)
    return
  }
  yield* shareOfPi(tree, question)
  yield* isolated(tree, whole(0), question)
  yield* linear(tree, question)
  yield* joinedLogarithms(tree, question)
  yield* twoExponentials(tree, question)
  yield* inOneFunction(tree, question)
  const squared = withoutRoot(tree, variable)
  if (squared) yield* fromPolynomial(squared)
  yield* inHalfTangent(tree, question)
}

const fromPolynomial = (p: Polynomial): Tree[] => (p.length > 1 ? polynomialRoots(p) : [])

/** A factor that all terms of a sum share, and what is left of the sum; null where there is none. */
function commonFactor(tree: Tree, variable: string): [Tree, Tree] | null {
  if (tree.kind !== 'sum') return null
  const all = tree.terms.map((t) => factorsOf(t.kind === 'quotient' ? t.above : t))
  for (const [key, { base }] of all[0]!) {
    // What stands there to a whole power grows less by being divided out.
    const isWhole = (factors: ReturnType<typeof factorsOf>) => {
      const exponent = factors.get(key)?.exponent
      return exponent !== undefined && isNumber(exponent) && exponent.exact.d === 1n
    }
    if (!dependsOn(base, variable) || !all.every(isWhole)) continue
    const rest = tree.terms.map((term) => cancelFreely(simplify(quotient(term, base))))
    return [base, simplify(sum(...rest))]
  }
  return null
}

/** A multiple of π/12 at which the formula is exactly 0. */
function* shareOfPi(tree: Tree, { variable, near }: Question): Generator<Tree> {
  if (!hasCircular(tree)) return
  const twelfths = Math.round((near * 12) / Math.PI)
  if (Math.abs((twelfths * Math.PI) / 12 - near) > 1e-9 * Math.max(1, Math.abs(near))) return
  const place = simplify(product(exactly(rational(BigInt(twelfths), 12n)), constant('pi')))
  if (isZero(withKnownValues(substitute(tree, variable, place)))) yield place
}

const circularNames = ['sin', 'cos', 'tan', 'sec', 'csc', 'cot']
const hasCircular = (tree: Tree): boolean =>
  (tree.kind === 'call' && circularNames.includes(tree.name)) || childrenOf(tree).some(hasCircular)

/** Where a formula takes a value: what stands around the variable is undone from outside in. */
function* isolated(tree: Tree, target: Tree, question: Question): Generator<Tree> {
  const { variable } = question
  const inner = { ...question, depth: question.depth + 1 }
  switch (tree.kind) {
    case 'name':
      if (tree.name === variable) yield simplify(target)
      return
    case 'sum': {
      const moving = tree.terms.filter((t) => dependsOn(t, variable))
      if (moving.length !== 1) {
        if (!isZero(target)) yield* zeros(simplify(sum(tree, negate(target))), inner)
        return
      }
      const rest = tree.terms.filter((t) => t !== moving[0])
      yield* isolated(moving[0]!, simplify(sum(target, ...rest.map(negate))), inner)
      return
    }
    case 'product': {
      const moving = tree.factors.filter((f) => dependsOn(f, variable))
      const rest = tree.factors.filter((f) => !dependsOn(f, variable))
      if (moving.length !== 1) {
        if (!isZero(target)) yield* zeros(simplify(sum(tree, negate(target))), inner)
        return
      }
      yield* isolated(moving[0]!, simplify(quotient(target, product(whole(1), ...rest))), inner)
      return
    }
    case 'quotient':
      if (!dependsOn(tree.below, variable)) {
        yield* isolated(tree.above, simplify(product(target, tree.below)), inner)
      } else if (!dependsOn(tree.above, variable)) {
        if (!isZero(target)) {
          yield* isolated(tree.below, simplify(quotient(tree.above, target)), inner)
        }
      } else {
        const above = sum(tree.above, negate(product(target, tree.below)))
        yield* zeros(simplify(above), inner)
      }
      return
    case 'power':
      yield* undonePower(tree, target, inner)
      return
    case 'call':
      if (tree.args.length === 1) yield* undoneCall(tree, target, inner)
      return
    default:
      return
  }
}

function* undonePower(
  { base, exponent }: Tree & { kind: 'power' },
  target: Tree,
  question: Question,
): Generator<Tree> {
  if (!dependsOn(base, question.variable)) {
    const log = call('ln', target)
    const isE = base.kind === 'constant' && base.name === 'e'
    yield* isolated(exponent, isE ? log : quotient(log, call('ln', base)), question)
    return
  }
  const share = shareOf(exponent)
  if (!share || share.n === 0n) return
  // u^(p/q) = c: u is a p-th root of c^q.
  const raised = withKnownValues(power(target, whole(share.d)))
  const order = Number(share.n < 0n ? -share.n : share.n)
  if (order > 12) return
  const radicand = share.n < 0n ? simplify(quotient(whole(1), raised)) : raised
  for (const value of rootsOfOrder(radicand, order)) yield* isolated(base, value, question)
}

function* undoneCall(
  { name: which, args: [inner] }: Tree & { kind: 'call' },
  target: Tree,
  question: Question,
): Generator<Tree> {
  const u = inner!
  const at = compileTree(u, { variable: question.variable }).value(question.near)
  const turned = (arc: Tree, period: number) => {
    const first = compileTree(withKnownValues(arc)).value(0)
    const times = Math.round((at - first) / period)
    // The arc of what no sine reaches is none, and leads nowhere.
    if (!Number.isFinite(times)) return arc
    const share = period > 4 ? 2 * times : times
    return times === 0 ? arc : sum(arc, product(whole(share), constant('pi')))
  }
  const answers = (): Tree[] => {
    const [pi, turn, half] = [constant('pi'), 2 * Math.PI, Math.PI]
    switch (which) {
      case 'sin': {
        const arc = call('arcsin', target)
        return [turned(arc, turn), turned(sum(pi, negate(arc)), turn)]
      }
      case 'cos': {
        const arc = call('arccos', target)
        return [turned(arc, turn), turned(negate(arc), turn)]
      }
      case 'tan':
        return [turned(call('arctan', target), half)]
      case 'cot':
        return [turned(call('arctan', quotient(whole(1), target)), half)]
      case 'sec':
      case 'csc': {
        const arc = call(which === 'sec' ? 'arccos' : 'arcsin', quotient(whole(1), target))
        const other = which === 'sec' ? negate(arc) : sum(pi, negate(arc))
        return [turned(arc, turn), turned(other, turn)]
      }
      case 'exp':
        return [call('ln', target)]
      case 'ln':
        return [power(constant('e'), target)]
      case 'log':
        return [power(whole(10), target)]
      case 'sqrt':
        return [power(target, whole(2))]
      case 'cbrt':
        return [power(target, whole(3))]
      case 'abs':
        return [target, negate(target)]
      case 'arcsin':
        return [call('sin', target)]
      case 'arccos':
        return [call('cos', target)]
      case 'arctan':
        return [call('tan', target)]
      default:
        return []
    }
  }
  for (const answer of answers()) {
    yield* isolated(u, withKnownValues(answer), question)
  }
}

/** a x + b with numbers a and b that need not be fractions. */
function* linear(tree: Tree, { variable }: Question): Generator<Tree> {
  const slope = differentiate(tree, variable)
  if (dependsOn(slope, variable) || isZero(slope)) return
  const at = simplify(substitute(tree, variable, whole(0)))
  yield simplify(quotient(negate(at), slope))
}

/** Logarithms with whole factors and a number: together they are the logarithm of a product. */
function* joinedLogarithms(tree: Tree, question: Question): Generator<Tree> {
  if (tree.kind !== 'sum') return
  const { variable } = question
  const moving = tree.terms.filter((t) => dependsOn(t, variable))
  const rest = tree.terms.filter((t) => !dependsOn(t, variable))
  const factors = moving.map((term): Tree | null => {
    const [coefficient, log] = splitCoefficient(term)
    const isLog = log.kind === 'call' && log.name === 'ln' && coefficient.exact.d === 1n
    return isLog ? power(log.args[0]!, coefficient) : null
  })
  if (moving.length < 2 || !factors.every((f) => f !== null)) return
  const other = withKnownValues(power(constant('e'), sum(whole(0), ...rest.map(negate))))
  const inner = { ...question, depth: question.depth + 1 }
  yield* zeros(cancelFreely(simplify(sum(product(...factors), negate(other)))), inner)
}

/** a·b^u + c·d^v: the logarithms of both sides are equal. */
function* twoExponentials(tree: Tree, question: Question): Generator<Tree> {
  if (tree.kind !== 'sum' || tree.terms.length !== 2) return
  const { variable } = question
  const sides = tree.terms.map((term) => {
    const factors = term.kind === 'product' ? term.factors : [term]
    const fixed = factors.filter((f) => !dependsOn(f, variable))
    const [one, more] = factors.filter((f) => dependsOn(f, variable))
    if (!one || more || one.kind !== 'power' || dependsOn(one.base, variable)) return null
    const isE = one.base.kind === 'constant' && one.base.name === 'e'
    const log = isE ? one.exponent : product(one.exponent, call('ln', one.base))
    return { front: product(whole(1), ...fixed), log }
  })
  const [left, right] = sides
  if (!left || !right) return
  const ratio = withKnownValues(call('ln', simplify(quotient(negate(right.front), left.front))))
  const inner = { ...question, depth: question.depth + 1 }
  yield* zeros(simplify(sum(left.log, negate(right.log), negate(ratio))), inner)
}

/** A formula in which the variable stands in one function alone, e^x, √x or sin x, and in its powers. */
function* inOneFunction(tree: Tree, question: Question): Generator<Tree> {
  const inner = { ...question, depth: question.depth + 1 }
  for (const u of functionsIn(tree, question.variable)) {
    const swapped = withLetter(tree, u, question.variable)
    if (!swapped || dependsOn(swapped, question.variable)) continue
    const value = compileTree(u, { variable: question.variable }).value(question.near)
    for (const root of zeros(cancelFreely(simplify(swapped)), {
      variable: letter,
      near: value,
      depth: question.depth + 1,
    })) {
      // The others lead to other zeros.
      const size = Math.max(1, Math.abs(value))
      if (Math.abs(compileTree(root).value(0) - value) > 1e-7 * size) continue
      yield* isolated(u, withKnownValues(root), inner)
    }
  }
}

/** Sines and cosines of multiples of one angle: by factors in the sine and cosine of half of it. */
function* inHalfTangent(tree: Tree, question: Question): Generator<Tree> {
  const factors = trigFactors(tree)
  if (!factors) return
  const inner = { ...question, depth: question.depth + 2 }
  for (const { tree: factor } of factors) {
    const half = halfAngleOf(factor)
    if (!half) continue
    const [sine, cosine] = [keyOf(call('sin', half)), keyOf(call('cos', half))]
    const z = name(letter)
    const swap = (part: Tree): Tree =>
      keyOf(part) === sine ? z : keyOf(part) === cosine ? whole(1) : mapChildren(part, swap)
    const read = fractionOfPolynomials(simplify(swap(factor)), letter)
    const tangent = call('tan', half)
    for (const root of read ? fromPolynomial(read.above) : []) {
      yield* isolated(tangent, root, inner)
    }
    if (keyOf(factor) === cosine) yield* isolated(factor, whole(0), inner)
  }
}

function halfAngleOf(tree: Tree): Tree | null {
  if (tree.kind === 'call') return tree.args[0]!
  for (const part of childrenOf(tree)) {
    const found = halfAngleOf(part)
    if (found) return found
  }
  return null
}

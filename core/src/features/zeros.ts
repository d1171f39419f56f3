import { asQuotient } from '../algebra/asQuotient'
import { simplify } from '../algebra/simplify'
import { maybeEntry } from '../functions'
import { toNumber } from '../arithmetic/rational'
import { commonFactor } from '../algebra/commonFactors'
import { signByValue } from './sign'
import { trigFactors } from '../algebra/trigPolynomial'
import { type BoxCode, compileBoxes } from '../evaluate/enclosures'
import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import {
  call,
  childrenOf,
  constant,
  countParts,
  dependsOn,
  isNumber,
  isZero,
  literalFraction,
  negate,
  quotient,
  splitCoefficient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'
import { rootsBetween, squareFreeParts, toRationalFunction } from '../algebra/polynomials'

/** A zero with what is known of it. */
export interface Zero {
  enclosure: Interval
  /** How often it counts, where that is proven; null for a zero that is not settled. */
  multiplicity: number | null
  proven: boolean
}

export interface ZeroSearch {
  zeros: Zero[]
  /** Stretches that could not be settled. */
  unresolved: Interval[]
  /** The function is 0 throughout. */
  vanishes: boolean
}

/** Work that can be stopped between two boxes; it yields the share of its budget that is spent. */
export type Steps<R> = Generator<number, R, void>

/** Takes all steps at once. */
export function finish<R>(steps: Steps<R>): R {
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

/**
 * How much work a search may do, shared by all that belongs to one question, in boxes of a short
 * formula; a box of a long one counts for more, as it costs more.
 */
export interface Budget {
  boxes: number
  most: number
  /** What is left over in clusters of boxes, and places where a formula breaks: looked at so far. */
  clusters: number
  joints: number
}
const mostBoxes = 3500
/** So many parts make a short formula; a function with poles, whose boxes cost more, counts for several. */
const partsPerBox = 40
const partsPerBreaking = 8

/** What a box of a formula costs of the budget. */
const boxCost = (tree: Tree) =>
  Math.max(1, (countParts(tree) + partsPerBreaking * countBreaking(tree)) / partsPerBox)

function countBreaking(tree: Tree): number {
  const own = tree.kind === 'call' && maybeEntry(tree.name)?.breaks ? 1 : 0
  return childrenOf(tree).reduce((total, part) => total + countBreaking(part), own)
}

export const budgetOf = (most = mostBoxes): Budget => ({ boxes: 0, most, clusters: 0, joints: 0 })

/** More zeros than this are not listed one by one: what lies closest together stays unresolved. */
const mostZeros = 1000

/** So many units in the last place from an end of the span a place counts as that end. */
export const endSlack = 4
export const ulpOf = (x: number) => I.up(Math.abs(x)) - Math.abs(x)
/** Whether a place may be an end of the span, which is the decimal that its double stands for. */
export const isAtEnd = ({ lo, hi }: Interval, end: number) =>
  lo <= end + endSlack * ulpOf(end) && hi >= end - endSlack * ulpOf(end)

/** A box this narrow, relative to its place, is not split any more: what is left there touches. */
const finest = 2 ** -30

/** Values this small are what a product with an exponential leaves where it has vanished. */
const vanishing = 1e-300

/** A factor that must vanish for the whole to vanish, and how often it stands there. */
interface Factor {
  tree: Tree
  power: number
  /** The same times something positive: it may be finite where the tree overflows. */
  others?: Tree[]
}

const raised = (parts: Factor[], n: number) => parts.map((f) => ({ ...f, power: f.power * n }))

/**
 * The factors of a tree that decide its zeros: products, powers, quotients and common factors of
 * sums are taken apart, so that a zero that touches is found as a simple zero of its factor.
 */
export function zeroFactors(tree: Tree, variable: string): Factor[] {
  const known = taken.get(tree)
  if (known?.variable === variable) return known.factors
  const factors = takenApart(tree, variable)
  taken.set(tree, { variable, factors })
  return factors
}

/** A formula is taken apart once, however many stretches it is searched on. */
const taken = new WeakMap<Tree, { variable: string; factors: Factor[] }>()

function takenApart(tree: Tree, variable: string): Factor[] {
  const factorsOf = (part: Tree) => zeroFactors(part, variable)
  switch (tree.kind) {
    case 'product':
      return tree.factors.flatMap(factorsOf)
    case 'quotient':
      return factorsOf(tree.above)
    case 'power': {
      const { base, exponent } = tree
      if (base.kind === 'constant' || (isNumber(base) && base.exact.n > 0n)) return []
      const fraction = literalFraction(exponent)
      const value = fraction ?? (isNumber(exponent) ? exponent.exact : null)
      // u^v with a moving exponent is e^(v ln u): never 0 where u is not.
      if (!value) return []
      return value.n > 0n ? raised(factorsOf(base), Number(value.n) / Number(value.d)) : []
    }
    case 'call': {
      const [u] = tree.args as [Tree]
      const zero = maybeEntry(tree.name)?.zero
      if (zero === 'never') return []
      if (!zero) return [{ tree, power: 1 }]
      return 'power' in zero ? raised(factorsOf(u), zero.power) : factorsOf(simplify(zero.tree(u)))
    }
    case 'sum':
      return trigFactors(tree) ?? factorsOfSum(tree.terms, variable) ?? [{ tree, power: 1 }]
    default:
      return [{ tree, power: 1 }]
  }
}

/** What a sum's terms have in common, taken out; or a form that shows a touching zero. */
function factorsOfSum(terms: readonly Tree[], variable: string): Factor[] | null {
  const common = commonFactor(terms, variable)
  if (!common) return halfAngle(terms, variable)
  return [
    ...common.shared.flatMap(({ base, exponent }) =>
      exponent.n > 0n ? raised(zeroFactors(base, variable), toNumber(exponent)) : [],
    ),
    ...(common.rests.length === 1
      ? zeroFactors(common.rests[0], variable)
      : [{ tree: common.rests[0], power: 1, others: common.rests.slice(1) }]),
  ]
}

/** What is squared in 1 − cos²u and its like: sin u. */
function complement(tree: Tree): Tree | null {
  if (tree.kind !== 'power' || !isNumber(tree.exponent) || tree.base.kind !== 'call') return null
  if (tree.exponent.exact.n !== 2n || tree.exponent.exact.d !== 1n) return null
  const other = { cos: 'sin', sin: 'cos', sec: 'sin', csc: 'cos' } as const
  const { name, args } = tree.base
  return name in other ? call(other[name as keyof typeof other], args[0]!) : null
}

/** A sum with quotients, brought over one denominator: only what stands above can vanish. */
function overOne(terms: readonly Tree[], variable: string): Factor[] | null {
  const whole = asQuotient(sum(...terms))
  return whole ? zeroFactors(simplify(whole.above), variable) : null
}

/** c ± c·cos u is twice a square of the half angle, and so for the sine; 1 − cos²u is sin²u. */
function halfAngle(terms: readonly Tree[], variable: string): Factor[] | null {
  if (terms.length !== 2) return overOne(terms, variable)
  const number = terms.find(isNumber)
  const other = terms.find((t) => !isNumber(t))
  if (!number || !other || !isNumber(number)) return overOne(terms, variable)
  const [factor, rest] = splitCoefficient(other)
  const ratio = { n: factor.exact.n * number.exact.d, d: factor.exact.d * number.exact.n }
  const plus = ratio.n === ratio.d
  const opposite = ratio.n === -ratio.d
  const squared = opposite ? complement(rest) : null
  if (squared) return [{ tree: squared, power: 2 }]
  const isWave = rest.kind === 'call' && (rest.name === 'cos' || rest.name === 'sin')
  if (!isWave || !(plus || opposite)) return overOne(terms, variable)
  const half = quotient(rest.args[0]!, whole(2))
  const quarter = quotient(constant('pi'), whole(4))
  const inside =
    rest.name === 'cos'
      ? call(plus ? 'cos' : 'sin', half)
      : call('sin', sum(half, plus ? quarter : negate(quarter)))
  return [{ tree: inside, power: 2 }]
}

/**
 * The zeros of a formula in the open stretch (from, to), where it must be smooth and defined. With
 * proof: factors that are polynomials go by exact arithmetic (see polynomials.ts); for others a box
 * whose enclosure excludes 0 holds none, one where the derivative excludes 0 holds at most one and
 * the signs at its ends decide. Zeros are enclosed to a few units in the last place. What cannot be
 * settled (two zeros that touch and are no exact doubles, or what is left when the budget is spent or
 * `most` zeros have been found, the easiest first) is listed in `unresolved`. Source: Moore,
 * Kearfott, Cloud, Introduction to Interval Analysis, SIAM 2009, chapter 8 (from memory).
 */
export function* zerosWithin(
  tree: Tree,
  variable: string,
  from: number,
  to: number,
  budget: Budget,
  most = mostZeros,
): Steps<ZeroSearch> {
  const none: ZeroSearch = { zeros: [], unresolved: [], vanishes: false }
  if (isZero(tree)) return { ...none, vanishes: true }
  const found: Zero[] = []
  const unresolved: Interval[] = []
  for (const { tree: factor, power: times, others = [] } of zeroFactors(tree, variable)) {
    if (!dependsOn(factor, variable)) {
      if (isZero(factor)) return { ...none, vanishes: true }
      continue
    }
    const rational = toRationalFunction(factor, variable)
    if (rational) {
      if (rational.above.length === 0) return { ...none, vanishes: true }
      for (const part of squareFreeParts(rational.above)) {
        for (const enclosure of rootsBetween(part.factor, from, to)) {
          if (isAtEnd(enclosure, from) || isAtEnd(enclosure, to)) continue
          found.push({ enclosure, multiplicity: part.multiplicity * times, proven: true })
        }
      }
      continue
    }
    const searched = yield* searchBoxes(
      [factor, ...others].map((t) => compileBoxes(t, variable)),
      boxCost(factor),
      from,
      to,
      budget,
      most,
    )
    for (const zero of searched.zeros) {
      found.push({
        ...zero,
        multiplicity: zero.multiplicity === null ? null : zero.multiplicity * times,
      })
    }
    unresolved.push(...searched.unresolved)
  }
  return { zeros: mergeZeros(found), unresolved, vanishes: false }
}

/** Two factors may vanish at one place: their zeros are one there. */
function mergeZeros(zeros: Zero[]): Zero[] {
  const sorted = [...zeros].sort((a, b) => a.enclosure.lo - b.enclosure.lo)
  const merged: Zero[] = []
  for (const zero of sorted) {
    const last = merged.at(-1)
    if (!last || last.enclosure.hi < zero.enclosure.lo) {
      merged.push(zero)
      continue
    }
    const isPoint = ({ lo, hi }: Interval) => lo === hi
    const exact = isPoint(last.enclosure) && isPoint(zero.enclosure)
    const sameFactor = last.multiplicity === null || zero.multiplicity === null
    merged[merged.length - 1] = {
      enclosure: I.meet(last.enclosure, zero.enclosure),
      multiplicity: sameFactor ? null : last.multiplicity! + zero.multiplicity!,
      proven: last.proven && zero.proven && exact,
    }
  }
  return merged
}

const isBounded = ({ lo, hi }: Interval) => Number.isFinite(lo) && Number.isFinite(hi)

/** g at a double, as narrow as it gets. */
const valueAt = (code: BoxCode, x: number): Interval | null => {
  const notes = I.noNotes()
  const [value] = code(I.point(x), 1, notes)
  return notes.empty || notes.partial ? null : value!
}

function* searchBoxes(
  codes: readonly BoxCode[],
  /** What a box costs of the budget. */
  cost: number,
  from: number,
  to: number,
  budget: Budget,
  mostFound: number,
): Steps<{ zeros: Zero[]; unresolved: Interval[] }> {
  const [first] = codes as [BoxCode]
  const zeros: Zero[] = []
  const left: Interval[] = []
  const signs = new Map<number, -1 | 0 | 1>()
  const signAt = (x: number) => {
    let sign = signs.get(x)
    if (sign === undefined) {
      const value = valueAt(first, x)
      sign = value ? I.signOf(value) : 0
      for (let k = 1; k < codes.length && sign === 0; k++) sign = signByValue(codes[k]!, x)
      if (sign === 0 && (x === from || x === to) && !(value && value.lo === 0 && value.hi === 0)) {
        // At the very end g may have no value, or vanish but for the rounding of the end: a little
        // way inside, where all still counts as the end, it has its sign.
        for (let ulps = 1; ulps <= endSlack && sign === 0; ulps++) {
          const inside = valueAt(first, x + (x === from ? ulps : -ulps) * ulpOf(x))
          sign = inside ? I.signOf(inside) : 0
        }
      }
      signs.set(x, sign)
    }
    return sign
  }
  const isExactZero = (x: number) => {
    const value = valueAt(first, x)
    return value !== null && value.lo === 0 && value.hi === 0
  }
  const scaleOf = ({ lo, hi }: Interval) =>
    Math.max(Math.abs(lo), Math.abs(hi), Math.min(1, to - from))
  const anchored = anchorsWithin(first, from, to)
  zeros.push(...anchored.zeros)
  // Widest first: where the work must end, all that is easy has been settled everywhere.
  const queue: Interval[] = [...anchored.rest]
  const most = budget.boxes + (budget.most - budget.boxes) / 2
  for (let next = 0; next < queue.length; next++) {
    const box = queue[next]!
    if (budget.boxes >= most || zeros.length >= mostFound) {
      left.push(...queue.slice(next))
      break
    }
    budget.boxes += cost
    yield budget.boxes / budget.most
    const notes = I.noNotes()
    let code = first
    let jet = first(box, 3, notes)
    if (notes.empty) continue
    for (let k = 1; k < codes.length && !jet.every(isBounded); k++) {
      code = codes[k]!
      jet = code(box, 3, notes)
    }
    const range = narrowed(code, box, jet)
    if (!I.holdsZero(range)) continue
    const slope = jet[1]!
    if (slope.lo > 0 || slope.hi < 0) {
      const [a, b] = [signAt(box.lo), signAt(box.hi)]
      if (a * b > 0) continue
      if (a * b < 0) {
        zeros.push({ enclosure: tighten(code, box, slope), multiplicity: 1, proven: true })
        continue
      }
      const edge = a === 0 ? box.lo : box.hi
      const inside = edge > from && edge < to
      if (isExactZero(edge)) {
        if (inside) zeros.push({ enclosure: I.point(edge), multiplicity: 1, proven: true })
        const other = edge === box.lo ? box.hi : box.lo
        if (signAt(other) === 0 && !isExactZero(other)) left.push(box)
        continue
      }
      // A zero at the end of the stretch is not inside it.
      if (!inside && a + b !== 0) continue
      // The zero lies at the edge or a little beyond it: a wider box with certain signs decides.
      const reach = (box.hi - box.lo) / 8
      const wide = {
        lo: a === 0 ? Math.max(from, box.lo - reach) : box.lo,
        hi: b === 0 ? Math.min(to, box.hi + reach) : box.hi,
      }
      const wideSlope = code(wide, 2, I.noNotes())[1]!
      const monotone = wideSlope.lo > 0 || wideSlope.hi < 0
      const product = signAt(wide.lo) * signAt(wide.hi)
      if (monotone && product < 0) {
        zeros.push({ enclosure: tighten(code, wide, wideSlope), multiplicity: 1, proven: true })
      } else if (!monotone || product === 0) {
        const least = finest * scaleOf(box)
        if (box.hi - box.lo <= 2 * least) left.push(box)
        else {
          const near =
            a === 0 ? { lo: box.lo, hi: box.lo + least } : { lo: box.hi - least, hi: box.hi }
          left.push(near)
          queue.push(a === 0 ? { lo: near.hi, hi: box.hi } : { lo: box.lo, hi: near.lo })
        }
      }
      continue
    }
    const width = box.hi - box.lo
    const cut = chooseCut(box, signAt)
    // Where values are as small as doubles get, smaller boxes would not tell more.
    const vanishes = range.lo >= -vanishing && range.hi <= vanishing
    if (vanishes || width <= finest * scaleOf(box) || !(cut > box.lo && cut < box.hi)) {
      left.push(box)
      continue
    }
    queue.push({ lo: box.lo, hi: cut }, { lo: cut, hi: box.hi })
  }
  const unresolved: Interval[] = []
  for (const cluster of clusters(left)) {
    budget.clusters += cost
    if (budget.clusters > mostClustersLooked) {
      unresolved.push(cluster)
      continue
    }
    yield budget.boxes / budget.most
    const settled = settleCluster(first, cluster, from, to, signAt)
    zeros.push(...settled.zeros)
    if (!settled.proven) unresolved.push(cluster)
  }
  return { zeros: dedupe(zeros), unresolved }
}

/** Derivatives up to this order are asked to vanish at an anchor. */
const anchorOrder = 8
/** Whole numbers are tried as anchors on spans up to this length. */
const longestAnchored = 40

/**
 * Places at which g is exactly 0 in floating point (ends of the stretch, whole numbers), with the
 * neighbourhood in which they are the only zeros: where the first m - 1 derivatives are exactly 0
 * at c and the m-th is not 0 on a box, g(x) is (x - c)^m times something that is not 0 there.
 */
function anchorsWithin(
  code: BoxCode,
  from: number,
  to: number,
): { zeros: Zero[]; rest: Interval[] } {
  const wholes =
    to - from <= longestAnchored
      ? Array.from({ length: Math.floor(to) - Math.ceil(from) + 1 }, (_, i) => Math.ceil(from) + i)
      : [0]
  const places = [...new Set([from, ...wholes, to])].filter((c) => c >= from && c <= to)
  const zeros: Zero[] = []
  let rest: Interval[] = [{ lo: from, hi: to }]
  for (const c of places) {
    const first = valueAt(code, c)
    if (!first || first.lo !== 0 || first.hi !== 0) continue
    const at = code(I.point(c), anchorOrder, I.noNotes())
    const m = at.findIndex((v) => v.lo !== 0 || v.hi !== 0)
    if (m < 1 || I.holdsZero(at[m]!)) continue
    for (let reach = Math.min(1, to - from); reach > 1e-14 * Math.max(1, Math.abs(c)); reach /= 2) {
      const box = { lo: Math.max(from, c - reach), hi: Math.min(to, c + reach) }
      if (I.holdsZero(code(box, m + 1, I.noNotes())[m]!)) continue
      if (c > from && c < to) {
        zeros.push({ enclosure: I.point(c), multiplicity: m, proven: true })
      }
      rest = rest.flatMap(({ lo, hi }) =>
        [
          { lo, hi: Math.min(hi, box.lo) },
          { lo: Math.max(lo, box.hi), hi },
        ].filter((part) => part.lo < part.hi),
      )
      break
    }
  }
  return { zeros, rest }
}

/** The range on a box from its jet: plain, mean-value and second-order form together. */
function narrowed(code: BoxCode, box: Interval, jet: Interval[]): Interval {
  const plain = jet[0]!
  if (!I.holdsZero(plain)) return plain
  const m = I.middle(box)
  const notes = I.noNotes()
  const at = code(I.point(m), 2, notes)
  if (notes.empty || notes.partial) return plain
  const run = I.subtract(box, I.point(m))
  const first = I.add(at[0]!, I.multiply(jet[1]!, run))
  const second = I.add(at[0]!, I.add(I.multiply(at[1]!, run), I.multiply(jet[2]!, I.square(run))))
  return I.meet(I.meet(plain, first), second)
}

/** Where to cut a box: near its middle, at a place whose sign is certain where there is one. */
function chooseCut({ lo, hi }: Interval, signAt: (x: number) => number): number {
  for (const share of [0.5, 0.4571, 0.5429, 0.3871]) {
    const cut = lo + share * (hi - lo)
    if (signAt(cut) !== 0) return cut
  }
  return lo + 0.5 * (hi - lo)
}

/** The zero in a box where g is monotone and its ends differ in sign, by Newton and bisection. */
function tighten(code: BoxCode, box: Interval, slope: Interval): Interval {
  let { lo, hi } = box
  const rises = slope.lo > 0
  for (let i = 0; i < 200; i++) {
    const m = lo + (hi - lo) / 2
    if (!(m > lo && m < hi)) break
    const value = valueAt(code, m)
    if (!value) break
    const sign = I.signOf(value) * (rises ? 1 : -1)
    const before = hi - lo
    const here = code({ lo, hi }, 2, I.noNotes())[1]!
    if (here.lo > 0 || here.hi < 0) {
      const newton = I.subtract(I.point(m), I.divide(value, here))
      lo = Math.max(lo, newton.lo)
      hi = Math.min(hi, newton.hi)
    }
    if (sign > 0) hi = Math.min(hi, m)
    else if (sign < 0) lo = Math.max(lo, m)
    else if (value.lo === 0 && value.hi === 0) return I.point(m)
    if (hi - lo >= 0.9 * before && sign === 0) break
  }
  return simplest(code, { lo, hi })
}

/** The double with few digits in an enclosure, where g is exactly 0 there. */
function simplest(code: BoxCode, enclosure: Interval): Interval {
  for (const digits of [6, 12]) {
    const near = Number(I.middle(enclosure).toPrecision(digits))
    for (const x of [near, Math.round(near)]) {
      if (x < enclosure.lo || x > enclosure.hi) continue
      const value = valueAt(code, x)
      if (value && value.lo === 0 && value.hi === 0) return I.point(x)
    }
  }
  return enclosure
}

const mostClusters = 12
/** A cluster takes a few looks with many coefficients each: so many of a short formula. */
const mostClustersLooked = 200
/** Up to this width, relative to its place, an unsettled stretch is listed as a likely zero. */
const likelyWidth = 1e-6

/** Neighbouring boxes as one. */
function clusters(boxes: readonly Interval[]): Interval[] {
  const sorted = [...boxes].sort((a, b) => a.lo - b.lo)
  const joined: Interval[] = []
  for (const box of sorted) {
    const last = joined.at(-1)
    // A gap of a box's width between two of them was settled, yet belongs to the same place.
    const gap = last ? box.lo - last.hi : 0
    if (last && gap <= 4 * (box.hi - box.lo)) {
      joined[joined.length - 1] = { lo: last.lo, hi: Math.max(last.hi, box.hi) }
    } else joined.push(box)
  }
  // Scattered leftovers come from rounding around one place: they are told as one stretch.
  return joined.length > mostClusters ? [{ lo: joined[0]!.lo, hi: joined.at(-1)!.hi }] : joined
}

/**
 * What remains where neither value nor slope could be told from 0. An exact double at which g and
 * its first m - 1 derivatives are exactly 0 and the next is not 0 on the cluster is a zero counted m
 * times, and the only one. Otherwise a change of sign shows that there is a zero, and a second
 * derivative that is not 0 that it is the only one.
 */
function settleCluster(
  code: BoxCode,
  cluster: Interval,
  from: number,
  to: number,
  signAt: (x: number) => number,
): { zeros: Zero[]; proven: boolean } {
  const mid = I.middle(cluster)
  const length = 6
  const around = code(cluster, length, I.noNotes())
  const nonzero = (c: Interval) => c.lo > 0 || c.hi < 0
  const candidates = [
    from,
    to,
    mid,
    Math.round(mid),
    Number(mid.toPrecision(6)),
    Number(mid.toFixed(6)),
    0,
  ]
  for (const x of candidates) {
    if (x < cluster.lo || x > cluster.hi) continue
    const notes = I.noNotes()
    const at = code(I.point(x), length, notes)
    if (notes.partial) continue
    const m = at.findIndex((c) => c.lo !== 0 || c.hi !== 0)
    if (m < 1 || !nonzero(around[m]!)) continue
    if (x <= from || x >= to) return { zeros: [], proven: true }
    return { zeros: [{ enclosure: I.point(x), multiplicity: m, proven: true }], proven: true }
  }
  // A zero at the very end of the stretch is not inside it.
  if (cluster.lo <= from || cluster.hi >= to) return { zeros: [], proven: false }
  const [a, b] = [signAt(cluster.lo), signAt(cluster.hi)]
  if (nonzero(around[2]!) && a * b < 0) {
    return { zeros: [{ enclosure: cluster, multiplicity: 1, proven: true }], proven: true }
  }
  // A wide stretch without a verdict is no place.
  const narrow = I.width(cluster) <= likelyWidth * Math.max(1, Math.abs(mid))
  return {
    zeros: narrow ? [{ enclosure: cluster, multiplicity: null, proven: false }] : [],
    proven: false,
  }
}

/** A zero on the edge of two boxes is found by both. */
function dedupe(zeros: Zero[]): Zero[] {
  const sorted = [...zeros].sort((a, b) => a.enclosure.lo - b.enclosure.lo)
  return sorted.filter((zero, i) => {
    const before = sorted[i - 1]
    return !before || before.enclosure.hi < zero.enclosure.lo
  })
}

import { signByValue } from './sign'
import type { BoxCode } from '../evaluate/enclosures'
import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import type { Budget, Steps } from './budget'
import type { Zero } from './zero'
import { endSlack, ulpOf } from './ends'
import { clusters, dedupe, mostClustersLooked, settleCluster } from './clusters'

/** A box this narrow, relative to its place, is not split any more: what is left there touches. */
const finest = 2 ** -30

/** Values this small are what a product with an exponential leaves where it has vanished. */
const vanishing = 1e-300

const isBounded = ({ lo, hi }: Interval) => Number.isFinite(lo) && Number.isFinite(hi)

/** g at a double, as narrow as it gets. */
const valueAt = (code: BoxCode, x: number): Interval | null => {
  const notes = I.noNotes()
  const [value] = code(I.point(x), 1, notes)
  return notes.empty || notes.partial ? null : value!
}

/**
 * Searches a formula's zeros in the open stretch (from, to) by boxes. `codes` are the formula and
 * the same times something positive; a box costs `cost` of the budget, of which half of what is left
 * may be spent; at most `mostFound` zeros are looked for.
 */
export function* searchBoxes(
  codes: readonly BoxCode[],
  cost: number,
  from: number,
  to: number,
  budget: Budget,
  mostFound: number,
): Steps<{ zeros: Zero[]; unresolved: Interval[] }> {
  const [first] = codes as [BoxCode]
  const search = new BoxSearch(codes, from, to)
  const most = budget.boxes + (budget.most - budget.boxes) / 2
  for (let box = search.next(); box; box = search.next()) {
    if (budget.boxes >= most || search.zeros.length >= mostFound) {
      search.leaveFrom(box)
      break
    }
    budget.boxes += cost
    yield budget.boxes / budget.most
    search.look(box)
  }
  const { zeros } = search
  const unresolved: Interval[] = []
  for (const cluster of clusters(search.left)) {
    budget.clusters += cost
    if (budget.clusters > mostClustersLooked) {
      unresolved.push(cluster)
      continue
    }
    yield budget.boxes / budget.most
    const settled = settleCluster(first, cluster, from, to, search.signAt)
    zeros.push(...settled.zeros)
    if (!settled.proven) unresolved.push(cluster)
  }
  return { zeros: dedupe(zeros), unresolved }
}

/** Boxes still to be looked at, and what has come out so far. */
class BoxSearch {
  readonly zeros: Zero[] = []
  /** What could not be settled. */
  readonly left: Interval[] = []
  private readonly first: BoxCode
  private readonly signs = new Map<number, -1 | 0 | 1>()
  /** Widest first: where the work must end, all that is easy has been settled everywhere. */
  private readonly queue: Interval[]
  private at = 0

  constructor(
    private readonly codes: readonly BoxCode[],
    private readonly from: number,
    private readonly to: number,
  ) {
    this.first = codes[0]!
    const anchored = anchorsWithin(this.first, from, to)
    this.zeros.push(...anchored.zeros)
    this.queue = [...anchored.rest]
  }

  next(): Interval | undefined {
    return this.queue[this.at++]
  }

  /** Ends the search: a box and all that come after it stay unsettled. */
  leaveFrom(box: Interval): void {
    this.left.push(box, ...this.queue.slice(this.at))
  }

  /** The sign of g at a place, 0 where it is not certain. */
  readonly signAt = (x: number): -1 | 0 | 1 => {
    let sign = this.signs.get(x)
    if (sign === undefined) this.signs.set(x, (sign = this.findSign(x)))
    return sign
  }

  private findSign(x: number): -1 | 0 | 1 {
    const value = valueAt(this.first, x)
    let sign = value ? I.signOf(value) : 0
    for (let k = 1; k < this.codes.length && sign === 0; k++) sign = signByValue(this.codes[k]!, x)
    const atEnd = x === this.from || x === this.to
    if (sign === 0 && atEnd && !(value && value.lo === 0 && value.hi === 0)) {
      // At the very end g may have no value, or vanish but for the rounding of the end: a little
      // way inside, where all still counts as the end, it has its sign.
      for (let ulps = 1; ulps <= endSlack && sign === 0; ulps++) {
        const inside = valueAt(this.first, x + (x === this.from ? ulps : -ulps) * ulpOf(x))
        sign = inside ? I.signOf(inside) : 0
      }
    }
    return sign
  }

  private isExactZero(x: number): boolean {
    const value = valueAt(this.first, x)
    return value !== null && value.lo === 0 && value.hi === 0
  }

  /** The narrowest box worth looking at. */
  private leastOf({ lo, hi }: Interval): number {
    const scale = Math.max(Math.abs(lo), Math.abs(hi), Math.min(1, this.to - this.from))
    return finest * scale
  }

  private found(enclosure: Interval): void {
    this.zeros.push({ enclosure, multiplicity: 1, proven: true })
  }

  /** Settles a box, leaves it, or splits it. */
  look(box: Interval): void {
    const notes = I.noNotes()
    let code = this.first
    let jet = code(box, 3, notes)
    if (notes.empty) return
    for (let k = 1; k < this.codes.length && !jet.every(isBounded); k++) {
      code = this.codes[k]!
      jet = code(box, 3, notes)
    }
    const range = narrowed(code, box, jet)
    if (!I.holdsZero(range)) return
    const slope = jet[1]!
    if (slope.lo > 0 || slope.hi < 0) this.lookAtMonotone(box, code, slope)
    else this.split(box, range)
  }

  private split(box: Interval, range: Interval): void {
    const cut = chooseCut(box, this.signAt)
    // Where values are as small as doubles get, smaller boxes would not tell more.
    const vanishes = range.lo >= -vanishing && range.hi <= vanishing
    const narrow = box.hi - box.lo <= this.leastOf(box)
    if (vanishes || narrow || !(cut > box.lo && cut < box.hi)) this.left.push(box)
    else this.queue.push({ lo: box.lo, hi: cut }, { lo: cut, hi: box.hi })
  }

  /** Where g only rises or only falls the signs at the ends decide. */
  private lookAtMonotone(box: Interval, code: BoxCode, slope: Interval): void {
    const [a, b] = [this.signAt(box.lo), this.signAt(box.hi)]
    if (a * b > 0) return
    if (a * b < 0) {
      this.found(tighten(code, box, slope))
      return
    }
    const edge = a === 0 ? box.lo : box.hi
    const inside = edge > this.from && edge < this.to
    if (this.isExactZero(edge)) {
      if (inside) this.found(I.point(edge))
      const other = edge === box.lo ? box.hi : box.lo
      if (this.signAt(other) === 0 && !this.isExactZero(other)) this.left.push(box)
      return
    }
    // A zero at the end of the stretch is not inside it.
    if (inside || a + b === 0) this.lookBeyond(box, code, a, b)
  }

  /** The zero lies at the edge or a little beyond it: a wider box with certain signs decides. */
  private lookBeyond(box: Interval, code: BoxCode, a: number, b: number): void {
    const reach = (box.hi - box.lo) / 8
    const wide = {
      lo: a === 0 ? Math.max(this.from, box.lo - reach) : box.lo,
      hi: b === 0 ? Math.min(this.to, box.hi + reach) : box.hi,
    }
    const slope = code(wide, 2, I.noNotes())[1]!
    const monotone = slope.lo > 0 || slope.hi < 0
    const product = this.signAt(wide.lo) * this.signAt(wide.hi)
    if (monotone && product < 0) this.found(tighten(code, wide, slope))
    else if (!monotone || product === 0) this.leaveEdge(box, a)
  }

  /** What lies right at the edge stays unsettled; the rest of the box is looked at again. */
  private leaveEdge(box: Interval, a: number): void {
    const least = this.leastOf(box)
    if (box.hi - box.lo <= 2 * least) {
      this.left.push(box)
      return
    }
    const near = a === 0 ? { lo: box.lo, hi: box.lo + least } : { lo: box.hi - least, hi: box.hi }
    this.left.push(near)
    this.queue.push(a === 0 ? { lo: near.hi, hi: box.hi } : { lo: box.lo, hi: near.lo })
  }
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

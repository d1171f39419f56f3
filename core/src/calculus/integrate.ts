import { compileTree, type RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { sideLimit } from '../features/limits/sideLimit'
import type { Split, Stretch, Stretches } from '../features/split'
import { stretchesOf } from '../features/splits'
import { budgetOf, finish } from '../features/budget'
import { decimalOfNumber } from '../arithmetic/rational'
import { exactly, name, negate, quotient, sum, type Tree, whole } from '../formula/tree'
import { substitute } from '../algebra/curves'
import { differentiate } from '../algebra/differentiate'
import { nearestDouble } from '../evaluate/precise'
import { divergent, growthAtZero, type Part } from './endGrowth'
import { expandPolynomials } from '../algebra/expandPolynomials'
import { compensatedSum, doubleExponential, integratePanels, type ManyValues } from './quadrature'
import { simplify } from '../algebra/simplify'
import { type Hole, steadied } from './steadied'
import { integrateTail } from './tails'

export interface Integral {
  /** NaN where there is no integral; Infinity or -Infinity where it grows beyond bounds one way. */
  value: number
  /** The true value lies within this of `value`. */
  errorBound: number
  /** At how many places f was asked for its value. */
  evaluations: number
  /** The integral has no finite value. */
  diverges: boolean
  /** Where it runs away, or null. */
  divergesAt: number | null
  /** A stretch on which f has no values, or null. */
  undefinedOn: [from: number, to: number] | null
}

/** Relative to the integral of |f|. */
const tolerance = 1e-13
/** How many boxes may be looked at for features between the samples. */
const mostBoxes = 400
const splitBudget = 4000

/**
 * The integral of f from a to b; ends may be infinite or the wrong way round (the sign turns), and
 * equal ends give 0. The span is cut at kinks, jumps, poles and joins of pieces. Smooth stretches go
 * by adaptive Gauss-Kronrod rules whose panels are cut until the enclosure of f keeps to the
 * samples, so that no spike is missed; stretches that end in a singularity, and infinite ones, by
 * double exponential quadrature, with the distance to the end kept exactly; tails that oscillate by
 * their half waves (see tails.ts). Whether a singular end has a finite area is decided by the power
 * of the distance with which f grows there; what oscillates within bounds always has one. Absolute
 * error within `errorBound`, about 1e-13 of the integral of |f| for smooth f, 1e-9 at singular ends. A stretch without values, or a NaN end, gives
 * NaN and says where.
 */
export function integrate(f: RealFunction, a: number, b: number): Integral {
  const result = { evaluations: 0, diverges: false, divergesAt: null, undefinedOn: null }
  if (Number.isNaN(a) || Number.isNaN(b)) {
    return { ...result, value: NaN, errorBound: Infinity }
  }
  if (a === b) return { ...result, value: 0, errorBound: 0 }
  if (a > b) {
    const turned = integrate(f, b, a)
    return { ...turned, value: -turned.value + 0 }
  }
  return new Integration(f).over(a, b)
}

/** One integral on its way: the function with its sliders put in, and the count. */
export class Integration {
  readonly tree: Tree
  readonly variable: string
  evaluations = 0
  private readonly f: RealFunction

  constructor(f: RealFunction) {
    this.f = f
    this.variable = f.variable
    this.tree = withValues(f.tree, f.parameters)
  }

  over(a: number, b: number): Integral {
    const parts: Part[] = []
    let divergesAt: number | null = null
    let undefinedOn: [number, number] | null = null
    const note = (part: Part, at: number) => {
      parts.push(part)
      if (part.diverges) divergesAt ??= at
    }
    const [low, high] = this.finitePart(a, b)
    if (low < high) {
      const whole = this.stretches(low, high)
      for (const stretch of whole.stretches) {
        if (!stretch.tree) {
          undefinedOn ??= [stretch.from, stretch.to]
          continue
        }
        const { from, to } = stretch
        const { left, right, inside } = this.overStretch(stretch, stretch.tree, whole.splits)
        note(left, from)
        note(inside, from)
        note(right, to)
      }
    }
    if (a === -Infinity) note(this.tail(low, -1), -Infinity)
    if (b === Infinity) note(this.tail(high, 1), Infinity)
    const base = { evaluations: this.evaluations, undefinedOn }
    if (undefinedOn) {
      return { ...base, value: NaN, errorBound: Infinity, diverges: false, divergesAt: null }
    }
    const value = compensatedSum(parts.map((p) => p.value))
    if (divergesAt !== null) {
      return { ...base, value, errorBound: Infinity, diverges: true, divergesAt }
    }
    const errorBound = parts.reduce((total, p) => total + p.error, 0)
    return {
      ...base,
      value: value + 0,
      errorBound: Number.isNaN(value) ? Infinity : errorBound,
      diverges: false,
      divergesAt: null,
    }
  }

  private stretches(from: number, to: number): Stretches {
    return finish(stretchesOf(this.tree, this.variable, from, to, budgetOf(splitBudget)))
  }

  /** The finite span in which all that is not a plain tail is contained. */
  private finitePart(a: number, b: number): [number, number] {
    if (Number.isFinite(a) && Number.isFinite(b)) return [a, b]
    const reach = (from: number, sign: 1 | -1) => {
      const start = Math.max(10, 2 * Math.abs(from)) * sign
      const far = 1000 * start
      const edges = this.stretches(Math.min(start, far), Math.max(start, far)).splits
      const outermost = edges.map((s) => Math.abs(s.enclosure.hi)).slice(-mostTailSplits)
      let end = Math.max(Math.abs(start), ...outermost.map((x) => x * 1.25))
      // A bump far out shows in the enclosure of f where samples pass it by.
      for (let j = 0, r = end; j < dyadicLooks; j++, r *= 2) {
        const [lo, hi] = this.f.enclose(sign * r, sign * 2 * r)
        let seen = 0
        for (let k = 0; k <= 8; k++) {
          seen = Math.max(seen, Math.abs(this.f.value(sign * r * (1 + k / 8))))
        }
        const size = Math.max(Math.abs(lo), Math.abs(hi))
        if (Number.isFinite(size) && size > 1e-12 && size > 1000 * seen) end = 2 * r
      }
      return sign * end
    }
    return [
      a === -Infinity ? reach(Number.isFinite(b) ? b : 0, -1) : a,
      b === Infinity ? reach(Number.isFinite(a) ? a : 0, 1) : b,
    ]
  }

  /** A smooth stretch: its singular ends apart from what lies between. */
  private overStretch(
    { from, to }: Stretch,
    tree: Tree,
    splits: readonly Split[],
  ): { left: Part; right: Part; inside: Part } {
    const nothing: Part = { value: 0, error: 0, diverges: false }
    const code = compileTree(tree, { variable: this.variable })
    let [low, high] = [from, to]
    let [left, right] = [nothing, nothing]
    const tendsTo = (side: 1 | -1, at: number) => {
      const split = splits.find((s) => s.enclosure.lo <= at && at <= s.enclosure.hi)
      return split ? sideLimit(tree, this.variable, split, side).kind : null
    }
    let hole: Hole | null = null
    /** The area beside an end that needs care, over a stretch that is returned with it. */
    const beside = (at: number, side: 1 | -1, length: number) => {
      const tends = tendsTo(side, at)
      if (!isSingular(code, at, side) && (tends === null || tends === 'value')) return null
      // A hole that has a limit: beside it the formula may lose its digits, and its area has all of them.
      const fills = tends === 'value' && Number.isNaN(code.value(at))
      const own = fills ? { at, length: to - from } : null
      hole ??= own
      const followed = own ? steadied(code, [from, to], own) : code
      const filled = own && this.acrossHole(followed, at, side, length)
      if (filled) return filled
      const reach = clearReach(followed, at, side, length)
      return { reach, part: this.fromEnd(tree, at, side, reach, fills) }
    }
    const first = beside(from, 1, to - from)
    if (first) [low, left] = [from + first.reach, first.part]
    const last = low < to ? beside(to, -1, to - low) : null
    if (last) [high, right] = [to - last.reach, last.part]
    const inside = low < high ? this.smooth(steadied(code, [low, high], hole), low, high) : nothing
    return { left, right, inside }
  }

  /** Beside a hole that is only a missing point a single rule may do, over the stretch or a part of it. */
  private acrossHole(
    f: RealFunction,
    at: number,
    side: 1 | -1,
    length: number,
  ): { reach: number; part: Part } | null {
    for (const share of sharesTried) {
      const reach = length * share
      const panel: [number, number] = side > 0 ? [at, at + reach] : [at - reach, at]
      const enclose = (lo: number, hi: number) => f.enclose(lo, hi)
      const found = integratePanels(this.counted(f), [panel], tolerance, enclose, 1)
      if (found.error <= (tolerance + 50 * Number.EPSILON) * found.size) {
        return { reach, part: { value: found.value, error: found.error, diverges: false } }
      }
    }
    return null
  }

  private counted(f: Pick<RealFunction, 'values'>): ManyValues {
    return (xs) => {
      this.evaluations += xs.length
      return f.values(xs)
    }
  }

  private smooth(code: RealFunction, from: number, to: number): Part {
    let boxes = 0
    const enclose = (lo: number, hi: number): [number, number] | null => {
      boxes += 1
      return boxes <= mostBoxes ? code.enclose(lo, hi) : null
    }
    const values = this.counted(code)
    const { value, error } = integratePanels(values, [[from, to]], tolerance, enclose)
    return { value, error, diverges: false }
  }

  /** The area beside a singular end, over a stretch of a length, by the distance from the end. */
  private fromEnd(tree: Tree, end: number, side: 1 | -1, length: number, fills: boolean): Part {
    const u = name(this.variable)
    const at = exactly(decimalOfNumber(end))
    const moved = sum(at, side > 0 ? u : negate(u))
    const beside = expandPolynomials(substitute(tree, this.variable, moved), this.variable)
    const part = this.besideZero(beside, length, end === 0, fills)
    // The end is rounded, and so is the distance of each place from it.
    const edge = Math.abs(compileTree(beside, { variable: this.variable }).value(length))
    const rounding = Number.isFinite(edge) ? 8 * Number.EPSILON * Math.abs(end) * edge : 0
    return { ...part, error: part.error + rounding }
  }

  /** The integral over (0, length) of a formula that is singular at 0. */
  private besideZero(tree: Tree, length: number, exact: boolean, fills: boolean): Part {
    const plain = compileTree(tree, { variable: this.variable })
    const code = fills ? steadied(plain, [0, length], { at: 0, length }) : plain
    const g = (x: number) => {
      this.evaluations += 1
      return code.value(x)
    }
    const growth = growthAtZero(code.value, length, exact)
    if (growth.oscillates) {
      const t = name(this.variable)
      const turned = substitute(tree, this.variable, quotient(whole(1), t))
      const waves = this.tailOf(quotient(turned, sum(multiply(t, t))), 1 / length)
      return Number.isFinite(waves.value) ? waves : boundedPart(code, length, waves)
    }
    if (growth.diverges) return divergent(growth.sign)
    const { least, rest, unsure } = growth
    const found = doubleExponential((x) => (x < least ? 0 : g(x)), length)
    return {
      value: found.value + rest,
      error: found.error + unsure * Math.abs(rest),
      diverges: false,
    }
  }

  /** From a finite end outwards, without end. */
  private tail(from: number, sign: 1 | -1): Part {
    if (sign > 0) return this.tailOf(this.tree, from)
    const t = name(this.variable)
    return this.tailOf(simplify(substitute(this.tree, this.variable, negate(t))), -from)
  }

  private tailOf(tree: Tree, from: number): Part {
    const code = compileTree(tree, { variable: this.variable })
    return integrateTail(code, this.counted(code), from, () => (this.evaluations += 1))
  }
}

/**
 * What oscillates beside an end and cannot be added up wave by wave: where f keeps within bounds
 * there, so does its area, which then has a value for certain.
 */
function boundedPart(f: RealFunction, length: number, otherwise: Part): Part {
  const [least, greatest] = f.enclose(0, length)
  if (!Number.isFinite(least) || !Number.isFinite(greatest)) return otherwise
  const half = (greatest - least) / 2
  return { value: (least + half) * length, error: half * length, diverges: false }
}

const multiply = (a: Tree, b: Tree): Tree => ({ kind: 'product', factors: [a, b] })

/** Shares of a stretch beside a hole that one rule is tried on. */
const sharesTried = [1, 0.25]

const mostTailSplits = 300
const dyadicLooks = 20

/** Derivatives up to this order must be there for an end to count as smooth. */
const smoothOrder = 8

/** Whether f has no value, or lacks a derivative, at an end of a stretch. */
function isSingular(f: RealFunction, at: number, side: 1 | -1): boolean {
  const lacking = f.beside(at, side, smoothOrder).findIndex((d) => !Number.isFinite(d))
  if (lacking < 0) return false
  // In doubles 1/cosh(1000)⁶ has a value and no slope, as cosh(1000)⁶ is beyond them.
  return lacking > mostDifferentiated || !hasDerivative(f, at, lacking)
}

/** Higher derivatives have formulas too long to work out. */
const mostDifferentiated = 3

function hasDerivative(f: RealFunction, at: number, order: number): boolean {
  let tree = f.tree
  for (let k = 0; k < order; k++) tree = differentiate(tree, f.variable)
  return Number.isFinite(nearestDouble(tree, f.variable, at, {}))
}

/** How often a stretch beside an end is halved in search of one on which nothing hides. */
const mostHalvings = 24

/**
 * A stretch beside a singular end on which the enclosure of f keeps to its samples from one halving
 * to the next: double exponential quadrature would pass a spike by.
 */
function clearReach(f: RealFunction, at: number, side: 1 | -1, length: number): number {
  let reach = length / 2
  let far = reach
  for (let i = 0; i < mostHalvings; i++, far /= 2) {
    const [lo, hi] = f.enclose(at + side * far, at + (side * far) / 2)
    let seen = 0
    for (let k = 0; k <= 8; k++)
      seen = Math.max(seen, Math.abs(f.value(at + side * far * (0.5 + k / 16))))
    if (Math.max(Math.abs(lo), Math.abs(hi)) > 100 * seen) reach = far / 2
  }
  return reach
}

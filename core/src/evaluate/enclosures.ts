import { writtenOut } from '../functions/writtenOut'
import { rationalFromNumber, type Rational, toNumber } from '../arithmetic/rational'
import {
  type AreaTree,
  type CallTree,
  type Condition,
  literalFraction,
  type PowerTree,
  type Relation,
  type Tree,
} from '../formula/tree'
import { entryOf } from '../functions'
import {
  addJets,
  type BoxJet,
  constantJet,
  divideJets,
  expJet,
  hullJets,
  leastJet,
  lnJet,
  multiplyJets,
  oddRootJet,
  realPowerJet,
  unknownJet,
  wholePowerJet,
} from '../arithmetic/boxJets'
import * as I from '../arithmetic/intervals'
import { type BoxNotes, type Interval } from '../arithmetic/intervals'

/** A formula evaluated on boxes; what came up is noted. */
export type BoxCode = (x: Interval, length: number, notes: BoxNotes) => BoxJet

/** The exact number as a double where it is one, else between two. */
export function numberInterval(exact: Rational): Interval {
  const near = toNumber(exact)
  if (!Number.isFinite(near)) return I.everything
  const double = binaryRational(near)
  const [held, meant] = [double.n * exact.d, exact.n * double.d]
  if (held === meant) return I.point(near)
  return held < meant ? { lo: near, hi: I.up(near) } : { lo: I.down(near), hi: near }
}

/** The double itself, and not its shortest decimal, as a fraction. */
export function binaryRational(value: number): Rational {
  if (Number.isInteger(value) && Math.abs(value) < 2 ** 53) return rationalFromNumber(value)
  let exponent = 0
  let mantissa = value
  while (!Number.isInteger(mantissa) && exponent < 1100) {
    mantissa *= 2
    exponent += 1
  }
  return { n: BigInt(mantissa), d: 1n << BigInt(exponent) }
}

const piInterval: Interval = { lo: 3.141592653589793, hi: 3.1415926535897936 }
const eInterval: Interval = { lo: 2.718281828459045, hi: 2.7182818284590455 }

/** Other variables, each with the box that it stands for while the code runs. */
export type Held = ReadonlyMap<string, { box: Interval }>
const noneHeld: Held = new Map()

/**
 * Compiles a tree without names other than the variable, and those that are held, to its evaluation on
 * boxes. A slider must have been replaced by its value before.
 */
export function compileBoxes(tree: Tree, variable: string, held: Held = noneHeld): BoxCode {
  const known = compiled.get(tree)
  if (known?.variable === variable && known.held === held) return known.code
  const code = compileAnew(writtenOut(tree), { variable, held })
  compiled.set(tree, { variable, held, code })
  return code
}

/** Trees are shared and asked about many times. */
const compiled = new WeakMap<Tree, { variable: string; held: Held; code: BoxCode }>()

interface Names {
  variable: string
  held: Held
}

function compileAnew(tree: Tree, names: Names): BoxCode {
  const compile = (part: Tree) => compileBoxes(part, names.variable, names.held)
  switch (tree.kind) {
    case 'number': {
      const value = numberInterval(tree.exact)
      return (_x, length) => constantJet(value, length)
    }
    case 'constant': {
      const value = tree.name === 'pi' ? piInterval : eInterval
      return (_x, length) => constantJet(value, length)
    }
    case 'name': {
      const other = names.held.get(tree.name)
      if (other) return (_x, length) => constantJet(other.box, length)
      if (tree.name !== names.variable) {
        return (_x, length, notes) => {
          notes.empty = notes.partial = true
          return unknownJet(I.everything, length)
        }
      }
      return (x, length) => {
        const jet = constantJet(x, length)
        if (length > 1) jet[1] = I.point(1)
        return jet
      }
    }
    case 'sum': {
      const terms = tree.terms.map(compile)
      return (x, length, notes) => terms.map((t) => t(x, length, notes)).reduce(addJets)
    }
    case 'product': {
      const factors = tree.factors.map(compile)
      return (x, length, notes) => factors.map((f) => f(x, length, notes)).reduce(multiplyJets)
    }
    case 'quotient': {
      const above = compile(tree.above)
      const below = compile(tree.below)
      return (x, length, notes) => {
        const v = below(x, length, notes)
        const filled = I.holdsZero(v[0]!) ? divideFilled(above, below, x, length) : null
        if (filled) notes.partial = true
        return filled ?? divideJets(above(x, length, notes), v, notes)
      }
    }
    case 'power':
      return compilePower(tree, names)
    case 'call':
      return compileCall(tree, names)
    case 'curve':
      throw new TypeError(`the curve ${tree.name} must be expanded before compiling`)
    case 'area':
      return compileArea(tree, names)
    case 'pieces': {
      const all = tree.pieces.map(({ body, when }) => ({
        body: compile(body),
        when: when && compileCondition(when, names),
      }))
      return (x, length, notes) => {
        let found: BoxJet | null = null
        let pieces = 0
        let settled = false
        for (const { body, when } of all) {
          const holds = when ? when(x) : 'yes'
          if (holds === 'no') continue
          // A piece that holds on a part of the box is asked there only for what it has.
          const own = I.noNotes()
          const jet = body(x, length, own)
          if (!own.empty) {
            found = found ? hullJets(found, jet) : jet
            pieces += 1
          }
          if (own.partial) notes.partial = true
          notes.jumps ||= own.jumps
          notes.kinks ||= own.kinks
          if (holds === 'yes') {
            settled = true
            break
          }
        }
        if (!settled) notes.partial = true
        if (pieces > 1 || !settled) notes.jumps = true
        if (found) return found
        notes.empty = notes.partial = true
        return unknownJet(I.everything, length)
      }
    }
  }
}

/** Common zeros up to this order are divided out. */
const mostFilled = 6

/**
 * u/v on a box in which both vanish at one exact place c, to the same order m or u to a higher one.
 * With u = (x − c)^m·ũ the Taylor coefficients of ũ on the box lie in those of u, moved down by m:
 * ũ(x) = ∫ u′(c + s(x − c)) ds over [0, 1], m times over. Null where there is no such place.
 */
function divideFilled(above: BoxCode, below: BoxCode, x: Interval, length: number): BoxJet | null {
  const isZero = (c: Interval) => c.lo === 0 && c.hi === 0
  for (const c of new Set([x.lo, x.hi, Math.max(x.lo, Math.min(x.hi, 0))])) {
    if (!Number.isFinite(c) || !isZero(below(I.point(c), 1, I.noNotes())[0]!)) continue
    const orderOf = (code: BoxCode) =>
      code(I.point(c), mostFilled + 1, I.noNotes()).findIndex((k) => !isZero(k))
    const m = orderOf(below)
    if (m < 1 || !above(I.point(c), m, I.noNotes()).every(isZero)) continue
    const own = I.noNotes()
    const [u, v] = [above, below].map((code) => code(x, length + m, own).slice(m)) as [
      BoxJet,
      BoxJet,
    ]
    if (own.partial || own.empty || own.kinks || own.jumps || I.holdsZero(v[0]!)) continue
    return divideJets(u, v, own)
  }
  return null
}

/** An area has values where its integrand jumps or is missing at a place, but no slope there. */
function compileArea({ area, at, rate }: AreaTree, { variable, held }: Names): BoxCode {
  const [inner, outer] = [compileBoxes(at, variable, held), compileBoxes(rate, variable, held)]
  return (x, length, notes) => {
    const u = inner(x, length, notes)
    const [lo, hi] = area.enclose(u[0]!.lo, u[0]!.hi)
    if (Number.isNaN(lo)) {
      notes.partial = true
      // A place without area in the middle need not mean that there is none on the box.
      if (u[0]!.lo === u[0]!.hi) notes.empty = true
      return unknownJet(I.everything, length)
    }
    const value = I.interval(lo, hi)
    if (length === 1) return [value]
    const own = I.noNotes()
    const slope = outer(x, length, own)
    notes.kinks ||= own.kinks || own.jumps || own.partial
    // Where the integrand is missing at places only, the area has a value at both ends.
    const whole = [u[0]!.lo, u[0]!.hi].every((end) => !Number.isNaN(area.value(end)))
    if (own.empty || (own.partial && !whole)) {
      return [value, ...unknownJet(I.everything, length - 1)]
    }
    if (own.jumps || own.kinks) slope.fill(I.everything, 1)
    return chainedJet(value, slope, u)
  }
}

/** A(u) from its value, the jet of A′(u) and that of u: its derivative is A′(u)·u′. */
function chainedJet(value: Interval, rate: BoxJet, u: BoxJet): BoxJet {
  const inner = u.map((_, k) => I.multiply(I.point(k + 1), u[k + 1] ?? I.zeroInterval))
  const slope = multiplyJets(rate, inner)
  return u.map((_, k) => (k === 0 ? value : I.divide(slope[k - 1]!, I.point(k))))
}

function compilePower(tree: PowerTree, { variable, held }: Names): BoxCode {
  const base = compileBoxes(tree.base, variable, held)
  const fraction = literalFraction(tree.exponent)
  if (fraction) {
    const r = Number(fraction.n) / Number(fraction.d)
    if (fraction.d % 2n === 0n) {
      return (x, length, notes) => realPowerJet(base(x, length, notes), r, notes)
    }
    const odd = fraction.n % 2n !== 0n
    return (x, length, notes) => oddRootJet(base(x, length, notes), r, odd, notes)
  }
  const exponent = compileBoxes(tree.exponent, variable, held)
  if (tree.base.kind === 'constant' && tree.base.name === 'e') {
    return (x, length, notes) => expJet(exponent(x, length, notes))
  }
  if (tree.exponent.kind === 'number') {
    const r = toNumber(tree.exponent.exact)
    if (Number.isInteger(r) && Math.abs(r) <= 1000) {
      return (x, length, notes) => wholePowerJet(base(x, length, notes), r, notes)
    }
    return (x, length, notes) => realPowerJet(base(x, length, notes), r, notes)
  }
  return (x, length, notes) => {
    const u = base(x, length, notes)
    const v = exponent(x, length, notes)
    const [from] = u as [Interval]
    // 0^v and whole powers of negative bases are single values on the edge of the domain.
    if (from.lo <= 0) notes.partial = notes.jumps = true
    if (from.hi <= 0) return unknownJet(I.everything, length)
    const own = I.noNotes()
    const jet = expJet(
      multiplyJets(v, lnJet([{ lo: Math.max(0, from.lo), hi: from.hi }, ...u.slice(1)], own)),
    )
    return from.lo < 0
      ? unknownJet(I.everything, length)
      : [I.hull(jet[0]!, from.lo === 0 ? { lo: 0, hi: 1 } : jet[0]!), ...jet.slice(1)]
  }
}

function compileCall(tree: CallTree, { variable, held }: Names): BoxCode {
  const args = tree.args.map((a) => compileBoxes(a, variable, held))
  const [of, second] = args as [BoxCode, BoxCode?]
  switch (tree.name) {
    case 'logBase':
      return (x, length, notes) => {
        const base = lnJet(of(x, length, notes), notes)
        const above = lnJet(second!(x, length, notes), notes)
        return divideJets(above, base, notes)
      }
    case 'min':
    case 'max': {
      const sign = tree.name === 'min' ? 1 : -1
      return (x, length, notes) =>
        args.map((a) => a(x, length, notes)).reduce((u, v) => leastJet(u, v, sign, notes))
    }
    default: {
      const { box } = entryOf(tree.name)
      return (x, length, notes) => box(of(x, length, notes), notes)
    }
  }
}

type Answer = 'yes' | 'no' | 'maybe'

/** Whether a condition holds on all of a box, on none of it, or perhaps on a part. */
function compileCondition(condition: Condition, names: Names): (x: Interval) => Answer {
  if (condition.kind !== 'compare') {
    const parts = condition.of.map((part) => compileCondition(part, names))
    const [decisive, other] =
      condition.kind === 'all' ? (['no', 'yes'] as const) : (['yes', 'no'] as const)
    return (x) => {
      const answers = parts.map((part) => part(x))
      if (answers.includes(decisive)) return decisive
      return answers.every((a) => a === other) ? other : 'maybe'
    }
  }
  const terms = condition.terms.map((t) => compileBoxes(t, names.variable, names.held))
  const { relations } = condition
  return (x) => {
    const notes = I.noNotes()
    const values = terms.map((t) => t(x, 1, notes)[0]!)
    if (notes.partial) return 'maybe'
    const answers = relations.map((r, i) => compareBoxes(r, values[i]!, values[i + 1]!))
    if (answers.includes('no')) return 'no'
    return answers.every((a) => a === 'yes') ? 'yes' : 'maybe'
  }
}

function compareBoxes(relation: Relation, a: Interval, b: Interval): Answer {
  switch (relation) {
    case '<':
      return a.hi < b.lo ? 'yes' : a.lo >= b.hi ? 'no' : 'maybe'
    case '<=':
      return a.hi <= b.lo ? 'yes' : a.lo > b.hi ? 'no' : 'maybe'
    case '>':
      return compareBoxes('<', b, a)
    case '>=':
      return compareBoxes('<=', b, a)
    case '=':
      if (a.hi < b.lo || a.lo > b.hi) return 'no'
      return a.lo === a.hi && b.lo === b.hi ? 'yes' : 'maybe'
    case '!=': {
      const same = compareBoxes('=', a, b)
      return same === 'yes' ? 'no' : same === 'no' ? 'yes' : 'maybe'
    }
  }
}

/**
 * An interval that surely holds every value f takes on [lo, hi], NaN at both ends where it takes
 * none: the plain evaluation, narrowed by the mean-value and the second-order form and, where f is
 * proven monotone, by its values at the ends.
 */
export function encloseRange(code: BoxCode, lo: number, hi: number): Interval {
  const box = I.interval(lo, hi)
  const notes = I.noNotes()
  const plain = code(box, 1, notes)[0]!
  if (notes.empty || Number.isNaN(lo) || Number.isNaN(hi)) return I.interval(NaN, NaN)
  const m = I.middle(box)
  // Between neighbouring doubles there is no middle, and at an end the slope may be another one.
  if (!(lo < m && m < hi) || notes.partial || notes.jumps) return plain
  const own = I.noNotes()
  const jet = code(box, 3, own)
  if (own.partial || own.jumps) return plain
  const run = I.subtract(box, I.point(m))
  const atMiddle = code(I.point(m), 2, I.noNotes())
  let best = I.meet(plain, I.add(atMiddle[0]!, I.multiply(jet[1]!, run)))
  if (!own.kinks) {
    const bend = I.add(I.multiply(atMiddle[1]!, run), I.multiply(jet[2]!, I.square(run)))
    best = I.meet(best, I.add(atMiddle[0]!, bend))
  }
  const slope = jet[1]!
  if (slope.lo >= 0 || slope.hi <= 0) {
    const [a, b] = [lo, hi].map((x) => code(I.point(x), 1, I.noNotes())[0]!) as [Interval, Interval]
    const ends = slope.lo >= 0 ? I.interval(a.lo, b.hi) : I.interval(b.lo, a.hi)
    if (ends.lo <= ends.hi) best = I.meet(best, ends)
  }
  return best
}

import { rationalFromNumber, type Rational, toNumber } from '../language/rational'
import {
  type CallTree,
  type Condition,
  literalFraction,
  type PowerTree,
  type Relation,
  type Tree,
} from '../language/tree'
import * as I from './intervals'
import { type BoxNotes, type Interval } from './intervals'

/**
 * Taylor coefficients over a box: coefficient k holds f⁽ᵏ⁾(x)/k! for every x of the box where that
 * exists. At kinks it holds the slopes of both sides, so that mean-value forms stay true for
 * functions that are continuous.
 */
export type BoxJet = Interval[]

/** A formula evaluated on boxes; what came up is noted. */
export type BoxCode = (x: Interval, length: number, notes: BoxNotes) => BoxJet

const constantJet = (value: Interval, length: number): BoxJet => {
  const jet: BoxJet = new Array<Interval>(length).fill(I.zeroInterval)
  jet[0] = value
  return jet
}
const unknownJet = (value: Interval, length: number): BoxJet => {
  const jet: BoxJet = new Array<Interval>(length).fill(I.everything)
  jet[0] = value
  return jet
}
const addJets = (u: BoxJet, v: BoxJet): BoxJet => u.map((c, k) => I.add(c, v[k]!))
const negateJet = (u: BoxJet): BoxJet => u.map(I.negated)
const hullJets = (u: BoxJet, v: BoxJet): BoxJet => u.map((c, k) => I.hull(c, v[k]!))

function multiplyJets(u: BoxJet, v: BoxJet): BoxJet {
  const same = u === v
  return u.map((_, k) => {
    let total = same && k === 0 ? I.square(u[0]!) : I.multiply(u[0]!, v[k]!)
    for (let j = 1; j <= k; j++) total = I.add(total, I.multiply(u[j]!, v[k - j]!))
    return total
  })
}

function divideJets(u: BoxJet, v: BoxJet, notes: BoxNotes): BoxJet {
  const below = v[0]!
  if (I.holdsZero(below)) {
    notes.partial = true
    if (below.lo === 0 && below.hi === 0) notes.empty = true
    if (below.lo < 0 && below.hi > 0) notes.jumps = true
  }
  const out: BoxJet = []
  for (let k = 0; k < u.length; k++) {
    let total = u[k]!
    for (let j = 1; j <= k; j++) total = I.subtract(total, I.multiply(v[j]!, out[k - j]!))
    out.push(I.divide(total, below))
  }
  return out
}

/** The jet of v with v′ = u′·g and the given value. */
function chainJet(u: BoxJet, value: Interval, g: BoxJet): BoxJet {
  const out: BoxJet = [value]
  for (let k = 1; k < u.length; k++) {
    let total = I.zeroInterval
    for (let j = 1; j <= k; j++) {
      total = I.add(total, I.multiply(I.scale(u[j]!, j), g[k - j]!))
    }
    out.push(I.divide(total, I.point(k)))
  }
  return out
}

/** The jet of v with v′ = u′·g(v), where each coefficient of g needs only earlier ones of v. */
function grownJet(u: BoxJet, value: Interval, g: (v: BoxJet) => BoxJet): BoxJet {
  let out: BoxJet = [value]
  for (let k = 1; k < u.length; k++) {
    const slope = g(out)
    let total = I.zeroInterval
    for (let j = 1; j <= k; j++) {
      total = I.add(total, I.multiply(I.scale(u[j]!, j), slope[k - j]!))
    }
    out = [...out, I.divide(total, I.point(k))]
  }
  return out
}

const onePlus = (sign: 1 | -1, u: BoxJet): BoxJet => {
  const squared = multiplyJets(u, u)
  return addJets(constantJet(I.point(1), u.length), sign === 1 ? squared : negateJet(squared))
}
const reciprocal = (u: BoxJet, notes: BoxNotes) =>
  divideJets(constantJet(I.point(1), u.length), u, notes)

function sinePair(u: BoxJet, sine: Interval, cosine: Interval, sign: 1 | -1): [BoxJet, BoxJet] {
  const s: BoxJet = [sine]
  const c: BoxJet = [cosine]
  for (let k = 1; k < u.length; k++) {
    let inSine = I.zeroInterval
    let inCosine = I.zeroInterval
    for (let j = 1; j <= k; j++) {
      const part = I.scale(u[j]!, j)
      inSine = I.add(inSine, I.multiply(part, c[k - j]!))
      inCosine = I.add(inCosine, I.multiply(part, s[k - j]!))
    }
    s.push(I.divide(inSine, I.point(k)))
    const turned = I.divide(inCosine, I.point(k))
    c.push(sign === 1 ? turned : I.negated(turned))
  }
  return [s, c]
}
const circular = (u: BoxJet) => sinePair(u, I.sin(u[0]!), I.cos(u[0]!), -1)
const hyperbolic = (u: BoxJet) => sinePair(u, I.sinh(u[0]!), I.cosh(u[0]!), 1)

const expJet = (u: BoxJet): BoxJet => grownJet(u, I.exp(u[0]!), (v) => v)

function lnJet(u: BoxJet, notes: BoxNotes): BoxJet {
  const value = I.ln(u[0]!, notes)
  if (notes.empty) return unknownJet(value, u.length)
  // Only where the logarithm has values has it a slope.
  const inside = [{ lo: Math.max(0, u[0]!.lo), hi: u[0]!.hi }, ...u.slice(1)]
  return chainJet(u, value, reciprocal(inside, { ...notes }))
}

/** u^r for a base of 0 or more, with slopes that may be unbounded at 0. */
function realPowerJet(u: BoxJet, r: number, notes: BoxNotes): BoxJet {
  const value = I.realPower(u[0]!, r, notes)
  if (notes.empty) return unknownJet(value, u.length)
  const base = { lo: Math.max(0, u[0]!.lo), hi: u[0]!.hi }
  const out: BoxJet = [value]
  const quiet = I.noNotes()
  if (base.lo === 0 && r < u.length) notes.kinks = true
  const slopeAt = (k: number) => {
    let factor = 1
    for (let j = 0; j < k; j++) factor *= (r - j) / (j + 1)
    // (r choose k) is a double near the true number: widened by a few roundings.
    const choose =
      factor === 0 ? I.zeroInterval : { lo: I.down(I.down(factor)), hi: I.up(I.up(factor)) }
    return I.multiply(choose, I.realPower(base, r - k, quiet))
  }
  if (u.length > 1) out.push(I.multiply(slopeAt(1), u[1]!))
  if (u.length > 2) {
    out.push(I.add(I.multiply(slopeAt(1), u[2]!), I.multiply(slopeAt(2), I.square(u[1]!))))
  }
  for (let k = 3; k < u.length; k++) {
    let total = I.zeroInterval
    for (let j = 1; j <= k; j++) {
      const weight = I.subtract(
        I.multiply({ lo: I.down(r), hi: I.up(r) }, I.point(j)),
        I.point(k - j),
      )
      total = I.add(total, I.multiply(weight, I.multiply(u[j]!, out[k - j]!)))
    }
    out.push(I.divide(total, I.scale(base, k)))
  }
  return out
}

/** The odd root of a jet of either sign: −|u|^r on the left of 0. */
function oddRootJet(u: BoxJet, r: number, odd: boolean, notes: BoxNotes): BoxJet {
  const [base] = u as [Interval]
  if (base.lo >= 0) return realPowerJet(u, r, notes)
  const turned = (v: BoxJet) => {
    const jet = realPowerJet(negateJet(v), r, notes)
    return odd ? negateJet(jet) : jet
  }
  if (base.hi <= 0) return turned(u)
  notes.kinks = true
  const left = turned([{ lo: base.lo, hi: 0 }, ...u.slice(1)])
  const right = realPowerJet([{ lo: 0, hi: base.hi }, ...u.slice(1)], r, notes)
  if (r < 0) notes.partial = notes.jumps = true
  return hullJets(left, right)
}

function wholePowerJet(u: BoxJet, n: number, notes: BoxNotes): BoxJet {
  if (n < 0) return reciprocal(wholePowerJet(u, -n, notes), notes)
  if (n === 0) return constantJet(I.point(1), u.length)
  const out: BoxJet = [I.wholePower(u[0]!, n)]
  if (u.length === 1) return out
  const slope = I.scale(I.wholePower(u[0]!, n - 1), n)
  out.push(I.multiply(slope, u[1]!))
  if (u.length === 2) return out
  const bend = n < 2 ? I.zeroInterval : I.scale(I.wholePower(u[0]!, n - 2), (n * (n - 1)) / 2)
  out.push(I.add(I.multiply(slope, u[2]!), I.multiply(bend, I.square(u[1]!))))
  if (u.length === 3) return out
  let result = u
  for (let i = 1; i < n; i++) result = multiplyJets(result, u)
  return [...out, ...result.slice(3)]
}

function absJet(u: BoxJet, notes: BoxNotes): BoxJet {
  const [base] = u as [Interval]
  if (base.lo >= 0) return u
  if (base.hi <= 0) return negateJet(u)
  notes.kinks = true
  const both = hullJets(u, negateJet(u))
  // Beyond the slope the kink itself has no derivative to enclose.
  return both.map((c, k) => (k === 0 ? I.magnitudes(base) : k === 1 ? c : I.everything))
}

/** A function that is level between its steps: its values at both ends of the box enclose it. */
function stepJet(value: (x: number) => number, u: BoxJet, notes: BoxNotes): BoxJet {
  const [base] = u as [Interval]
  const [low, high] = [value(base.lo), value(base.hi)]
  if (low === high) return constantJet(I.point(low), u.length)
  notes.jumps = true
  return unknownJet({ lo: low, hi: high }, u.length)
}

function leastJet(u: BoxJet, v: BoxJet, sign: 1 | -1, notes: BoxNotes): BoxJet {
  const difference = I.subtract(u[0]!, v[0]!)
  if (I.signOf(difference) * sign < 0) return u
  if (I.signOf(difference) * sign > 0) return v
  notes.kinks = true
  const pick = sign === 1 ? Math.min : Math.max
  const value = { lo: pick(u[0]!.lo, v[0]!.lo), hi: pick(u[0]!.hi, v[0]!.hi) }
  return hullJets(u, v).map((c, k) => (k === 0 ? value : k === 1 ? c : I.everything))
}

/** The exact number as a double where it is one, else between two. */
function numberInterval(exact: Rational): Interval {
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

/**
 * Compiles a tree without names other than the variable to its evaluation on boxes. A slider must
 * have been replaced by its value before.
 */
export function compileBoxes(tree: Tree, variable: string): BoxCode {
  const known = compiled.get(tree)
  if (known?.variable === variable) return known.code
  const code = compileAnew(tree, variable)
  compiled.set(tree, { variable, code })
  return code
}

/** Trees are shared and asked about many times. */
const compiled = new WeakMap<Tree, { variable: string; code: BoxCode }>()

function compileAnew(tree: Tree, variable: string): BoxCode {
  const compile = (part: Tree) => compileBoxes(part, variable)
  switch (tree.kind) {
    case 'number': {
      const value = numberInterval(tree.exact)
      return (_x, length) => constantJet(value, length)
    }
    case 'constant': {
      const value = tree.name === 'pi' ? piInterval : eInterval
      return (_x, length) => constantJet(value, length)
    }
    case 'name':
      if (tree.name !== variable) {
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
      return (x, length, notes) =>
        divideJets(above(x, length, notes), below(x, length, notes), notes)
    }
    case 'power':
      return compilePower(tree, variable)
    case 'call':
      return compileCall(tree, variable)
    case 'curve':
      throw new TypeError(`the curve ${tree.name} must be expanded before compiling`)
    case 'pieces': {
      const all = tree.pieces.map(({ body, when }) => ({
        body: compile(body),
        when: when && compileCondition(when, variable),
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

function compilePower(tree: PowerTree, variable: string): BoxCode {
  const base = compileBoxes(tree.base, variable)
  const fraction = literalFraction(tree.exponent)
  if (fraction) {
    const r = Number(fraction.n) / Number(fraction.d)
    if (fraction.d % 2n === 0n) {
      return (x, length, notes) => realPowerJet(base(x, length, notes), r, notes)
    }
    const odd = fraction.n % 2n !== 0n
    return (x, length, notes) => oddRootJet(base(x, length, notes), r, odd, notes)
  }
  const exponent = compileBoxes(tree.exponent, variable)
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

function compileCall(tree: CallTree, variable: string): BoxCode {
  const args = tree.args.map((a) => compileBoxes(a, variable))
  const of = args[0]!
  const second = args[1]
  const simple =
    (jet: (u: BoxJet, notes: BoxNotes) => BoxJet): BoxCode =>
    (x, length, notes) =>
      jet(of(x, length, notes), notes)
  switch (tree.name) {
    case 'sin':
      return simple((u) => circular(u)[0])
    case 'cos':
      return simple((u) => circular(u)[1])
    case 'tan':
      return simple((u, notes) => grownJet(u, I.tan(u[0]!, notes), (v) => onePlus(1, v)))
    case 'sec':
      return simple((u, notes) => reciprocal(circular(u)[1], notes))
    case 'csc':
      return simple((u, notes) => reciprocal(circular(u)[0], notes))
    case 'cot':
      return simple((u, notes) => {
        const [s, c] = circular(u)
        return divideJets(c, s, notes)
      })
    case 'arcsin':
    case 'arccos':
      return simple((u, notes) => {
        const value = tree.name === 'arcsin' ? I.arcsin(u[0]!, notes) : I.arccos(u[0]!, notes)
        if (notes.empty) return unknownJet(value, u.length)
        const slope = slopeOfArcsin(u, notes)
        return chainJet(u, value, tree.name === 'arcsin' ? slope : negateJet(slope))
      })
    case 'arctan':
      return simple((u, notes) => chainJet(u, I.arctan(u[0]!), reciprocal(onePlus(1, u), notes)))
    case 'arccot':
      return simple((u, notes) => {
        const half = { lo: 1.5707963267948966, hi: 1.5707963267948968 }
        const value = I.subtract(half, I.arctan(u[0]!))
        return chainJet(u, value, negateJet(reciprocal(onePlus(1, u), notes)))
      })
    case 'arcsec':
    case 'arccsc':
      return simple((u, notes) => {
        const inner = reciprocal(u, notes)
        const value =
          tree.name === 'arcsec' ? I.arccos(inner[0]!, notes) : I.arcsin(inner[0]!, notes)
        if (notes.empty) return unknownJet(value, u.length)
        const slope = slopeOfArcsin(inner, notes)
        return chainJet(inner, value, tree.name === 'arccsc' ? slope : negateJet(slope))
      })
    case 'sinh':
      return simple((u) => hyperbolic(u)[0])
    case 'cosh':
      return simple((u) => hyperbolic(u)[1])
    case 'tanh':
      return simple((u) => grownJet(u, I.tanh(u[0]!), (v) => onePlus(-1, v)))
    case 'exp':
      return simple((u) => expJet(u))
    case 'ln':
      return simple(lnJet)
    case 'log':
      return simple((u, notes) => {
        const jet = lnJet(u, notes)
        if (notes.empty) return jet
        const scaled = jet.map((c) => I.divide(c, ln10))
        scaled[0] = I.meet(I.log10(u[0]!, { ...notes }), scaled[0]!)
        return scaled
      })
    case 'logBase':
      return (x, length, notes) => {
        const base = lnJet(of(x, length, notes), notes)
        const above = lnJet(second!(x, length, notes), notes)
        return divideJets(above, base, notes)
      }
    case 'sqrt':
      return simple((u, notes) => {
        const jet = realPowerJet(u, 0.5, notes)
        jet[0] = I.sqrt(u[0]!, notes)
        return jet
      })
    case 'cbrt':
      return simple((u, notes) => {
        const jet = oddRootJet(u, 1 / 3, true, notes)
        jet[0] = I.cbrt(u[0]!)
        return jet
      })
    case 'abs':
      return simple(absJet)
    case 'sgn':
      return simple((u, notes) => stepJet((v) => Math.sign(v) + 0, u, notes))
    case 'floor':
      return simple((u, notes) => stepJet(Math.floor, u, notes))
    case 'ceil':
      return simple((u, notes) => stepJet(Math.ceil, u, notes))
    case 'min':
    case 'max': {
      const sign = tree.name === 'min' ? 1 : -1
      return (x, length, notes) =>
        args.map((a) => a(x, length, notes)).reduce((u, v) => leastJet(u, v, sign, notes))
    }
  }
}

const ln10: Interval = { lo: 2.302585092994045, hi: 2.302585092994046 }

/** 1/√(1 − u²) where that has a value; unbounded at the ends. */
function slopeOfArcsin(u: BoxJet, notes: BoxNotes): BoxJet {
  const inside = [{ lo: Math.max(-1, u[0]!.lo), hi: Math.min(1, u[0]!.hi) }, ...u.slice(1)]
  const below = onePlus(-1, inside)
  below[0] = { lo: Math.max(0, below[0]!.lo), hi: below[0]!.hi }
  if (below[0].lo === 0) notes.kinks = true
  return realPowerJet(below, -0.5, I.noNotes())
}

type Answer = 'yes' | 'no' | 'maybe'

/** Whether a condition holds on all of a box, on none of it, or perhaps on a part. */
function compileCondition(condition: Condition, variable: string): (x: Interval) => Answer {
  if (condition.kind !== 'compare') {
    const parts = condition.of.map((part) => compileCondition(part, variable))
    const [decisive, other] =
      condition.kind === 'all' ? (['no', 'yes'] as const) : (['yes', 'no'] as const)
    return (x) => {
      const answers = parts.map((part) => part(x))
      if (answers.includes(decisive)) return decisive
      return answers.every((a) => a === other) ? other : 'maybe'
    }
  }
  const terms = condition.terms.map((t) => compileBoxes(t, variable))
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

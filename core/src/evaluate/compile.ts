import { entryOf, logToBase, logToBaseJet } from '../functions'
import { writtenOut } from '../functions/writtenOut'
import { toNumber } from '../arithmetic/rational'
import {
  type CallTree,
  type Condition,
  literalFraction,
  namesIn,
  type PiecesTree,
  type PowerTree,
  type Tree,
} from '../formula/tree'
import { compileBlocks, type BlockProgram } from './blocks'
import { type BoxCode, compileBoxes, encloseRange } from './enclosures'
import { withValues } from './withValues'
import {
  addJets,
  constantJet,
  divideJets,
  expJet,
  isConstant,
  type Jet,
  joinJets,
  lnJet,
  type Look,
  multiplyJets,
  realPowerJet,
  scaleJet,
  type Side,
  signBeside,
  toDerivatives,
  undefinedJet,
  valueOnly,
  variableJet,
  wholePowerJet,
} from '../arithmetic/jets'
import { realPower, rootPower } from '../arithmetic/realPower'
import { holds } from '../formula/relations'

/** A function of one real variable, ready to be evaluated. */
export interface RealFunction {
  readonly tree: Tree
  readonly variable: string
  /** f(x); NaN outside the domain. Never throws. */
  value(x: number): number
  /** f at each of xs, into `out` where it is given (at least as long as xs). */
  values(xs: ArrayLike<number>, out?: Float64Array): Float64Array
  /** [f(x), f'(x), …] up to the order: true derivatives, by Taylor arithmetic; NaN where none is. */
  derivatives(x: number, order: number): number[]
  /**
   * [f(x−), f′(x−), …] for side -1 and [f(x+), f′(x+), …] for side 1: what f and its derivatives
   * tend to on one side where pieces, kinks or steps lie at x; elsewhere what they are.
   */
  beside(x: number, side: -1 | 1, order: number): number[]
  /**
   * An interval that surely holds every value f has on the box from lo to hi (either way round);
   * bounds may be infinite, and both are NaN where f has no value there.
   */
  enclose(lo: number, hi: number): [lo: number, hi: number]
  /** Values of the sliders. */
  readonly parameters: Readonly<Record<string, number>>
  /** The same function with other values for its sliders; nothing is compiled again. */
  withParameters(parameters: Readonly<Record<string, number>>): RealFunction
}

export interface CompileOptions {
  variable?: string
  /** Values of the sliders; a name without one evaluates to NaN. */
  parameters?: Readonly<Record<string, number>>
}

/** One node, evaluated at x with the slider values p in their slots. */
type Scalar = (x: number, p: Float64Array) => number
type JetCode = (x: Jet, p: Float64Array, look: Look) => Jet

interface Slots {
  variable: string
  of: ReadonlyMap<string, number>
}

/**
 * Compiles a tree without references to other curves to closures (one value, jets) and, on first
 * use, to a tape of block operations (many values). No code is generated from text.
 */
export function compileTree(typed: Tree, options: CompileOptions = {}): RealFunction {
  const tree = writtenOut(typed)
  const variable = options.variable ?? 'x'
  const sliderNames = [...namesIn(tree)].filter((n) => n !== variable)
  const slots: Slots = { variable, of: new Map(sliderNames.map((n, i) => [n, i])) }
  const scalar = compileScalar(tree, slots)
  let blocks: BlockProgram | undefined
  let jets: JetCode | undefined

  const bind = (parameters: Readonly<Record<string, number>>): RealFunction => {
    let boxes: BoxCode | undefined
    const p = Float64Array.from(sliderNames, (n) => parameters[n] ?? NaN)
    return {
      tree,
      variable,
      value: (x) => scalar(x, p),
      values(xs, out = new Float64Array(xs.length)) {
        blocks ??= compileBlocks(tree, variable, slots.of)
        blocks(xs, out, p)
        return out
      },
      derivatives(x, order) {
        jets ??= compileJets(tree, slots)
        return toDerivatives(jetAt(jets, x, order + 1, p))
      },
      beside(x, side, order) {
        jets ??= compileJets(tree, slots)
        return toDerivatives(jetBeside(jets, x, side, order + 1, p))
      },
      enclose(lo, hi) {
        boxes ??= compileBoxes(withValues(tree, parameters), variable)
        const range = encloseRange(boxes, Math.min(lo, hi), Math.max(lo, hi))
        return [range.lo, range.hi]
      },
      parameters,
      withParameters: bind,
    }
  }
  return bind(options.parameters ?? {})
}

/** More coefficients than asked for tell what vanishes at a kink from what stays: (x³)^(1/3). */
const extraAtKinks = 12

/** The jet at a point; where the sides may differ, each on its own and then joined. */
function jetAt(code: JetCode, x: number, length: number, p: Float64Array): Jet {
  const look: Look = { side: 0, splits: false }
  const here = code(variableJet(x, length), p, look)
  if (!look.splits || length === 1 || Number.isNaN(here[0]!)) return here
  const beside = (side: -1 | 1) => jetBeside(code, x, side, length, p)
  return joinJets(beside(-1), beside(1), here[0])
}

const jetBeside = (code: JetCode, x: number, side: -1 | 1, length: number, p: Float64Array): Jet =>
  code(variableJet(x, length + extraAtKinks), p, { side, splits: false }).slice(0, length)

function compileScalar(tree: Tree, slots: Slots): Scalar {
  switch (tree.kind) {
    case 'number': {
      const value = toNumber(tree.exact)
      return () => value
    }
    case 'constant': {
      const value = tree.name === 'pi' ? Math.PI : Math.E
      return () => value
    }
    case 'name': {
      if (tree.name === slots.variable) return (x) => x
      const slot = slots.of.get(tree.name)!
      return (_x, p) => p[slot]!
    }
    case 'sum': {
      const terms = tree.terms.map((t) => compileScalar(t, slots))
      if (terms.length === 2) {
        const [a, b] = terms as [Scalar, Scalar]
        return (x, p) => a(x, p) + b(x, p)
      }
      return (x, p) => {
        let total = terms[0]!(x, p)
        for (let i = 1; i < terms.length; i++) total += terms[i]!(x, p)
        return total
      }
    }
    case 'product': {
      const factors = tree.factors.map((t) => compileScalar(t, slots))
      if (factors.length === 2) {
        const [a, b] = factors as [Scalar, Scalar]
        return (x, p) => a(x, p) * b(x, p)
      }
      return (x, p) => {
        let total = factors[0]!(x, p)
        for (let i = 1; i < factors.length; i++) total *= factors[i]!(x, p)
        return total
      }
    }
    case 'quotient': {
      const above = compileScalar(tree.above, slots)
      const below = compileScalar(tree.below, slots)
      return (x, p) => {
        const b = below(x, p)
        return b === 0 ? NaN : above(x, p) / b
      }
    }
    case 'power':
      return compilePower(tree, slots)
    case 'call':
      return compileCall(tree, slots)
    case 'curve':
      throw new TypeError(`the curve ${tree.name} must be expanded before compiling`)
    case 'pieces':
      return compilePieces(tree, slots)
  }
}

function compilePower(tree: PowerTree, slots: Slots): Scalar {
  const base = compileScalar(tree.base, slots)
  const fraction = literalFraction(tree.exponent)
  if (fraction) {
    const root = rootPower(fraction)
    return (x, p) => root(base(x, p))
  }
  const exponent = compileScalar(tree.exponent, slots)
  if (tree.base.kind === 'constant' && tree.base.name === 'e') {
    return (x, p) => Math.exp(exponent(x, p))
  }
  if (tree.exponent.kind === 'number') {
    const fixed = toNumber(tree.exponent.exact)
    return (x, p) => realPower(base(x, p), fixed)
  }
  return (x, p) => realPower(base(x, p), exponent(x, p))
}

function compileCall(tree: CallTree, slots: Slots): Scalar {
  const args = tree.args.map((t) => compileScalar(t, slots))
  switch (tree.name) {
    case 'logBase': {
      const [base, of] = args as [Scalar, Scalar]
      return (x, p) => logToBase(base(x, p), of(x, p))
    }
    case 'min':
    case 'max': {
      const pick = tree.name === 'min' ? Math.min : Math.max
      return (x, p) => {
        let best = args[0]!(x, p)
        for (let i = 1; i < args.length; i++) best = pick(best, args[i]!(x, p))
        return best
      }
    }
    default: {
      const { value } = entryOf(tree.name)
      const of = args[0]!
      return (x, p) => value(of(x, p))
    }
  }
}

function compileCondition(
  condition: Condition,
  slots: Slots,
): (x: number, p: Float64Array) => boolean {
  if (condition.kind !== 'compare') {
    const parts = condition.of.map((part) => compileCondition(part, slots))
    return condition.kind === 'all'
      ? (x, p) => parts.every((part) => part(x, p))
      : (x, p) => parts.some((part) => part(x, p))
  }
  const terms = condition.terms.map((t) => compileScalar(t, slots))
  const { relations } = condition
  return (x, p) => {
    let left = terms[0]!(x, p)
    for (let i = 0; i < relations.length; i++) {
      const right = terms[i + 1]!(x, p)
      if (!holds(relations[i]!, left, right)) return false
      left = right
    }
    return true
  }
}

function compilePieces(tree: PiecesTree, slots: Slots): Scalar {
  const all = tree.pieces.map(({ body, when }) => ({
    body: compileScalar(body, slots),
    when: when && compileCondition(when, slots),
  }))
  return (x, p) => {
    // Outside its domain a curve has no value, not even the one of "otherwise".
    if (Number.isNaN(x)) return NaN
    for (const { body, when } of all) if (!when || when(x, p)) return body(x, p)
    return NaN
  }
}

function compileJets(tree: Tree, slots: Slots): JetCode {
  switch (tree.kind) {
    case 'number':
    case 'constant': {
      const scalar = compileScalar(tree, slots)
      return (x, p) => constantJet(scalar(0, p), x.length)
    }
    case 'name': {
      if (tree.name === slots.variable) return (x) => x
      const slot = slots.of.get(tree.name)!
      return (x, p) => constantJet(p[slot]!, x.length)
    }
    case 'sum': {
      const terms = tree.terms.map((t) => compileJets(t, slots))
      return (x, p, look) => terms.map((t) => t(x, p, look)).reduce(addJets)
    }
    case 'product': {
      const factors = tree.factors.map((t) => compileJets(t, slots))
      return (x, p, look) => factors.map((f) => f(x, p, look)).reduce(multiplyJets)
    }
    case 'quotient': {
      const above = compileJets(tree.above, slots)
      const below = compileJets(tree.below, slots)
      return (x, p, look) => divideJets(above(x, p, look), below(x, p, look))
    }
    case 'power':
      return compilePowerJet(tree, slots)
    case 'call':
      return compileCallJet(tree, slots)
    case 'curve':
      throw new TypeError(`the curve ${tree.name} must be expanded before compiling`)
    case 'pieces':
      return compilePiecesJet(tree, slots)
  }
}

function compilePowerJet(tree: PowerTree, slots: Slots): JetCode {
  const base = compileJets(tree.base, slots)
  const fraction = literalFraction(tree.exponent)
  if (fraction) {
    const root = rootPower(fraction)
    const exponent = Number(fraction.n) / Number(fraction.d)
    const sign = fraction.d % 2n === 0n ? 'none' : fraction.n % 2n === 0n ? 'even' : 'odd'
    return (x, p, look) => {
      const u = base(x, p, look)
      return realPowerJet(u, exponent, root(u[0]!), look, sign)
    }
  }
  const exponent = compileJets(tree.exponent, slots)
  if (tree.base.kind === 'constant' && tree.base.name === 'e') {
    return (x, p, look) => expJet(exponent(x, p, look))
  }
  return (x, p, look) => {
    const u = base(x, p, look)
    const v = exponent(x, p, look)
    const value = realPower(u[0]!, v[0]!)
    if (Number.isNaN(value)) return undefinedJet(u.length)
    if (!isConstant(v)) {
      const jet = expJet(multiplyJets(v, lnJet(u)))
      jet[0] = value
      return jet
    }
    const r = v[0]!
    // Beyond 64 the recurrence for real powers is cheaper and as exact, away from zeros of u.
    if (Number.isInteger(r) && (Math.abs(r) <= 64 || u[0] === 0)) return wholePowerJet(u, r)
    return realPowerJet(u, r, value, look)
  }
}

function compileCallJet(tree: CallTree, slots: Slots): JetCode {
  const args = tree.args.map((t) => compileJets(t, slots))
  switch (tree.name) {
    case 'logBase': {
      const [base, of] = args as [JetCode, JetCode]
      return (x, p, look) => logToBaseJet(base(x, p, look), of(x, p, look))
    }
    case 'min':
    case 'max': {
      const sign = tree.name === 'min' ? 1 : -1
      return (x, p, look) =>
        args.map((a) => a(x, p, look)).reduce((u, v) => lesserJet(u, v, sign, look))
    }
    default: {
      const { jet } = entryOf(tree.name)
      const of = args[0]!
      return (x, p, look) => jet(of(x, p, look), look)
    }
  }
}

/** The lesser of two jets (the greater for sign -1), each side of the point on its own. */
function lesserJet(u: Jet, v: Jet, sign: 1 | -1, look: Look): Jet {
  const difference = addJets(u, scaleJet(v, -1))
  if (Number.isNaN(difference[0]!)) return undefinedJet(u.length)
  if (difference[0] !== 0) return difference[0]! * sign < 0 ? u : v
  if (look.side === 0) {
    look.splits = true
    return valueOnly(u[0]!, u)
  }
  return signBeside(difference, look.side) * sign <= 0 ? u : v
}

/** Whether a condition holds at the point (side 0) or right beside it. */
function compileConditionBeside(
  condition: Condition,
  slots: Slots,
): (x: Jet, p: Float64Array, side: Side, look: Look) => boolean {
  if (condition.kind !== 'compare') {
    const parts = condition.of.map((part) => compileConditionBeside(part, slots))
    return condition.kind === 'all'
      ? (x, p, side, look) => parts.every((part) => part(x, p, side, look))
      : (x, p, side, look) => parts.some((part) => part(x, p, side, look))
  }
  const terms = condition.terms.map((t) => compileJets(t, slots))
  const { relations } = condition
  return (x, p, side, look) => {
    const jets = terms.map((t) => t(x, p, look))
    return relations.every((relation, i) => {
      const difference = addJets(jets[i]!, scaleJet(jets[i + 1]!, -1))
      const sign = side === 0 ? difference[0]! : signBeside(difference, side)
      return holds(relation, sign, 0)
    })
  }
}

function compilePiecesJet(tree: PiecesTree, slots: Slots): JetCode {
  const all = tree.pieces.map(({ body, when }) => ({
    body: compileJets(body, slots),
    when: when && compileConditionBeside(when, slots),
  }))
  return (x, p, look) => {
    if (Number.isNaN(x[0]!)) return undefinedJet(x.length)
    const pick = (side: Side) => all.find(({ when }) => !when || when(x, p, side, look))
    const moving = x.length > 1 && !isConstant(x)
    if (look.side !== 0 && moving)
      return pick(look.side)?.body(x, p, look) ?? undefinedJet(x.length)
    const here = pick(0)
    if (!here) return undefinedJet(x.length)
    const jet = here.body(x, p, look)
    if (!moving || (pick(-1) === here && pick(1) === here)) return jet
    look.splits = true
    return valueOnly(jet[0]!, x)
  }
}

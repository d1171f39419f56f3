import { elementary, logToBase, logToBaseJet } from '../functions/table'
import { toNumber } from '../language/rational'
import {
  type CallTree,
  type Condition,
  literalFraction,
  namesIn,
  type PiecesTree,
  type PowerTree,
  type Tree,
} from '../language/tree'
import { compileBlocks, type BlockProgram } from './blocks'
import {
  addJets,
  constantJet,
  divideJets,
  expJet,
  isConstant,
  type Jet,
  joinJets,
  lnJet,
  multiplyJets,
  realPowerJet,
  scaleJet,
  signBeside,
  toDerivatives,
  undefinedJet,
  variableJet,
  wholePowerJet,
} from './jets'
import { realPower, rootPower } from './realPower'
import { holds } from './relations'

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
type JetCode = (x: Jet, p: Float64Array) => Jet

interface Slots {
  variable: string
  of: ReadonlyMap<string, number>
}

/**
 * Compiles a tree without references to other curves to closures (one value, jets) and, on first
 * use, to a tape of block operations (many values). No code is generated from text.
 */
export function compileTree(tree: Tree, options: CompileOptions = {}): RealFunction {
  const variable = options.variable ?? 'x'
  const sliderNames = [...namesIn(tree)].filter((n) => n !== variable)
  const slots: Slots = { variable, of: new Map(sliderNames.map((n, i) => [n, i])) }
  const scalar = compileScalar(tree, slots)
  let blocks: BlockProgram | undefined
  let jets: JetCode | undefined

  const bind = (parameters: Readonly<Record<string, number>>): RealFunction => {
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
        return toDerivatives(jets(variableJet(x, order + 1), p))
      },
      withParameters: bind,
    }
  }
  return bind(options.parameters ?? {})
}

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
      const { value } = elementary[tree.name]
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
      return (x, p) => terms.map((t) => t(x, p)).reduce(addJets)
    }
    case 'product': {
      const factors = tree.factors.map((t) => compileJets(t, slots))
      return (x, p) => factors.map((f) => f(x, p)).reduce(multiplyJets)
    }
    case 'quotient': {
      const above = compileJets(tree.above, slots)
      const below = compileJets(tree.below, slots)
      return (x, p) => divideJets(above(x, p), below(x, p))
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
    return (x, p) => {
      const u = base(x, p)
      return realPowerJet(u, exponent, root(u[0]!))
    }
  }
  const exponent = compileJets(tree.exponent, slots)
  if (tree.base.kind === 'constant' && tree.base.name === 'e') {
    return (x, p) => expJet(exponent(x, p))
  }
  return (x, p) => {
    const u = base(x, p)
    const v = exponent(x, p)
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
    return realPowerJet(u, r, value)
  }
}

function compileCallJet(tree: CallTree, slots: Slots): JetCode {
  const args = tree.args.map((t) => compileJets(t, slots))
  switch (tree.name) {
    case 'logBase': {
      const [base, of] = args as [JetCode, JetCode]
      return (x, p) => logToBaseJet(base(x, p), of(x, p))
    }
    case 'min':
    case 'max': {
      const sign = tree.name === 'min' ? 1 : -1
      return (x, p) => args.map((a) => a(x, p)).reduce((u, v) => lesserJet(u, v, sign))
    }
    default: {
      const { jet } = elementary[tree.name]
      const of = args[0]!
      return (x, p) => jet(of(x, p))
    }
  }
}

/** The lesser of two jets (the greater for sign -1), each side of the point on its own. */
function lesserJet(u: Jet, v: Jet, sign: 1 | -1): Jet {
  const difference = addJets(u, scaleJet(v, -1))
  if (Number.isNaN(difference[0]!)) return undefinedJet(u.length)
  if (difference[0] !== 0) return difference[0]! * sign < 0 ? u : v
  const on = (side: -1 | 1) => (signBeside(difference, side) * sign <= 0 ? u : v)
  return joinJets(on(-1), on(1))
}

type Side = -1 | 0 | 1

/** Whether a condition holds at the point (side 0) or right beside it. */
function compileConditionBeside(
  condition: Condition,
  slots: Slots,
): (x: Jet, p: Float64Array, side: Side) => boolean {
  if (condition.kind !== 'compare') {
    const parts = condition.of.map((part) => compileConditionBeside(part, slots))
    return condition.kind === 'all'
      ? (x, p, side) => parts.every((part) => part(x, p, side))
      : (x, p, side) => parts.some((part) => part(x, p, side))
  }
  const terms = condition.terms.map((t) => compileJets(t, slots))
  const { relations } = condition
  return (x, p, side) => {
    const jets = terms.map((t) => t(x, p))
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
  return (x, p) => {
    if (Number.isNaN(x[0]!)) return undefinedJet(x.length)
    const moving = x.length > 1 && !isConstant(x)
    const pick = (side: Side) => all.find(({ when }) => !when || when(x, p, side))
    const here = pick(0)
    if (!here) return undefinedJet(x.length)
    const jet = here.body(x, p)
    if (!moving) return jet
    const left = pick(-1)
    const right = pick(1)
    if (left === here && right === here) return jet
    const missing = undefinedJet(x.length)
    return joinJets(left?.body(x, p) ?? missing, right?.body(x, p) ?? missing, jet[0]!)
  }
}

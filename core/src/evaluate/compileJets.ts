import { entryOf, logToBaseJet } from '../functions'
import {
  type CallTree,
  type Condition,
  literalFraction,
  type PiecesTree,
  type PowerTree,
  type Tree,
} from '../formula/tree'
import {
  addJets,
  constantJet,
  divideJets,
  expJet,
  isConstant,
  type Jet,
  lnJet,
  type Look,
  multiplyJets,
  realPowerJet,
  scaleJet,
  type Side,
  signBeside,
  undefinedJet,
  valueOnly,
  wholePowerJet,
} from '../arithmetic/jets'
import { realPower, rootPower } from '../arithmetic/realPower'
import { holds } from '../formula/relations'
import type { JetCode, Slots } from './slots'
import { compileScalar } from './compileScalar'

export function compileJets(tree: Tree, slots: Slots): JetCode {
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
    case 'area': {
      const [at, rate] = [compileJets(tree.at, slots), compileJets(tree.rate, slots)]
      const { area } = tree
      return (x, p, look) => {
        const u = at(x, p, look)
        const value = area.value(u[0]!)
        return u.length === 1 ? constantJet(value, 1) : chainedJet(value, rate(x, p, look), u)
      }
    }
    case 'pieces':
      return compilePiecesJet(tree, slots)
  }
}

/** A(u) from its value, the jet of A′(u) and that of u: its derivative is A′(u)·u′. */
function chainedJet(value: number, rate: Jet, u: Jet): Jet {
  const inner = u.map((_, k) => (k + 1) * (u[k + 1] ?? 0))
  const slope = multiplyJets(rate, inner)
  return u.map((_, k) => (k === 0 ? value : slope[k - 1]! / k))
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

import { entryOf, logToBase } from '../functions'
import { toNumber } from '../arithmetic/rational'
import {
  type CallTree,
  type Condition,
  literalFraction,
  type PiecesTree,
  type PowerTree,
  type Tree,
} from '../formula/tree'
import { realPower, rootPower } from '../arithmetic/realPower'
import { holds } from '../formula/relations'
import type { Slots } from './slots'

/** One node, evaluated at x with the slider values p in their slots. */
type Scalar = (x: number, p: Float64Array) => number

export function compileScalar(tree: Tree, slots: Slots): Scalar {
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
    case 'area': {
      const at = compileScalar(tree.at, slots)
      const { area } = tree
      return (x, p) => area.value(at(x, p))
    }
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

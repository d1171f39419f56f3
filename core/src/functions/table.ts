import {
  absJet,
  chainJet,
  constantJet,
  divideJets,
  expJet,
  hyperbolicJets,
  isConstant,
  type Jet,
  lnJet,
  type Look,
  multiplyJets,
  realPowerJet,
  scaleJet,
  signBeside,
  addJets,
  sineCosineJets,
  undefinedJet,
  valueOnly,
} from '../evaluate/jets'
import {
  call,
  compare,
  type Condition,
  type FunctionName,
  negate,
  pieces,
  power,
  product,
  quotient,
  sum,
  type Tree,
  whole,
} from '../language/tree'

/** An elementary function of one argument: all that the rest of core knows about it. */
export interface ElementaryFunction {
  /** The real value; NaN outside the domain. Accuracy is that of the Math function it rests on. */
  value: (x: number) => number
  /** The derivative by the argument, as a tree in it. Undefined where there is none. */
  derivative: (u: Tree) => Tree
  /** Taylor arithmetic; see evaluate/jets. */
  jet: (u: Jet, look: Look) => Jet
  /** The real domain as a condition on the argument, where it is not everything. */
  domain?: (u: Tree) => Condition
}

const one = whole(1)
const square = (u: Tree) => power(u, whole(2))
const jetOfOne = (u: Jet) => constantJet(1, u.length)
/** 1 - u² or 1 + u² as a jet. */
const onePlus = (sign: 1 | -1, u: Jet) => addJets(jetOfOne(u), scaleJet(multiplyJets(u, u), sign))
const reciprocal = (u: Jet) => divideJets(jetOfOne(u), u)
const rootJet = (u: Jet, look: Look) => realPowerJet(u, 0.5, Math.sqrt(u[0]!), look)
const inverseSineSlope = (u: Jet, look: Look) => reciprocal(rootJet(onePlus(-1, u), look))
const inverseSecantSlope = (u: Jet, look: Look) =>
  reciprocal(multiplyJets(absJet(u, look), rootJet(scaleJet(onePlus(-1, u), -1), look)))
const withinOne = (u: Tree): Condition => ({
  kind: 'compare',
  terms: [whole(-1), u, whole(1)],
  relations: ['<=', '<='],
})
const beyondOne = (u: Tree) => compare(call('abs', u), '>=', one)
const inverseSecantDerivative = (u: Tree) =>
  quotient(one, product(call('abs', u), call('sqrt', sum(square(u), whole(-1)))))
/**
 * The jet of a function that is level between its steps: at a step each side has the value it has
 * beside it, for an argument that goes below (-1), stays at (0) or goes above (1) the step.
 */
const stepJet =
  (
    value: (x: number) => number,
    atStep: (x: number) => boolean,
    beside: (step: number, way: number) => number,
  ) =>
  (u: Jet, look: Look) => {
    const at = u[0]!
    if (!atStep(at)) return constantJet(value(at), u.length)
    if (look.side === 0) {
      look.splits = true
      return valueOnly(value(at), u)
    }
    if (isConstant(u)) return constantJet(value(at), u.length)
    const moved = u.slice()
    moved[0] = 0
    return constantJet(beside(at, signBeside(moved, look.side)), u.length)
  }
/** 0 where the condition holds, nothing elsewhere. */
const levelWhere = (when: Condition): Tree => pieces({ body: whole(0), when })
/** Math.sign without its negative zero. */
const sign = (x: number) => Math.sign(x) + 0
const positive = (u: Tree) => compare(u, '>', whole(0))

/** The elementary functions of one argument. logBase, min and max are handled beside it. */
export const elementary: Record<
  Exclude<FunctionName, 'logBase' | 'min' | 'max'>,
  ElementaryFunction
> = {
  sin: {
    value: Math.sin,
    derivative: (u) => call('cos', u),
    jet: (u) => sineCosineJets(u)[0],
  },
  cos: {
    value: Math.cos,
    derivative: (u) => negate(call('sin', u)),
    jet: (u) => sineCosineJets(u)[1],
  },
  tan: {
    value: Math.tan,
    derivative: (u) => power(call('sec', u), whole(2)),
    jet: (u) => {
      const [s, c] = sineCosineJets(u)
      return divideJets(s, c)
    },
  },
  sec: {
    value: (x) => 1 / Math.cos(x),
    derivative: (u) => product(call('sec', u), call('tan', u)),
    jet: (u) => reciprocal(sineCosineJets(u)[1]),
  },
  csc: {
    value: (x) => (Math.sin(x) === 0 ? NaN : 1 / Math.sin(x)),
    derivative: (u) => negate(product(call('csc', u), call('cot', u))),
    jet: (u) => reciprocal(sineCosineJets(u)[0]),
  },
  cot: {
    value: (x) => (Math.sin(x) === 0 ? NaN : Math.cos(x) / Math.sin(x)),
    derivative: (u) => negate(power(call('csc', u), whole(2))),
    jet: (u) => {
      const [s, c] = sineCosineJets(u)
      return divideJets(c, s)
    },
  },
  arcsin: {
    value: Math.asin,
    derivative: (u) => quotient(one, call('sqrt', sum(one, negate(square(u))))),
    jet: (u, look) => chainJet(u, Math.asin(u[0]!), inverseSineSlope(u, look)),
    domain: withinOne,
  },
  arccos: {
    value: Math.acos,
    derivative: (u) => quotient(whole(-1), call('sqrt', sum(one, negate(square(u))))),
    jet: (u, look) => chainJet(u, Math.acos(u[0]!), scaleJet(inverseSineSlope(u, look), -1)),
    domain: withinOne,
  },
  arctan: {
    value: Math.atan,
    derivative: (u) => quotient(one, sum(one, square(u))),
    jet: (u) => chainJet(u, Math.atan(u[0]!), reciprocal(onePlus(1, u))),
  },
  arcsec: {
    value: (x) => Math.acos(1 / x),
    derivative: inverseSecantDerivative,
    jet: (u, look) => chainJet(u, Math.acos(1 / u[0]!), inverseSecantSlope(u, look)),
    domain: beyondOne,
  },
  arccsc: {
    value: (x) => Math.asin(1 / x),
    derivative: (u) => negate(inverseSecantDerivative(u)),
    jet: (u, look) => chainJet(u, Math.asin(1 / u[0]!), scaleJet(inverseSecantSlope(u, look), -1)),
    domain: beyondOne,
  },
  // The branch with values between 0 and π, without the cancellation of π/2 - arctan x.
  arccot: {
    value: arccot,
    derivative: (u) => quotient(whole(-1), sum(one, square(u))),
    jet: (u) => chainJet(u, arccot(u[0]!), scaleJet(reciprocal(onePlus(1, u)), -1)),
  },
  sinh: {
    value: Math.sinh,
    derivative: (u) => call('cosh', u),
    jet: (u) => hyperbolicJets(u)[0],
  },
  cosh: {
    value: Math.cosh,
    derivative: (u) => call('sinh', u),
    jet: (u) => hyperbolicJets(u)[1],
  },
  tanh: {
    value: Math.tanh,
    derivative: (u) => quotient(one, power(call('cosh', u), whole(2))),
    // v' = u' (1 - v²), with v on both sides: each step uses the coefficients before it. The
    // quotient sinh/cosh would overflow for large arguments.
    jet: (u) => {
      const v = constantJet(Math.tanh(u[0]!), u.length)
      const slope = new Float64Array(u.length)
      for (let k = 1; k < u.length; k++) {
        slope[k - 1] = onePlus(-1, v)[k - 1]!
        v[k] = chainJet(u, v[0]!, slope)[k]!
      }
      return v
    },
  },
  exp: {
    value: Math.exp,
    derivative: (u) => call('exp', u),
    jet: expJet,
  },
  ln: {
    value: (x) => (x > 0 ? Math.log(x) : NaN),
    derivative: (u) => quotient(one, u),
    jet: lnJet,
    domain: positive,
  },
  log: {
    value: (x) => (x > 0 ? Math.log10(x) : NaN),
    derivative: (u) => quotient(one, product(u, call('ln', whole(10)))),
    jet: (u) => {
      const jet = scaleJet(lnJet(u), 1 / Math.LN10)
      if (u[0]! > 0) jet[0] = Math.log10(u[0]!)
      return jet
    },
    domain: positive,
  },
  sqrt: {
    value: Math.sqrt,
    derivative: (u) => quotient(one, product(whole(2), call('sqrt', u))),
    jet: rootJet,
    domain: (u) => compare(u, '>=', whole(0)),
  },
  cbrt: {
    value: Math.cbrt,
    derivative: (u) => quotient(one, product(whole(3), power(call('cbrt', u), whole(2)))),
    jet: (u, look) => realPowerJet(u, 1 / 3, Math.cbrt(u[0]!), look, 'odd'),
  },
  abs: {
    value: Math.abs,
    derivative: (u) => quotient(u, call('abs', u)),
    jet: absJet,
  },
  sgn: {
    value: sign,
    derivative: (u) => levelWhere(compare(u, '!=', whole(0))),
    jet: stepJet(
      sign,
      (x) => x === 0,
      (_zero, way) => way,
    ),
  },
  floor: {
    value: Math.floor,
    derivative: (u) => levelWhere(compare(u, '!=', call('floor', u))),
    jet: stepJet(Math.floor, Number.isInteger, (step, way) => (way < 0 ? step - 1 : step)),
  },
  ceil: {
    value: Math.ceil,
    derivative: (u) => levelWhere(compare(u, '!=', call('ceil', u))),
    jet: stepJet(Math.ceil, Number.isInteger, (step, way) => (way > 0 ? step + 1 : step)),
  },
}

function arccot(x: number): number {
  if (x === 0) return Math.PI / 2
  return x > 0 ? Math.atan(1 / x) : Math.PI + Math.atan(1 / x)
}

/** log of x to a base: NaN unless both are above 0 and the base is not 1. */
export function logToBase(base: number, x: number): number {
  if (!(x > 0) || !(base > 0) || base === 1) return NaN
  if (base === 2) return Math.log2(x)
  if (base === 10) return Math.log10(x)
  return Math.log(x) / Math.log(base)
}

/** log of a jet to a fixed or moving base. */
export function logToBaseJet(base: Jet, x: Jet): Jet {
  const value = logToBase(base[0]!, x[0]!)
  if (Number.isNaN(value)) return undefinedJet(x.length)
  const jet = divideJets(lnJet(x), lnJet(base))
  jet[0] = value
  return jet
}

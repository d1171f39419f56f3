import {
  addJets,
  constantJet,
  divideJets,
  type Jet,
  type Look,
  multiplyJets,
  realPowerJet,
  scaleJet,
} from '../arithmetic/jets'
import { power, sum, type Tree, whole } from '../formula/tree'

// What entries of more than one family are written with.

export const one = whole(1)
export const square = (u: Tree) => power(u, whole(2))
export const shifted = (u: Tree, by: number) => sum(u, whole(by))
/** The formulas that vanish where the argument is 1 or -1. */
export const aroundOne = (u: Tree) => [shifted(u, -1), shifted(u, 1)]

const jetOfOne = (u: Jet) => constantJet(1, u.length)
/** 1 - u² or 1 + u² as a jet. */
export const onePlus = (sign: 1 | -1, u: Jet) =>
  addJets(jetOfOne(u), scaleJet(multiplyJets(u, u), sign))
export const reciprocal = (u: Jet) => divideJets(jetOfOne(u), u)
export const rootJet = (u: Jet, look: Look) => realPowerJet(u, 0.5, Math.sqrt(u[0]!), look)

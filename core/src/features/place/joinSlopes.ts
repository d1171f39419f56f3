import { differentiate } from '../../algebra/differentiate'
import { compileTree } from '../../evaluate/compile'
import {
  compare,
  dependsOn,
  name,
  namesIn,
  pieces,
  type Piece,
  type Tree,
} from '../../formula/tree'
import { joinPlaces } from '../joins'
import { lookAtPlace } from './placeFacts'

/** More joins than these are not looked at one by one. */
const mostJoins = 20

/**
 * The derivative of a formula with its value at the joins of pieces where rules for pieces tell none:
 * a hole filled with its limit has a slope, found from the limit of the quotient of differences.
 */
export function derivativeWithJoins(tree: Tree, variable: string): Tree {
  const derivative = differentiate(tree, variable)
  if (tree.kind !== 'pieces' || [...namesIn(tree)].some((one) => one !== variable))
    return derivative
  const places = joinPlaces(tree, variable).filter((at) => !dependsOn(at, variable))
  if (places.length === 0 || places.length > mostJoins) return derivative
  const f = compileTree(tree, { variable })
  const slope = compileTree(derivative, { variable })
  const filled = places.flatMap((at): Piece[] => {
    const x = compileTree(at, { variable }).value(0)
    if (!Number.isFinite(x) || Number.isFinite(slope.value(x)) || !Number.isFinite(f.value(x))) {
      return []
    }
    const found = lookAtPlace(f, x, at)
    return found.slope?.kind === 'value' && found.slope.exact
      ? [{ body: found.slope.exact, when: compare(name(variable), '=', at) }]
      : []
  })
  if (filled.length === 0) return derivative
  const own = derivative.kind === 'pieces' ? derivative.pieces : [{ body: derivative, when: null }]
  return pieces(...filled, ...own)
}

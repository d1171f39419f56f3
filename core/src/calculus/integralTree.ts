import { antiderivative } from '../algebra/antiderivative'
import { substitute } from '../algebra/curves'
import { isTotal } from '../algebra/products'
import { simplify } from '../algebra/simplify'
import { compileTree } from '../evaluate/compile'
import { entryOf } from '../functions'
import {
  equalsNumber,
  isNumber,
  childrenOf,
  curvesIn,
  namesIn,
  negate,
  sum,
  type Tree,
} from '../formula/tree'
import type { WrittenIntegral } from '../language/parse'
import { accumulate } from './accumulate'
import { openArea } from './areaTree'

/** How far to either side of its beginning an area with a moving end is worked out at first. */
const firstReach = 10

/**
 * What an integral in a formula comes to: F(to) − F(from) where the integrand is continuous everywhere
 * and has an antiderivative; else an area up to its upper end, worked out in numbers with enclosures, for
 * which the integrand and its lower end hang on nothing else. A text says why there is neither.
 */
export function integralTree({ body, letter, from, to }: WrittenIntegral): Tree | string {
  const [curve] = [body, from, to].flatMap((part) => [...curvesIn(part)])
  if (curve !== undefined) {
    return `${curve} is a curve of the study: let the area under it be a curve of its own`
  }
  const whole = isContinuous(body) ? antiderivative(body, letter) : null
  if (whole) {
    const at = (place: Tree) => simplify(substitute(whole, letter, place))
    const below = at(from)
    // 0/a says no more than that a is not 0, which the upper end says too.
    const isNothing = below.kind === 'quotient' && equalsNumber(below.above, 0)
    return isNothing ? at(to) : simplify(sum(at(to), negate(below)))
  }
  const others = [...namesIn(body)].filter((name) => name !== letter)
  if (others.length > 0) {
    return `no formula is known for this area, and ${others[0]!} may move: let it be the area under a curve of its own`
  }
  const [lower, upper] = [numberOf(from), numberOf(to)]
  if (lower === null) return 'the lower end of this integral is a number'
  if (!Number.isFinite(lower)) return 'this integral begins where there is no number'
  const f = compileTree(body, { variable: letter })
  const [a, b] =
    upper === null ? [lower - firstReach, lower + firstReach] : [lower, upper].sort((p, q) => p - q)
  if (a === b) return simplify(sum(from, negate(from)))
  const area = accumulate(f, lower, a!, b!)
  const none = { value: 0, exact: null }
  const tree = openArea({
    called: '∫',
    f,
    lower: { value: lower, exact: from },
    start: none,
    from: a!,
    to: b!,
    area,
  })
  return substitute({ ...tree, written: { from, body, letter } }, letter, to)
}

/** The value of an end that hangs on nothing; null where it moves. */
function numberOf(tree: Tree): number | null {
  if (isNumber(tree) || namesIn(tree).size === 0) return compileTree(tree).value(0)
  return null
}

/** Whether a formula is continuous on all numbers, as its form shows: then F(to) − F(from) is the area. */
const isContinuous = (tree: Tree): boolean => isTotal(tree) && !mayBreak(tree)

function mayBreak(tree: Tree): boolean {
  if (tree.kind === 'pieces' || tree.kind === 'curve' || tree.kind === 'area') return true
  if (tree.kind === 'call') {
    const { breaks, breaksAtWholes } = entryOf(tree.name)
    if (breaks !== undefined || breaksAtWholes === true) return true
  }
  return childrenOf(tree).some(mayBreak)
}

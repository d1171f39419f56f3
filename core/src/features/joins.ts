import { nearlyEqual } from '../arithmetic/jets'
import type { RealFunction } from '../evaluate/compile'
import { childrenOf, type Condition, dependsOn, keyOf, type Tree } from '../formula/tree'

/** Where two pieces meet, and how f behaves there. */
export interface Join {
  x: number
  kind: 'smooth' | 'kink' | 'steep' | 'jump' | 'hole' | 'end'
  /** f(x); NaN where it has none. */
  value: number
  /** What value and slope tend to on each side; NaN where they tend to nothing. */
  left: readonly [value: number, slope: number]
  right: readonly [value: number, slope: number]
}

/** The places at which conditions on the variable alone change: x < 6 gives 6. */
export function joinPlaces(tree: Tree, variable: string): Tree[] {
  const found = new Map<string, Tree>()
  const isVariable = (t: Tree) => t.kind === 'name' && t.name === variable
  const visitCondition = (condition: Condition): void => {
    if (condition.kind !== 'compare') return condition.of.forEach(visitCondition)
    condition.relations.forEach((_, i) => {
      const [left, right] = [condition.terms[i]!, condition.terms[i + 1]!]
      const at = isVariable(left) ? right : isVariable(right) ? left : null
      if (at && !dependsOn(at, variable)) found.set(keyOf(at), at)
    })
  }
  const visit = (part: Tree): void => {
    if (part.kind === 'pieces') part.pieces.forEach(({ when }) => when && visitCondition(when))
    childrenOf(part).forEach(visit)
  }
  visit(tree)
  return [...found.values()]
}

/**
 * How f behaves at a place where its pieces may meet: values and slopes of both sides by Taylor
 * arithmetic, compared to within rounding (1e-12 of their size).
 */
export function describeJoin(f: RealFunction, x: number): Join {
  const [leftValue = NaN, leftSlope = NaN] = f.beside(x, -1, 1)
  const [rightValue = NaN, rightSlope = NaN] = f.beside(x, 1, 1)
  const value = f.value(x)
  const join = {
    x,
    value,
    left: [leftValue, leftSlope] as const,
    right: [rightValue, rightSlope] as const,
  }
  const kind = (): Join['kind'] => {
    if (!Number.isFinite(leftValue) || !Number.isFinite(rightValue)) return 'end'
    if (!nearlyEqual(leftValue, rightValue)) return 'jump'
    if (!nearlyEqual(value, leftValue)) return 'hole'
    if (!Number.isFinite(leftSlope) || !Number.isFinite(rightSlope)) return 'steep'
    return nearlyEqual(leftSlope, rightSlope) ? 'smooth' : 'kink'
  }
  return { ...join, kind: kind() }
}

import { childrenOf, type Condition, dependsOn, keyOf, type Tree } from '../formula/tree'

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

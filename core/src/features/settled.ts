import { compileTree } from '../evaluate/compile'
import { holds } from '../formula/relations'
import { maybeEntry } from '../functions'
import { type Condition, dependsOn, mapChildren, quotient, type Tree, whole } from '../formula/tree'

/**
 * The formula that holds around a place where it is smooth: bars, steps and pieces are settled. One
 * without any comes back as it is.
 */
export function settledAt(tree: Tree, variable: string, x: number): Tree {
  const valueOf = (part: Tree) => compileTree(part, { variable }).value(x)
  const visit = (part: Tree): Tree => {
    if (part.kind === 'pieces') {
      const chosen = part.pieces.find(({ when }) => !when || conditionHolds(when, valueOf))
      return chosen ? visit(chosen.body) : quotient(whole(0), whole(0))
    }
    if (part.kind === 'call' && dependsOn(part, variable)) {
      const value = part.args.map(valueOf)
      if (part.name === 'min' || part.name === 'max') {
        const best = part.name === 'min' ? Math.min(...value) : Math.max(...value)
        const chosen = part.args[value.indexOf(best)]
        return chosen ? visit(chosen) : part
      }
      const smooth = maybeEntry(part.name)?.smooth
      if (smooth) return smooth(value[0]!, visit(part.args[0]!)) ?? part
    }
    let changed = false
    const settled = mapChildren(part, (child) => {
      const next = visit(child)
      changed ||= next !== child
      return next
    })
    return changed ? settled : part
  }
  return visit(tree)
}

function conditionHolds(condition: Condition, valueOf: (part: Tree) => number): boolean {
  if (condition.kind !== 'compare') {
    const parts = condition.of.map((c) => conditionHolds(c, valueOf))
    return condition.kind === 'all' ? parts.every(Boolean) : parts.some(Boolean)
  }
  const values = condition.terms.map(valueOf)
  return condition.relations.every((r, i) => holds(r, values[i]!, values[i + 1]!))
}

import { maybeEntry } from '../functions'
import { childrenOf, countParts, type Tree } from '../formula/tree'

/** Work that can be stopped between two boxes; it yields the share of its budget that is spent. */
export type Steps<R> = Generator<number, R, void>

/** Takes all steps at once. */
export function finish<R>(steps: Steps<R>): R {
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

/**
 * How much work a search may do, shared by all that belongs to one question, in boxes of a short
 * formula; a box of a long one counts for more, as it costs more.
 */
export interface Budget {
  boxes: number
  most: number
  /** What is left over in clusters of boxes, and places where a formula breaks: looked at so far. */
  clusters: number
  joints: number
  /** Limits that were worked out by growth, which costs most. */
  growths: number
}

const mostBoxes = 3500

/** So many parts make a short formula; a function with poles, whose boxes cost more, counts for several. */
const partsPerBox = 40

const partsPerBreaking = 8

/** What a box of a formula costs of the budget. */
export const boxCost = (tree: Tree) =>
  Math.max(1, (countParts(tree) + partsPerBreaking * countBreaking(tree)) / partsPerBox)

function countBreaking(tree: Tree): number {
  const own = tree.kind === 'call' && maybeEntry(tree.name)?.breaks ? 1 : 0
  return childrenOf(tree).reduce((total, part) => total + countBreaking(part), own)
}

export const budgetOf = (most = mostBoxes): Budget => ({
  boxes: 0,
  most,
  clusters: 0,
  joints: 0,
  growths: 0,
})

/** So many limits of one question are worked out by growth; what comes after stays unsettled. */
const mostGrowths = 40

/** Whether another limit may be worked out by growth; one at a place without a form costs several. */
export function mayGrow(budget: Budget, exactPlace: boolean): boolean {
  budget.growths += exactPlace ? 1 : 6
  return budget.growths <= mostGrowths
}

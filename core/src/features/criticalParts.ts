import { compileBoxes } from '../evaluate/enclosures'
import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import { entryOf } from '../functions'
import { simplify } from '../algebra/simplify'
import {
  childrenOf,
  type Condition,
  dependsOn,
  keyOf,
  literalFraction,
  sum,
  type Tree,
  whole,
} from '../formula/tree'
import type { Stretch, Stretches } from './split'
import { valueAtSplit } from './pinned'
import { minus } from './minus'

/** More crossings of whole numbers, and more poles of one kind, are not listed one by one. */
export const [mostSteps, mostPlaces] = [400, 240]

/** A part of a formula that breaks it at whole numbers, and those it may take on the span. */
interface Stairs {
  part: Tree
  low: number
  high: number
}

/** The parts of a formula whose zeros may be splits, with those of its parts. */
export function criticalParts(
  tree: Tree,
  span: Interval,
  variable: string,
): { parts: Tree[]; stairs: Stairs[]; complete: boolean } {
  const found = new Map<string, Tree>()
  const stairs = new Map<string, Stairs>()
  let complete = true
  const add = (part: Tree) => {
    if (dependsOn(part, variable)) found.set(keyOf(part), part)
  }
  const visitCondition = (condition: Condition): void => {
    if (condition.kind !== 'compare') return condition.of.forEach(visitCondition)
    condition.relations.forEach((_, i) => add(minus(condition.terms[i]!, condition.terms[i + 1]!)))
  }
  const visit = (part: Tree): void => {
    childrenOf(part).forEach(visit)
    if (part.kind === 'quotient') add(part.below)
    if (part.kind === 'pieces') part.pieces.forEach(({ when }) => when && visitCondition(when))
    if (part.kind === 'power') {
      const { base, exponent } = part
      const fraction = literalFraction(exponent)
      const natural =
        !fraction && exponent.kind === 'number' && exponent.exact.d === 1n && exponent.exact.n >= 0n
      const positive = base.kind === 'constant' || (base.kind === 'number' && base.exact.n > 0n)
      if (!natural && !positive) add(base)
    }
    if (part.kind !== 'call') return
    const [first, second] = part.args as [Tree, Tree?]
    switch (part.name) {
      case 'logBase':
        add(first)
        add(sum(first, whole(-1)))
        return add(second!)
      case 'min':
      case 'max':
        for (let i = 0; i < part.args.length; i++) {
          for (let j = i + 1; j < part.args.length; j++) add(minus(part.args[i]!, part.args[j]!))
        }
        return
      default: {
        const { breaks, breaksAtWholes } = entryOf(part.name)
        breaks?.(first).forEach(add)
        if (!breaksAtWholes) return
        const [range] = compileBoxes(first, variable)(span, 1, I.noNotes())
        const [low, high] = [Math.floor(range!.lo), Math.ceil(range!.hi)]
        if (!(high - low <= mostSteps)) {
          complete = false
          return
        }
        if (dependsOn(first, variable)) stairs.set(keyOf(first), { part: first, low, high })
      }
    }
  }
  visit(tree)
  return { parts: [...found.values()], stairs: [...stairs.values()], complete }
}

/**
 * For each whole number that a part may take: the part less that number, and of the part taken apart
 * what can hold its zeros. A part is taken apart once for all of them.
 */
export function* levelsOf(
  { part, low, high }: Stairs,
  { stretches, splits }: Stretches,
  variable: string,
  from: number,
  to: number,
): Generator<{ level: Tree; near: Stretches }> {
  const rangeOf = ({ tree, from: lo, to: hi }: Stretch) =>
    tree && compileBoxes(tree, variable)({ lo, hi }, 1, I.noNotes())[0]!
  const ranges = stretches.map(rangeOf)
  const values = splits.map((split) => valueAtSplit(part, variable, split))
  for (let k = low; k <= high; k++) {
    // An end that is a rounded decimal may miss its number by the rounding.
    const slack = 1e-6 * Math.max(1, Math.abs(k))
    const holdsIt = (v: Interval | null) => v !== null && v.lo <= k + slack && v.hi >= k - slack
    const near = {
      stretches: stretches.flatMap((stretch, i) =>
        stretch.tree && holdsIt(ranges[i]!)
          ? [{ ...stretch, tree: simplify(sum(stretch.tree, whole(-k))) }]
          : [],
      ),
      splits: splits.filter(
        ({ enclosure: { lo, hi } }, i) =>
          holdsIt(values[i]!) || (lo <= from && from <= hi) || (lo <= to && to <= hi),
      ),
      unresolved: [],
    }
    if (near.stretches.length + near.splits.length > 0) {
      yield { level: sum(part, whole(-k)), near }
    }
  }
}

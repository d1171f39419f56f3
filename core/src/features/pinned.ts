import { compileBoxes } from '../evaluate/enclosures'
import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import { maybeEntry } from '../functions'
import { simplify } from '../algebra/simplify'
import { call, type Condition, keyOf, mapChildren, sum, type Tree, whole } from '../formula/tree'
import { minus } from './minus'
import type { Split } from './split'

const pins = new WeakMap<Tree, Map<string, Tree>>()

/**
 * The formula with the parts put to 0 that are exactly 0 at a split, simplified. The poles of a
 * tangent are many, and what vanishes there is the same at each.
 */
export function pinned(tree: Tree, zeros: ReadonlySet<string>): Tree {
  if (zeros.size === 0) return tree
  const key = [...zeros].sort().join('\n')
  let known = pins.get(tree)
  if (!known) pins.set(tree, (known = new Map<string, Tree>()))
  let result = known.get(key)
  if (!result) known.set(key, (result = simplify(pinnedAnew(tree, zeros))))
  return result
}

function pinnedAnew(tree: Tree, zeros: ReadonlySet<string>): Tree {
  const visitCondition = (condition: Condition): Condition => {
    if (condition.kind !== 'compare') return { ...condition, of: condition.of.map(visitCondition) }
    const { terms, relations } = condition
    const parts = relations.map((relation, i): Condition => {
      const [left, right] = [terms[i]!, terms[i + 1]!]
      const equal = zeros.has(keyOf(minus(left, right)))
      return {
        kind: 'compare',
        terms: equal ? [whole(0), whole(0)] : [visit(left), visit(right)],
        relations: [relation],
      }
    })
    return parts.length === 1 ? parts[0]! : { kind: 'all', of: parts }
  }
  const visit = (part: Tree): Tree => {
    if (zeros.has(keyOf(part))) return whole(0)
    if (part.kind === 'pieces') {
      return {
        ...part,
        pieces: part.pieces.map(({ body, when }) => ({
          body: visit(body),
          when: when && visitCondition(when),
        })),
      }
    }
    if (part.kind === 'call') {
      const [first] = part.args as [Tree]
      const isZero = (of: Tree) => zeros.has(keyOf(of))
      const entry = maybeEntry(part.name)
      const there = entry?.atBreak?.(first, isZero)
      if (there) return there
      if (entry?.breaksAtWholes) {
        for (const key of zeros) {
          const k = stepOf(key, first)
          if (k !== null) return call(part.name, whole(k))
        }
      }
      if (part.name === 'min' || part.name === 'max') {
        // Two that are equal there are one.
        const kept = part.args.filter(
          (a, i) => !part.args.slice(0, i).some((b) => isZero(minus(b, a))),
        )
        return kept.length === 1 ? visit(kept[0]!) : call(part.name, ...kept.map(visit))
      }
    }
    return mapChildren(part, visit)
  }
  return visit(tree)
}

/** The whole number k for which a key is that of part − k, or null. */
function stepOf(key: string, part: Tree): number | null {
  const found = /(-?\d+)\/1\)$/.exec(key)
  const k = found?.[1] === undefined ? null : -Number(found[1])
  return k !== null && key === keyOf(sum(part, whole(-k))) ? k : null
}

/** The value of a formula at a split, null where it has none there. */
export function valueAtSplit(tree: Tree, variable: string, split: Split): Interval | null {
  const notes = I.noNotes()
  const [value] = compileBoxes(pinned(tree, split.zeros), variable)(split.enclosure, 1, notes)
  if (notes.empty || (notes.partial && split.enclosure.lo === split.enclosure.hi)) return null
  return value!
}

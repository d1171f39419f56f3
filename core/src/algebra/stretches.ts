import { compileTree } from '../evaluate/compile'
import { compare, type Condition, dependsOn, namesIn, type Piece, type Tree } from '../formula/tree'
import { hasCurve } from './keepDomain'

/**
 * The pieces as the stretches they come to, closed only where a slope exists: "x < 1" followed by
 * "otherwise" becomes x < 1 and x > 1 at a kink. Null where a condition is no stretch of the
 * variable between plain numbers, or where a piece keeps more than one stretch.
 */
export function openAt(parts: Piece[], missing: Condition[], variable: string): Piece[] | null {
  const kinks = missing.map((m) => placeOf(m, variable))
  const numbers = kinks.map((k) => (k ? numberOf(k) : null))
  if (numbers.includes(null)) return null
  // Without a kink nothing has to be opened, and the conditions stay as they were written.
  if (numbers.length === 0) return parts
  let free: Stretch[] = [everything]
  const opened: Piece[] = []
  for (const { body, when } of parts) {
    const asked = when === null ? everything : stretchOf(when, variable)
    if (!asked) return null
    const kept = free.flatMap((f) => intersect(f, asked))
    free = free.flatMap((f) => without(f, asked))
    if (kept.length > 1) return null
    if (kept.length === 0) continue
    const isKink = (end: End) => end.at !== null && numbers.includes(end.value)
    const [low, high] = [kept[0]!.low, kept[0]!.high].map((end) =>
      isKink(end) ? { ...end, closed: false } : end,
    ) as [End, End]
    opened.push({ body, when: asCondition({ low, high }, variable) })
  }
  return opened
}

/** One end of a stretch; `at` is null where it goes on without end. */
interface End {
  at: Tree | null
  value: number
  closed: boolean
}

interface Stretch {
  low: End
  high: End
}

const everything: Stretch = {
  low: { at: null, value: -Infinity, closed: false },
  high: { at: null, value: Infinity, closed: false },
}

/** The value of a tree without names or curves, or null. */
const numberOf = (tree: Tree): number | null =>
  namesIn(tree).size > 0 || hasCurve(tree) ? null : compileTree(tree).value(0)

function stretchOf(condition: Condition, variable: string): Stretch | null {
  if (condition.kind !== 'compare') return null
  let stretch = everything
  for (const [i, relation] of condition.relations.entries()) {
    const [left, right] = [condition.terms[i]!, condition.terms[i + 1]!]
    const isVariable = (t: Tree) => t.kind === 'name' && t.name === variable
    if (relation === '=' || relation === '!=') return null
    const at = isVariable(left) ? right : isVariable(right) ? left : null
    const value = at && numberOf(at)
    if (at === null || value === null || Number.isNaN(value)) return null
    const end: End = { at, value, closed: relation.endsWith('=') }
    const above = relation.startsWith('>') === isVariable(left)
    const half = above ? { ...everything, low: end } : { ...everything, high: end }
    const met = intersect(stretch, half)
    if (met.length === 0) return null
    stretch = met[0]!
  }
  return stretch
}

const laterLow = (a: End, b: End) =>
  a.value > b.value || (a.value === b.value && !a.closed) ? a : b

const earlierHigh = (a: End, b: End) =>
  a.value < b.value || (a.value === b.value && !a.closed) ? a : b

function intersect(a: Stretch, b: Stretch): Stretch[] {
  const low = laterLow(a.low, b.low)
  const high = earlierHigh(a.high, b.high)
  const isEmpty =
    low.value > high.value || (low.value === high.value && !(low.closed && high.closed))
  return isEmpty ? [] : [{ low, high }]
}

/** What a stretch leaves of another. */
function without(from: Stretch, taken: Stretch): Stretch[] {
  const turned = (end: End): End => ({ ...end, closed: !end.closed })
  return [
    ...(taken.low.at ? intersect(from, { ...everything, high: turned(taken.low) }) : []),
    ...(taken.high.at ? intersect(from, { ...everything, low: turned(taken.high) }) : []),
  ]
}

function asCondition({ low, high }: Stretch, variable: string): Condition | null {
  const x: Tree = { kind: 'name', name: variable }
  if (low.at && high.at) {
    return {
      kind: 'compare',
      terms: [low.at, x, high.at],
      relations: [low.closed ? '<=' : '<', high.closed ? '<=' : '<'],
    }
  }
  if (low.at) return compare(x, low.closed ? '>=' : '>', low.at)
  return high.at ? compare(x, high.closed ? '<=' : '<', high.at) : null
}

/** The number a boundary x = c or c = x stands at, or null for any other kind. */
export function placeOf(condition: Condition, variable: string): Tree | null {
  if (condition.kind !== 'compare') return null
  const [left, right] = condition.terms
  const isVariable = (t: Tree) => t.kind === 'name' && t.name === variable
  if (isVariable(left!) && !dependsOn(right!, variable)) return right!
  if (isVariable(right!) && !dependsOn(left!, variable)) return left!
  return null
}

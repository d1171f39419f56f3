import { compileTree } from '../evaluate/compile'
import { maybeEntry } from '../functions'
import {
  childrenOf,
  compare,
  type Condition,
  conditionParts,
  equalsNumber,
  isNumber,
  keyOf,
  literalFraction,
  namesIn,
  negate,
  pieces,
  power,
  sum,
  type Tree,
  whole,
} from '../formula/tree'
import { isNeverZero, isPositive, isTotal } from './products'
import { simplify } from './simplify'

export const hasCurve = (tree: Tree): boolean =>
  tree.kind === 'curve' || childrenOf(tree).some(hasCurve)

/** What must hold for a tree to have a value, apart from what its parts ask for in pieces. */
function needs(tree: Tree, into = new Map<string, Condition>()): Map<string, Condition> {
  const add = (condition: Condition) =>
    into.set(conditionParts(condition).map(keyOf).join('|') + relationText(condition), condition)
  if (tree.kind === 'call') {
    const domain = maybeEntry(tree.name)?.domain
    if (domain) add(domain(tree.args[0]!))
  }
  if (tree.kind === 'call' && tree.name === 'logBase') {
    add(compare(tree.args[1]!, '>', whole(0)))
  }
  if (tree.kind === 'power') {
    const { base, exponent } = tree
    const fraction = literalFraction(exponent)
    const broken = fraction ? fraction.d % 2n === 0n : isNumber(exponent) && exponent.exact.d > 1n
    const negative = fraction ? fraction.n < 0n : isNumber(exponent) && exponent.exact.n < 0n
    if (broken) add(compare(base, negative ? '>' : '>=', whole(0)))
    else if (negative) add(compare(base, '!=', whole(0)))
    // A base to a moving power: a whole exponent may come up, so nothing surely fails below 0.
  }
  if (tree.kind === 'quotient' && !isTotal(tree)) add(compare(tree.below, '!=', whole(0)))
  if (tree.kind !== 'pieces') for (const part of childrenOf(tree)) needs(part, into)
  return into
}

const relationText = (condition: Condition): string =>
  condition.kind === 'compare' ? condition.relations.join() : condition.kind

/** Adds the conditions of the function that its derivative's rule has lost. */
export function keepDomain(rule: Tree, of: Tree, variable: string): Tree {
  const asked = needs(rule)
  const lost = [...needs(of)].filter(([, condition]) => !isImplied(condition, asked, variable))
  if (lost.length === 0) return rule
  const conditions = lost.map(([, condition]) => condition)
  const when: Condition = conditions.length === 1 ? conditions[0]! : { kind: 'all', of: conditions }
  return pieces({ body: rule, when })
}

function isImplied(
  condition: Condition,
  asked: ReadonlyMap<string, Condition>,
  variable: string,
): boolean {
  if (condition.kind !== 'compare') return false
  // A condition on numbers alone, such as 2 > 0, is settled here and now.
  const names = new Set(conditionParts(condition).flatMap((t) => [...namesIn(t)]))
  if (names.size === 0 && !conditionParts(condition).some(hasCurve)) {
    return holdsForNumbers(condition)
  }
  if (!names.has(variable) && names.size === 0) return true
  const [left, right] = condition.terms
  const relation = condition.relations[0]!
  if (equalsNumber(right!, 0)) {
    // t² + 1 > 0 goes without saying.
    if (['>', '>='].includes(relation) && isPositive(left!)) return true
    if (relation === '!=' && isNeverZero(left!)) return true
  }
  return [...asked.values()].some((other) => {
    if (other.kind !== 'compare') return false
    const key = (c: typeof other) => c.terms.map(keyOf).join('|')
    if (key(other) === key(condition) && other.relations.length === condition.relations.length) {
      const stronger = other.relations[0] === '>' && ['>=', '!=', '>'].includes(relation)
      if (stronger || other.relations.join() === condition.relations.join()) return true
    }
    // 1/x² asks for x² ≠ 0, which is x ≠ 0; 1/√(1-u²) asks for |u| ≤ 1.
    const below = other.terms[0]!
    if (relation === '!=' && equalsNumber(right!, 0) && other.relations[0] === '!=') {
      return factorKeys(below).includes(keyOf(rootless(left!))) || factorsCover(left!, below)
    }
    if (condition.relations.join() === '<=,<=' && other.relations[0] === '>=') {
      return (
        equalsNumber(left!, -1) &&
        equalsNumber(condition.terms[2]!, 1) &&
        keyOf(below) ===
          keyOf(simplify(sum(whole(1), negate(power(condition.terms[1]!, whole(2))))))
      )
    }
    return false
  })
}

/** The bases among the factors of a product. */
function factorKeys(tree: Tree): string[] {
  const factors = tree.kind === 'product' ? tree.factors : [tree]
  return factors.map((f) => keyOf(rootless(f)))
}

/** What must not be 0 for a power or root of it not to be 0. */
function rootless(tree: Tree): Tree {
  if (tree.kind === 'power') return rootless(tree.base)
  const isRoot = tree.kind === 'call' && maybeEntry(tree.name)?.root !== undefined
  return isRoot ? rootless(tree.args[0]!) : tree
}

/** Whether each factor of a denominator that can be 0 also stands in another one. */
function factorsCover(denominator: Tree, other: Tree): boolean {
  const keys = new Set(factorKeys(other))
  const factors = denominator.kind === 'product' ? denominator.factors : [denominator]
  return factors.every((f) => isNumber(f) || keys.has(keyOf(rootless(f))))
}

function holdsForNumbers(condition: Condition & { kind: 'compare' }): boolean {
  const when = pieces({ body: whole(1), when: condition })
  return compileTree(when).value(0) === 1
}

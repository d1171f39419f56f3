import { compileTree } from '../evaluate/compile'
import { entryOf, maybeEntry } from '../functions'
import { addRational, rational } from '../arithmetic/rational'
import {
  call,
  type CallTree,
  childrenOf,
  compare,
  type Condition,
  conditionParts,
  curve,
  dependsOn,
  exactly,
  equalsNumber,
  isNumber,
  keyOf,
  literalFraction,
  namesIn,
  negate,
  type Piece,
  pieces,
  type PiecesTree,
  power,
  type PowerTree,
  product,
  quotient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'
import { isNeverZero, isPositive, isTotal, quotientOfNonzero, simplify } from './simplify'

/**
 * The derivative of a tree by a variable, simplified. It carries its function's domain: where the
 * rule alone would have a value outside it, as 1/x has for (ln x)', the result is the rule with
 * the condition. At a join of pieces it has a value only where the function has a slope.
 * References to other curves are differentiated by the chain rule: (g(u))' is g'(u)·u'.
 */
export function differentiate(tree: Tree, variable: string): Tree {
  const done = new Map<Tree, Tree>()
  const derivative = (part: Tree): Tree => {
    if (!dependsOn(part, variable)) return whole(0)
    let result = done.get(part)
    if (!result) {
      result = byRule(part, variable, derivative)
      done.set(part, result)
    }
    return result
  }
  const plain = simplify(tree)
  const rule = simplify(derivative(plain))
  return simplify(keepDomain(rule, plain, variable))
}

function byRule(tree: Tree, variable: string, derivative: (part: Tree) => Tree): Tree {
  switch (tree.kind) {
    case 'number':
    case 'constant':
      return whole(0)
    case 'name':
      return whole(tree.name === variable ? 1 : 0)
    case 'sum':
      return sum(...tree.terms.map(derivative))
    case 'product':
      return productRule(tree.factors, variable, derivative)
    case 'quotient': {
      const { above, below } = tree
      if (!dependsOn(below, variable)) return quotient(derivative(above), below)
      if (!dependsOn(above, variable)) {
        return negate(quotient(product(above, derivative(below)), power(below, whole(2))))
      }
      return quotient(
        sum(product(derivative(above), below), negate(product(above, derivative(below)))),
        power(below, whole(2)),
      )
    }
    case 'power':
      return powerRule(tree, variable, derivative)
    case 'call':
      return callRule(tree, variable, derivative)
    case 'curve':
      return product(curve(tree.name, tree.primes + 1, tree.at), derivative(tree.at))
    case 'pieces':
      return piecesRule(tree, variable)
  }
}

/** A factor of a product, or two that are one: u|u|, whose derivative 2|u|u′ holds where u is 0. */
interface Factor {
  tree: Tree
  slope: () => Tree
}

function pairUp(factors: readonly Tree[], derivative: (part: Tree) => Tree): Factor[] {
  const bars = factors.findIndex((f) => f.kind === 'call' && f.name === 'abs')
  const inner = bars < 0 ? null : (factors[bars] as CallTree).args[0]!
  const twin = inner ? factors.findIndex((f) => keyOf(f) === keyOf(inner)) : -1
  const single = (tree: Tree): Factor => ({ tree, slope: () => derivative(tree) })
  if (!inner || twin < 0) return factors.map(single)
  const pair: Factor = {
    tree: product(inner, factors[bars]!),
    slope: () => product(whole(2), factors[bars]!, derivative(inner)),
  }
  return [...factors.filter((_, i) => i !== bars && i !== twin).map(single), pair]
}

/** One term for each factor that moves; the still ones stay in front. */
function productRule(
  factors: readonly Tree[],
  variable: string,
  derivative: (part: Tree) => Tree,
): Tree {
  const all = pairUp(factors, derivative)
  const terms = all.flatMap(({ tree, slope }, i) =>
    dependsOn(tree, variable)
      ? [
          product(
            ...all.slice(0, i).map((f) => f.tree),
            slope(),
            ...all.slice(i + 1).map((f) => f.tree),
          ),
        ]
      : [],
  )
  return sum(...terms)
}

function powerRule(tree: PowerTree, variable: string, derivative: (part: Tree) => Tree): Tree {
  const { base, exponent } = tree
  if (!dependsOn(exponent, variable)) {
    const fraction = literalFraction(exponent)
    const lower = fraction
      ? exactly(addRational(fraction, rational(-1n)))
      : isNumber(exponent)
        ? exactly(addRational(exponent.exact, rational(-1n)), exponent.decimal)
        : sum(exponent, whole(-1))
    const factor = fraction ? exactly(fraction) : exponent
    // |u|^n with n above 1 is n·|u|^(n-2)·u·u′: no division, so it also holds where u is 0.
    if (base.kind === 'call' && base.name === 'abs' && isNumber(exponent) && !fraction) {
      const size = exponent.exact
      if (size.n >= 2n * size.d) {
        const left = exactly(addRational(size, rational(-2n)), exponent.decimal)
        const inner = base.args[0]!
        return product(factor, power(base, left), inner, derivative(inner))
      }
    }
    return product(factor, power(base, lower), derivative(base))
  }
  const growth = base.kind === 'constant' && base.name === 'e' ? [tree] : [call('ln', base), tree]
  if (!dependsOn(base, variable)) return product(...growth, derivative(exponent))
  // u^v is e^(v ln u), for u above 0, so u may be divided by freely.
  return product(
    tree,
    sum(
      product(derivative(exponent), call('ln', base)),
      quotientOfNonzero(product(exponent, derivative(base)), base),
    ),
  )
}

function callRule(
  tree: Tree & { kind: 'call' },
  variable: string,
  derivative: (part: Tree) => Tree,
): Tree {
  const [first, second] = tree.args
  switch (tree.name) {
    case 'logBase':
      if (dependsOn(first!, variable)) {
        return derivative(quotient(call('ln', second!), call('ln', first!)))
      }
      return quotient(derivative(second!), product(second!, call('ln', first!)))
    case 'min':
    case 'max': {
      // min(a, b, c) is min(a, min(b, c)): two pieces, without a slope where they cross.
      const [a, b] =
        tree.args.length > 2 ? [first!, call(tree.name, ...tree.args.slice(1))] : [first!, second!]
      const relation = tree.name === 'min' ? '<' : '>'
      return pieces(
        { body: derivative(a), when: compare(a, relation, b) },
        { body: derivative(b), when: compare(b, relation, a) },
      )
    }
    default:
      return product(entryOf(tree.name).derivative(first!), derivative(first!))
  }
}

/** Where two pieces may meet: each comparison in a condition, as left = right. */
function boundaries(condition: Condition): [Tree, Tree][] {
  if (condition.kind !== 'compare') return condition.of.flatMap(boundaries)
  return condition.relations.map((_, i) => [condition.terms[i]!, condition.terms[i + 1]!])
}

/**
 * Differentiates each piece. At a join whose place is a plain number the one-sided slopes decide,
 * by Taylor arithmetic: the join keeps its value where they agree and is left out where they do
 * not. A join that moves with a slider is left out; f.derivatives still answers there.
 */
function piecesRule(tree: PiecesTree, variable: string): Tree {
  const missing: Condition[] = []
  const seen = new Set<string>()
  for (const { when } of tree.pieces) {
    if (!when) continue
    for (const [left, right] of boundaries(when)) {
      const key = [keyOf(left), keyOf(right)].sort().join('=')
      if (seen.has(key)) continue
      seen.add(key)
      if (!hasSlopeWhere(tree, left, right, variable)) missing.push(compare(left, '=', right))
    }
  }
  const parts: Piece[] = tree.pieces.map(({ body, when }) => ({
    body: differentiate(body, variable),
    when,
  }))
  const opened = openAt(parts, missing, variable)
  return pieces(...(opened ?? [...withoutSlope(missing), ...parts]))
}

/**
 * The pieces as the stretches they come to, closed only where a slope exists: "x < 1" followed by
 * "otherwise" becomes x < 1 and x > 1 at a kink. Null where a condition is no stretch of the
 * variable between plain numbers, or where a piece keeps more than one stretch.
 */
function openAt(parts: Piece[], missing: Condition[], variable: string): Piece[] | null {
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
function placeOf(condition: Condition, variable: string): Tree | null {
  if (condition.kind !== 'compare') return null
  const [left, right] = condition.terms
  const isVariable = (t: Tree) => t.kind === 'name' && t.name === variable
  if (isVariable(left!) && !dependsOn(right!, variable)) return right!
  if (isVariable(right!) && !dependsOn(left!, variable)) return left!
  return null
}

/** A piece that is nowhere defined, put first so that it wins at the missing joins. */
function withoutSlope(missing: Condition[]): Piece[] {
  return missing.map((when) => ({ body: quotient(whole(0), whole(0)), when }))
}

function hasSlopeWhere(tree: PiecesTree, left: Tree, right: Tree, variable: string): boolean {
  const at = placeOf(compare(left, '=', right), variable)
  if (at === null || namesIn(at).size > 0) return false
  if ([...namesIn(tree)].some((n) => n !== variable)) return false
  if (hasCurve(tree)) return false
  const [, slope] = compileTree(tree, { variable }).derivatives(compileTree(at).value(0), 1)
  return !Number.isNaN(slope)
}

const hasCurve = (tree: Tree): boolean => tree.kind === 'curve' || childrenOf(tree).some(hasCurve)

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
function keepDomain(rule: Tree, of: Tree, variable: string): Tree {
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

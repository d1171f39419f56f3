import { compileTree } from '../evaluate/compile'
import { entryOf } from '../functions'
import { addRational, rational } from '../arithmetic/rational'
import {
  call,
  type CallTree,
  compare,
  type Condition,
  curve,
  dependsOn,
  exactly,
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
import { quotientOfNonzero, simplify } from './simplify'
import { hasCurve, keepDomain } from './keepDomain'
import { openAt, placeOf } from './stretches'

/**
 * The derivative of a tree by a variable, simplified. It carries its function's domain: where the
 * rule alone would have a value outside it, as 1/x has for (ln x)', the result is the rule with
 * the condition. At a join of pieces it has a value only where the function has a slope.
 * References to other curves are differentiated by the chain rule: (g(u))' is g'(u)·u'.
 */
export function differentiate(tree: Tree, variable: string): Tree {
  const known = derivatives.get(tree) ?? new Map<string, Tree>()
  derivatives.set(tree, known)
  let result = known.get(variable)
  if (!result) known.set(variable, (result = derivativeOf(tree, variable)))
  return result
}

// Trees never change: each is differentiated once by each variable.
const derivatives = new WeakMap<Tree, Map<string, Tree>>()

function derivativeOf(tree: Tree, variable: string): Tree {
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
    case 'area':
      return product(tree.rate, derivative(tree.at))
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
  // A piece of a single place has no slope of its own.
  const parts: Piece[] = tree.pieces.flatMap(({ body, when }) =>
    when && isOnePlace(when, variable) ? [] : [{ body: differentiate(body, variable), when }],
  )
  if (parts.length === 0) return quotient(whole(0), whole(0))
  const opened = openAt(parts, missing, variable)
  const open = missing.filter((place) => !parts.every(({ when }) => when && excludes(when, place)))
  return pieces(...(opened ?? [...withoutSlope(open), ...parts]))
}

/** x = 2, which holds at one place alone. */
const isOnePlace = (condition: Condition, variable: string): boolean =>
  condition.kind === 'compare'
    ? condition.relations.includes('=') && placeOf(condition, variable) !== null
    : condition.kind === 'all' && condition.of.some((part) => isOnePlace(part, variable))

/** Whether a condition never holds where two things are equal, as x ≠ 2 does not at 2. */
function excludes(condition: Condition, equal: Condition): boolean {
  if (condition.kind !== 'compare') {
    return condition.kind === 'all'
      ? condition.of.some((part) => excludes(part, equal))
      : condition.of.every((part) => excludes(part, equal))
  }
  if (equal.kind !== 'compare') return false
  const keysOf = (terms: readonly Tree[]) => terms.map(keyOf).sort().join('=')
  const place = keysOf(equal.terms)
  return condition.relations.some(
    (relation, i) =>
      ['<', '>', '!='].includes(relation) && keysOf(condition.terms.slice(i, i + 2)) === place,
  )
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

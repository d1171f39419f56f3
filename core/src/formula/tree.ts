import {
  one,
  rational,
  rationalFromDecimal,
  type Rational,
  toNumber,
  zero,
} from '../arithmetic/rational'

/**
 * A formula as a tree. Sums and products are n-ary, so that a formula with thousands of
 * terms is wide and not deep. Trees are never changed after they are made; parts are shared.
 */
export type Tree =
  | NumberTree
  | ConstantTree
  | NameTree
  | SumTree
  | ProductTree
  | QuotientTree
  | PowerTree
  | CallTree
  | CurveTree
  | AreaTree
  | PiecesTree

export interface NumberTree {
  readonly kind: 'number'
  readonly exact: Rational
  /** Written with a decimal point; results made from it are shown as decimals too. */
  readonly decimal: boolean
}
export interface ConstantTree {
  readonly kind: 'constant'
  readonly name: 'e' | 'pi'
}
/** The variable or a slider. */
export interface NameTree {
  readonly kind: 'name'
  readonly name: string
}
export interface SumTree {
  readonly kind: 'sum'
  readonly terms: readonly Tree[]
}
/** A minus sign is a factor of -1 in front. */
export interface ProductTree {
  readonly kind: 'product'
  readonly factors: readonly Tree[]
}
export interface QuotientTree {
  readonly kind: 'quotient'
  readonly above: Tree
  readonly below: Tree
}
export interface PowerTree {
  readonly kind: 'power'
  readonly base: Tree
  readonly exponent: Tree
}
/**
 * Which functions there are is said where they are made: each file of `functions` adds the names of
 * its own, so that trees need to know none of them.
 */
export interface FunctionNames {}
export type FunctionName = FunctionNames[keyof FunctionNames]

export interface CallTree {
  readonly kind: 'call'
  readonly name: FunctionName
  /** As many as its entry in `functions` takes; a logarithm's base comes first. */
  readonly args: readonly Tree[]
}
/** Another curve, or a derivative of it, at some value: f''(a) has two primes. */
export interface CurveTree {
  readonly kind: 'curve'
  readonly name: string
  readonly primes: number
  readonly at: Tree
}
/** What is known of an accumulated area without a formula for it. */
export interface AreaFunction {
  /** A text that is equal for equal areas. */
  readonly key: string
  /** The area up to x; NaN where there is none. */
  value(x: number): number
  /** Surely holds the area up to each place on the box; both NaN where there is none. */
  enclose(lo: number, hi: number): [lo: number, hi: number]
  /** The sign with which it grows beyond bounds towards x from the right (side 1) or the left; else null. */
  runsAway(x: number, side: 1 | -1): 1 | -1 | null
}
/** An accumulated area up to some value. Its rate of change by that value is a formula: the integrand. */
export interface AreaTree {
  readonly kind: 'area'
  /** What it is called where it is printed. */
  readonly name: string
  /** How it is written where it has no name: from where, and what is integrated by which letter. */
  readonly written?: { from: Tree; body: Tree; letter: string }
  readonly area: AreaFunction
  readonly at: Tree
  /** The integrand at that value. */
  readonly rate: Tree
}
/** The first piece whose condition holds; NaN where none does. */
export interface PiecesTree {
  readonly kind: 'pieces'
  readonly pieces: readonly Piece[]
}
export interface Piece {
  readonly body: Tree
  /** null stands for "otherwise". */
  readonly when: Condition | null
}
export type Relation = '<' | '<=' | '>' | '>=' | '=' | '!='
export type Condition =
  | {
      readonly kind: 'compare'
      /** A chain such as 1 <= x < 4: one more term than relations. */
      readonly terms: readonly Tree[]
      readonly relations: readonly Relation[]
    }
  | { readonly kind: 'all' | 'any'; readonly of: readonly Condition[] }

export const exactly = (exact: Rational, decimal = false): NumberTree => ({
  kind: 'number',
  exact,
  decimal,
})
export const whole = (n: number | bigint): NumberTree => exactly(rational(BigInt(n)))
export const decimal = (text: string): NumberTree =>
  exactly(rationalFromDecimal(text), text.includes('.') || text.includes('E'))
export const name = (letter: string): NameTree => ({ kind: 'name', name: letter })
export const constant = (which: 'e' | 'pi'): ConstantTree => ({ kind: 'constant', name: which })
export const sum = (...terms: Tree[]): Tree =>
  terms.length === 1 ? terms[0]! : { kind: 'sum', terms }
export const product = (...factors: Tree[]): Tree =>
  factors.length === 1 ? factors[0]! : { kind: 'product', factors }
export const quotient = (above: Tree, below: Tree): Tree => ({ kind: 'quotient', above, below })
export const power = (base: Tree, exponent: Tree): Tree => ({ kind: 'power', base, exponent })
export const call = (functionName: FunctionName, ...args: Tree[]): Tree => ({
  kind: 'call',
  name: functionName,
  args,
})
export const curve = (curveName: string, primes: number, at: Tree): Tree => ({
  kind: 'curve',
  name: curveName,
  primes,
  at,
})
export const pieces = (...all: Piece[]): Tree => ({ kind: 'pieces', pieces: all })
export const compare = (left: Tree, relation: Relation, right: Tree): Condition => ({
  kind: 'compare',
  terms: [left, right],
  relations: [relation],
})

export const isNumber = (tree: Tree): tree is NumberTree => tree.kind === 'number'
export const equalsNumber = (tree: Tree, value: number) =>
  tree.kind === 'number' && toNumber(tree.exact) === value
export const isZero = (tree: Tree) => tree.kind === 'number' && tree.exact.n === 0n
export const isOne = (tree: Tree) =>
  tree.kind === 'number' && tree.exact.n === 1n && tree.exact.d === 1n

/** Whether a tree is written with a minus sign in front: -3x, -x²/3. */
export const isNegative = (tree: Tree): boolean =>
  tree.kind === 'quotient' ? isNegative(tree.above) : splitCoefficient(tree)[0].exact.n < 0n

/** The tree with its sign turned; a number or a leading number factor takes the sign itself. */
export function negate(tree: Tree): Tree {
  if (tree.kind === 'number') {
    return exactly({ n: -tree.exact.n, d: tree.exact.d }, tree.decimal)
  }
  if (tree.kind === 'quotient' && isNegative(tree)) return quotient(negate(tree.above), tree.below)
  if (tree.kind === 'product' && tree.factors[0]?.kind === 'number') {
    const [first, ...rest] = tree.factors
    const turned = negate(first)
    return isOne(turned) ? product(...rest) : product(turned, ...rest)
  }
  return product(exactly({ n: -1n, d: 1n }), ...(tree.kind === 'product' ? tree.factors : [tree]))
}

/** Splits a tree into its number factor and the rest: -3x is [-3, x], x is [1, x], 7 is [7, 1]. */
export function splitCoefficient(tree: Tree): [NumberTree, Tree] {
  if (tree.kind === 'number') return [tree, exactly(one)]
  if (tree.kind === 'product' && tree.factors[0]?.kind === 'number') {
    const [first, ...rest] = tree.factors
    return [first, rest.length === 0 ? exactly(one) : product(...rest)]
  }
  return [exactly(one), tree]
}

export const conditionParts = (condition: Condition): readonly Tree[] =>
  condition.kind === 'compare' ? condition.terms : condition.of.flatMap(conditionParts)

/** The trees directly below a tree, conditions included. */
export function childrenOf(tree: Tree): readonly Tree[] {
  switch (tree.kind) {
    case 'number':
    case 'constant':
    case 'name':
      return []
    case 'sum':
      return tree.terms
    case 'product':
      return tree.factors
    case 'quotient':
      return [tree.above, tree.below]
    case 'power':
      return [tree.base, tree.exponent]
    case 'call':
      return tree.args
    case 'curve':
      return [tree.at]
    case 'area':
      return [tree.at, tree.rate]
    case 'pieces':
      return tree.pieces.flatMap((p) => (p.when ? [p.body, ...conditionParts(p.when)] : [p.body]))
  }
}

function mapCondition(condition: Condition, change: (part: Tree) => Tree): Condition {
  return condition.kind === 'compare'
    ? { ...condition, terms: condition.terms.map(change) }
    : { ...condition, of: condition.of.map((part) => mapCondition(part, change)) }
}

/** A tree of the same kind with each direct part replaced. */
export function mapChildren(tree: Tree, change: (part: Tree) => Tree): Tree {
  switch (tree.kind) {
    case 'number':
    case 'constant':
    case 'name':
      return tree
    case 'sum':
      return { kind: 'sum', terms: tree.terms.map(change) }
    case 'product':
      return { kind: 'product', factors: tree.factors.map(change) }
    case 'quotient':
      return quotient(change(tree.above), change(tree.below))
    case 'power':
      return power(change(tree.base), change(tree.exponent))
    case 'call':
      return { ...tree, args: tree.args.map(change) }
    case 'curve':
      return { ...tree, at: change(tree.at) }
    case 'area':
      return { ...tree, at: change(tree.at), rate: change(tree.rate) }
    case 'pieces':
      return {
        kind: 'pieces',
        pieces: tree.pieces.map(({ body, when }) => ({
          body: change(body),
          when: when && mapCondition(when, change),
        })),
      }
  }
}

const sizes = new WeakMap<Tree, number>()

/** How many parts a tree has, itself included. */
export function countParts(tree: Tree): number {
  let size = sizes.get(tree)
  if (size === undefined) {
    size = childrenOf(tree).reduce((total, part) => total + countParts(part), 1)
    sizes.set(tree, size)
  }
  return size
}

/** Every name (variable and sliders) a tree reads, in order of appearance. */
export function namesIn(tree: Tree, into: Set<string> = new Set()): Set<string> {
  if (tree.kind === 'name') into.add(tree.name)
  for (const part of childrenOf(tree)) namesIn(part, into)
  return into
}

/** Every other curve a tree reads. */
export function curvesIn(tree: Tree, into: Set<string> = new Set()): Set<string> {
  if (tree.kind === 'curve') into.add(tree.name)
  for (const part of childrenOf(tree)) curvesIn(part, into)
  return into
}

const dependence = new WeakMap<Tree, Map<string, boolean>>()

/** Whether a tree's value can change with the variable. Curves are taken at their argument alone. */
export function dependsOn(tree: Tree, variable: string): boolean {
  if (tree.kind === 'name') return tree.name === variable
  let known = dependence.get(tree)
  if (!known) dependence.set(tree, (known = new Map<string, boolean>()))
  let answer = known.get(variable)
  if (answer === undefined) {
    answer = childrenOf(tree).some((part) => dependsOn(part, variable))
    known.set(variable, answer)
  }
  return answer
}

const keys = new WeakMap<Tree, string>()

function conditionKey(condition: Condition): string {
  return condition.kind === 'compare'
    ? condition.terms.map((t, i) => keyOf(t) + (condition.relations[i] ?? '')).join('')
    : `${condition.kind}(${condition.of.map(conditionKey).join(',')})`
}

/** A text that is equal exactly for trees of equal structure. */
export function keyOf(tree: Tree): string {
  const known = keys.get(tree)
  if (known !== undefined) return known
  let key: string
  switch (tree.kind) {
    case 'number':
      key = `${tree.exact.n}/${tree.exact.d}`
      break
    case 'constant':
    case 'name':
      key = `${tree.kind}:${tree.name}`
      break
    case 'call':
      key = `${tree.name}(${tree.args.map(keyOf).join(',')})`
      break
    case 'curve':
      key = `curve:${tree.name}:${tree.primes}(${keyOf(tree.at)})`
      break
    case 'area':
      key = `area:${tree.area.key}(${keyOf(tree.at)},${keyOf(tree.rate)})`
      break
    case 'pieces':
      key = `pieces(${tree.pieces
        .map((p) => `${keyOf(p.body)}?${p.when ? conditionKey(p.when) : 'otherwise'}`)
        .join(';')})`
      break
    default:
      key = `${tree.kind}(${childrenOf(tree).map(keyOf).join(',')})`
  }
  keys.set(tree, key)
  return key
}

/**
 * A literal exponent p/q in lowest terms with q odd and above 1: the real root is meant.
 * Only a written quotient of whole numbers counts, a decimal such as 0.2 does not.
 */
export function literalFraction(exponent: Tree): Rational | null {
  const [coefficient, rest] = splitCoefficient(exponent)
  if (exponent.kind === 'number') {
    return exponent.decimal || exponent.exact.d === 1n ? null : exponent.exact
  }
  if (rest.kind !== 'quotient' || coefficient.decimal || coefficient.exact.d !== 1n) return null
  const { above, below } = rest
  if (above.kind !== 'number' || below.kind !== 'number') return null
  if (above.decimal || below.decimal || below.exact.n === 0n) return null
  const fraction = rational(
    coefficient.exact.n * above.exact.n * below.exact.d,
    below.exact.n * above.exact.d,
  )
  return fraction.d === 1n ? null : fraction
}

export { zero as exactZero, one as exactOne }

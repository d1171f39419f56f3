import { asQuotient } from '../algebra/asQuotient'
import { simplify } from '../algebra/simplify'
import { maybeEntry } from '../functions'
import { toNumber } from '../arithmetic/rational'
import { commonFactor } from '../algebra/commonFactors'
import { trigFactors } from '../algebra/trigPolynomial'
import {
  call,
  constant,
  isNumber,
  literalFraction,
  negate,
  quotient,
  splitCoefficient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'

/** A factor that must vanish for the whole to vanish, and how often it stands there. */
interface Factor {
  tree: Tree
  power: number
  /** The same times something positive: it may be finite where the tree overflows. */
  others?: Tree[]
}

const raised = (parts: Factor[], n: number) => parts.map((f) => ({ ...f, power: f.power * n }))

/**
 * The factors of a tree that decide its zeros: products, powers, quotients and common factors of
 * sums are taken apart, so that a zero that touches is found as a simple zero of its factor.
 */
export function zeroFactors(tree: Tree, variable: string): Factor[] {
  const known = taken.get(tree)
  if (known?.variable === variable) return known.factors
  const factors = takenApart(tree, variable)
  taken.set(tree, { variable, factors })
  return factors
}

/** A formula is taken apart once, however many stretches it is searched on. */
const taken = new WeakMap<Tree, { variable: string; factors: Factor[] }>()

function takenApart(tree: Tree, variable: string): Factor[] {
  const factorsOf = (part: Tree) => zeroFactors(part, variable)
  switch (tree.kind) {
    case 'product':
      return tree.factors.flatMap(factorsOf)
    case 'quotient':
      return factorsOf(tree.above)
    case 'power': {
      const { base, exponent } = tree
      if (base.kind === 'constant' || (isNumber(base) && base.exact.n > 0n)) return []
      const fraction = literalFraction(exponent)
      const value = fraction ?? (isNumber(exponent) ? exponent.exact : null)
      // u^v with a moving exponent is e^(v ln u): never 0 where u is not.
      if (!value) return []
      return value.n > 0n ? raised(factorsOf(base), Number(value.n) / Number(value.d)) : []
    }
    case 'call': {
      const [u] = tree.args as [Tree]
      const zero = maybeEntry(tree.name)?.zero
      if (zero === 'never') return []
      if (!zero) return [{ tree, power: 1 }]
      return 'power' in zero ? raised(factorsOf(u), zero.power) : factorsOf(simplify(zero.tree(u)))
    }
    case 'sum':
      return trigFactors(tree) ?? factorsOfSum(tree.terms, variable) ?? [{ tree, power: 1 }]
    default:
      return [{ tree, power: 1 }]
  }
}

/** What a sum's terms have in common, taken out; or a form that shows a touching zero. */
function factorsOfSum(terms: readonly Tree[], variable: string): Factor[] | null {
  const common = commonFactor(terms, variable)
  if (!common) return halfAngle(terms, variable)
  return [
    ...common.shared.flatMap(({ base, exponent }) =>
      exponent.n > 0n ? raised(zeroFactors(base, variable), toNumber(exponent)) : [],
    ),
    ...(common.rests.length === 1
      ? zeroFactors(common.rests[0], variable)
      : [{ tree: common.rests[0], power: 1, others: common.rests.slice(1) }]),
  ]
}

/** What is squared in 1 − cos²u and its like: sin u. */
function complement(tree: Tree): Tree | null {
  if (tree.kind !== 'power' || !isNumber(tree.exponent) || tree.base.kind !== 'call') return null
  if (tree.exponent.exact.n !== 2n || tree.exponent.exact.d !== 1n) return null
  const other = { cos: 'sin', sin: 'cos', sec: 'sin', csc: 'cos' } as const
  const { name, args } = tree.base
  return name in other ? call(other[name as keyof typeof other], args[0]!) : null
}

/** A sum with quotients, brought over one denominator: only what stands above can vanish. */
function overOne(terms: readonly Tree[], variable: string): Factor[] | null {
  const whole = asQuotient(sum(...terms))
  return whole ? zeroFactors(simplify(whole.above), variable) : null
}

/** c ± c·cos u is twice a square of the half angle, and so for the sine; 1 − cos²u is sin²u. */
function halfAngle(terms: readonly Tree[], variable: string): Factor[] | null {
  if (terms.length !== 2) return overOne(terms, variable)
  const number = terms.find(isNumber)
  const other = terms.find((t) => !isNumber(t))
  if (!number || !other || !isNumber(number)) return overOne(terms, variable)
  const [factor, rest] = splitCoefficient(other)
  const ratio = { n: factor.exact.n * number.exact.d, d: factor.exact.d * number.exact.n }
  const plus = ratio.n === ratio.d
  const opposite = ratio.n === -ratio.d
  const squared = opposite ? complement(rest) : null
  if (squared) return [{ tree: squared, power: 2 }]
  const isWave = rest.kind === 'call' && (rest.name === 'cos' || rest.name === 'sin')
  if (!isWave || !(plus || opposite)) return overOne(terms, variable)
  const half = quotient(rest.args[0]!, whole(2))
  const quarter = quotient(constant('pi'), whole(4))
  const inside =
    rest.name === 'cos'
      ? call(plus ? 'cos' : 'sin', half)
      : call('sin', sum(half, plus ? quarter : negate(quarter)))
  return [{ tree: inside, power: 2 }]
}

import { differentiate } from '../../algebra/differentiate'
import { simplify } from '../../algebra/simplify'
import { substitute } from '../../algebra/curves'
import { type FunctionName, maybeEntry } from '../../functions'
import { writtenOut } from '../../functions/writtenOut'
import {
  call,
  type CallTree,
  type Condition,
  constant,
  dependsOn,
  keyOf,
  name,
  negate,
  product,
  quotient,
  type Relation,
  sum,
  type Tree,
  whole,
} from '../../formula/tree'
import { type Const, NoValues, type Place, signOf, Unsure } from './constants'
import { unit } from './monomials'
import { type Series, SeriesAlgebra } from './series'

/**
 * Formulas as series: the variable is a given series (c + 1/t close to a place c, t at infinity), and
 * what is made of it follows. Bounded waves of something that grows, such as sin t, are known to be
 * no larger than 1 and no more.
 */
export class Expander {
  readonly algebra: SeriesAlgebra
  private readonly known = new Map<Tree, Series>()

  constructor(
    private readonly place: Place,
    private readonly variable: (algebra: SeriesAlgebra) => Series,
    most: number,
  ) {
    this.algebra = new SeriesAlgebra(place, most)
  }

  readonly of = (tree: Tree): Series => {
    let series = this.known.get(tree)
    if (!series) {
      series = this.expand(tree)
      if (this.place.zeros.size > 0 && this.place.zeros.has(keyOf(tree))) {
        series = this.withoutConstant(series)
      }
      this.known.set(tree, series)
    }
    return series
  }

  /** What is known to be 0 at the place has no constant term, whatever its digits say. */
  private withoutConstant(s: Series): Series {
    const { growth } = this.algebra.monomials
    return { ...s, terms: s.terms.filter(({ monomial }) => growth(monomial) !== 0) }
  }

  private expand(tree: Tree): Series {
    const { algebra, of } = this
    if (!dependsOn(tree, this.place.variable)) return algebra.tree(tree)
    switch (tree.kind) {
      case 'name':
        return this.variable(algebra)
      case 'sum':
        return algebra.add(...tree.terms.map(of))
      case 'product':
        return tree.factors.map(of).reduce(algebra.multiply)
      case 'quotient':
        return algebra.divide(of(tree.above), of(tree.below))
      case 'power':
        return this.power(tree.base, tree.exponent)
      case 'call':
        return this.call(tree)
      case 'pieces': {
        const piece = tree.pieces.find(({ when }) => !when || this.holds(when))
        if (!piece) throw new NoValues()
        return of(piece.body)
      }
      default:
        throw new Unsure()
    }
  }

  private power(base: Tree, exponent: Tree): Series {
    const { algebra, of } = this
    if (!dependsOn(exponent, this.place.variable)) {
      return algebra.power(of(base), algebra.constants.of(exponent))
    }
    const raised = of(exponent)
    if (base.kind === 'constant' && base.name === 'e') return algebra.exp(raised)
    return algebra.exp(algebra.multiply(raised, algebra.ln(of(base))))
  }

  /** The sign of a formula close by; 0 where it vanishes throughout. */
  readonly signOf = (tree: Tree): -1 | 0 | 1 => {
    const lead = this.algebra.leading(this.of(tree))
    return lead ? signOf(lead.coefficient) : 0
  }

  private holds(condition: Condition): boolean {
    if (condition.kind !== 'compare') {
      return condition.kind === 'all'
        ? condition.of.every((part) => this.holds(part))
        : condition.of.some((part) => this.holds(part))
    }
    const { terms, relations } = condition
    return relations.every((relation, i) =>
      signFits[relation](this.signOf(sum(terms[i]!, negate(terms[i + 1]!)))),
    )
  }

  private call(tree: CallTree): Series {
    const { algebra, of } = this
    const meant = writtenOut(tree)
    if (meant !== tree) return of(meant)
    const [u] = tree.args as [Tree]
    const entry = maybeEntry(tree.name)
    if (entry?.root) return algebra.power(of(u), algebra.constants.rational(1, entry.root))
    if (entry?.quotient) {
      const { above, below } = entry.quotient(u)
      return algebra.divide(of(above), of(below))
    }
    if (entry?.inGrowth) return of(entry.inGrowth(u))
    switch (tree.name) {
      case 'exp':
        return algebra.exp(of(u))
      case 'ln':
        return algebra.ln(of(u))
      case 'logBase':
        return algebra.divide(algebra.ln(of(tree.args[1]!)), algebra.ln(of(u)))
      case 'sin':
      case 'cos':
        return this.wave(tree.name, of(u))
      case 'arctan':
      case 'arcsin':
        return this.arc(tree.name, u)
      case 'abs':
        return this.signOf(u) < 0 ? algebra.negate(of(u)) : of(u)
      case 'sgn':
        return algebra.constant(algebra.constants.rational(this.signOf(u)))
      case 'floor':
      case 'ceil':
        // A whole number within 1 of it.
        return algebra.add(of(u), { terms: [], rest: unit })
      case 'min':
      case 'max':
        return of(this.extreme(tree.name, tree.args))
      default:
        throw new Unsure()
    }
  }

  private extreme(which: 'min' | 'max', args: readonly Tree[]): Tree {
    const better = which === 'min' ? -1 : 1
    return args.reduce((a, b) => (this.signOf(sum(b, negate(a))) === better ? b : a))
  }

  /** A sine or cosine: by its series about what stays of its argument. */
  private wave(of: 'sin' | 'cos', argument: Series): Series {
    const { algebra } = this
    const grows = argument.terms[0] && algebra.monomials.growth(argument.terms[0].monomial) > 0
    if (grows || (argument.rest && algebra.monomials.growth(argument.rest) >= 0)) {
      return { terms: [], rest: unit }
    }
    const { stays, vanishes } = algebra.split(argument)
    const { constants } = algebra
    const [sine, cosine] = ['sin', 'cos'].map((f) =>
      constants.of(call(f as 'sin' | 'cos', stays.tree)),
    ) as [Const, Const]
    const row =
      of === 'sin'
        ? [sine, cosine, constants.negate(sine), constants.negate(cosine)]
        : [cosine, constants.negate(sine), constants.negate(cosine), sine]
    return algebra.compose((k) => overFactorial(algebra, row[k % 4]!, k), vanishes)
  }

  /** An arc: beside the ends of what it takes, and far out, by another one of what then vanishes. */
  private arc(of: 'arctan' | 'arcsin', u: Tree): Series {
    const { algebra } = this
    const argument = this.of(u)
    const half = quotient(constant('pi'), whole(2))
    const lead = argument.terms[0]
    if (of === 'arctan' && lead && algebra.monomials.growth(lead.monomial) > 0) {
      const side = algebra.tree(signOf(lead.coefficient) > 0 ? half : negate(half))
      return algebra.subtract(side, this.of(call('arctan', quotient(whole(1), u))))
    }
    const { grows, stays, vanishes } = algebra.split(argument)
    if (grows.length > 0) throw new NoValues()
    const end = of === 'arcsin' && stays.tree.kind === 'number' ? Number(stays.range.lo) : 0
    if (end === 1 || end === -1) {
      // arcsin u = π/2 − 2 arcsin √((1 − u)/2), and so below.
      const inside = quotient(sum(whole(1), end > 0 ? negate(u) : u), whole(2))
      const from = sum(half, product(whole(-2), call('arcsin', call('sqrt', inside))))
      return this.of(end > 0 ? from : negate(from))
    }
    const atZero = stays.tree.kind === 'number' && stays.tree.exact.n === 0n
    const coefficient = atZero ? arcCoefficient(of) : null
    return algebra.compose(
      (k) =>
        coefficient ? algebra.constants.rational(...coefficient(k)) : taylor(algebra, of, stays, k),
      vanishes,
    )
  }
}

const signFits: Record<Relation, (sign: -1 | 0 | 1) => boolean> = {
  '<': (s) => s < 0,
  '<=': (s) => s <= 0,
  '>': (s) => s > 0,
  '>=': (s) => s >= 0,
  '=': (s) => s === 0,
  '!=': (s) => s !== 0,
}

function overFactorial({ constants }: SeriesAlgebra, value: Const, k: number): Const {
  let f = 1n
  for (let i = 2n; i <= BigInt(k); i++) f *= i
  return constants.divide(value, constants.rational(f))
}

/** The Taylor coefficients of an arc at 0, above and below the line of the fraction. */
const arcCoefficient =
  (of: 'arctan' | 'arcsin') =>
  (k: number): [bigint, bigint] => {
    if (k % 2 === 0) return [0n, 1n]
    if (of === 'arctan') return [k % 4 === 1 ? 1n : -1n, BigInt(k)]
    let [above, below] = [1n, BigInt(k)]
    for (let i = 1n; i < BigInt(k); i += 2n) {
      above *= i
      below *= i + 1n
    }
    return [above, below]
  }

const slopes = new Map<FunctionName, Tree[]>()

/** The k-th Taylor coefficient of a function at a constant. */
function taylor(algebra: SeriesAlgebra, of: FunctionName, at: Const, k: number): Const {
  let known = slopes.get(of)
  if (!known) slopes.set(of, (known = [call(of, name('u'))]))
  while (known.length <= k) known.push(simplify(differentiate(known.at(-1)!, 'u')))
  const value = algebra.constants.of(substitute(known[k]!, 'u', at.tree))
  return overFactorial(algebra, value, k)
}

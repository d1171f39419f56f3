import { simplify } from './simplify'
import { maybeEntry } from '../functions'
import {
  addRational,
  divideRational,
  isWhole,
  multiplyRational,
  negateRational,
  one,
  powerRational,
  type Rational,
  rational,
  toNumber,
  zero,
} from '../arithmetic/rational'
import {
  call,
  dependsOn,
  exactly,
  isNumber,
  isZero,
  keyOf,
  literalFraction,
  negate,
  power,
  product,
  quotient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'

/** A base with the rational power it stands in; roots, and what stands below, included. */
export interface Power {
  base: Tree
  exponent: Rational
}

/** A term as number · e^growth · powers of what it is made of. */
interface Term {
  coefficient: Rational
  growth: Tree[]
  powers: Map<string, Power>
}

/** Whole powers of a number beyond this are left as they stand. */
const foldedPower = 40

function decompose(term: Tree): Term {
  const found: Term = { coefficient: one, growth: [], powers: new Map() }
  const atom = (base: Tree, exponent: Rational) => {
    const key = keyOf(base)
    const known = found.powers.get(key)
    found.powers.set(key, {
      base,
      exponent: known ? addRational(known.exponent, exponent) : exponent,
    })
  }
  // `times` is whole wherever a product is taken apart, so no sign is lost.
  const visit = (part: Tree, times: Rational): void => {
    switch (part.kind) {
      case 'number':
        if (part.exact.n !== 0n || times.n > 0n) {
          if (isWhole(times) && Math.abs(toNumber(times)) <= foldedPower) {
            found.coefficient = multiplyRational(
              found.coefficient,
              powerRational(part.exact, toNumber(times)),
            )
            return
          }
        }
        return atom(part, times)
      case 'product':
        return part.factors.forEach((f) => visit(f, times))
      case 'quotient':
        visit(part.above, times)
        return visit(part.below, negateRational(times))
      case 'power': {
        const { base, exponent } = part
        if (base.kind === 'constant' && base.name === 'e') {
          found.growth.push(product(exactly(times), exponent))
          return
        }
        const literal = literalFraction(exponent) ?? (isNumber(exponent) ? exponent.exact : null)
        if (!literal) return atom(part, times)
        const raised = multiplyRational(times, literal)
        return isWhole(literal) ? visit(base, raised) : atom(base, raised)
      }
      case 'call': {
        const [u] = part.args as [Tree]
        if (part.name === 'exp') {
          found.growth.push(product(exactly(times), u))
          return
        }
        const entry = maybeEntry(part.name)
        if (entry?.root) return atom(u, divideRational(times, rational(entry.root)))
        if (entry?.quotient) {
          const { above, below } = entry.quotient(u)
          if (!isNumber(above)) atom(above, times)
          return atom(below, negateRational(times))
        }
        return atom(part, times)
      }
      default:
        return atom(part, times)
    }
  }
  visit(term, one)
  return found
}

function raised({ base, exponent }: Power): Tree[] {
  if (exponent.n === 0n) return []
  if (exponent.n === exponent.d) return [base]
  return [power(base, exactly(exponent))]
}

const less = (a: Rational, b: Rational) => a.n * b.d < b.n * a.d

/** So many exponentials are tried as the one to divide by. */
const mostReferences = 4

/** Sums inside products are multiplied out up to this many terms. */
const mostTerms = 64

/** Whether a sum holds roots, exponentials or quotients, which may cancel against other terms. */
const isMixed = (tree: Tree): boolean =>
  tree.kind === 'sum' &&
  tree.terms.some((term) => {
    const { growth, powers } = decompose(term)
    return growth.length > 0 || [...powers.values()].some(({ exponent }) => !isNatural(exponent))
  })
const isNatural = (exponent: Rational) => isWhole(exponent) && exponent.n > 0n

/** A term with the sums among its factors multiplied out where they are mixed. */
function multipliedOut(term: Tree): Tree[] {
  if (term.kind === 'quotient') return multipliedOut(term.above).map((t) => quotient(t, term.below))
  if (isMixed(term)) return (term as Tree & { kind: 'sum' }).terms.flatMap(multipliedOut)
  if (term.kind !== 'product') return [term]
  const at = term.factors.findIndex(
    (f) => isMixed(f) || (f.kind === 'quotient' && isMixed(f.above)),
  )
  if (at < 0) return [term]
  const others = term.factors.filter((_, i) => i !== at)
  return multipliedOut(term.factors[at]!).flatMap((part) =>
    multipliedOut(product(...others, ...(part.kind === 'product' ? part.factors : [part]))),
  )
}

/**
 * What the terms of a sum have in common, taken out: the sum is e^(…) · shared · rest wherever it is
 * smooth and its denominators are not 0. Exponents are rational, below 0 for what stands below in
 * some term: (x - 5)/∛x + ∛x² is x^(-1/3) · ((x - 5) + x). Where all terms grow exponentially there
 * are several rests, each over the exponential of another term: they have the same zeros, and where
 * one overflows another does not. Null where nothing is shared.
 */
export function commonFactor(
  terms: readonly Tree[],
  variable: string,
): { shared: Power[]; rests: [Tree, ...Tree[]] } | null {
  if (terms.length < 2) return null
  const spread = terms.flatMap(multipliedOut)
  const parts = (spread.length <= mostTerms ? spread : terms).map(decompose)
  const keys = new Set(parts.flatMap(({ powers }) => [...powers.keys()]))
  const shared = new Map<string, Power>()
  for (const key of keys) {
    const all = parts.map(({ powers }) => powers.get(key))
    const least = all.map((p) => p?.exponent ?? zero).reduce((a, b) => (less(b, a) ? b : a))
    const { base } = all.find((p) => p !== undefined)!
    if (least.n !== 0n && dependsOn(base, variable)) shared.set(key, { base, exponent: least })
  }
  const growths = parts.map(({ growth }) =>
    growth.length > 0 ? simplify(sum(...growth)) : whole(0),
  )
  const grows = growths.every((g) => dependsOn(g, variable))
  if (shared.size === 0 && !grows) return null
  const bases = new Map(parts.flatMap(({ powers }) => [...powers]))
  const restOver = (reference: Tree | null): Tree =>
    simplify(
      sum(
        ...parts.map(({ coefficient, powers }, i) => {
          const growth = growths[i]!
          const gone = reference ? keyOf(growth) === keyOf(reference) : isZero(growth)
          const exponent = reference ? simplify(sum(growth, negate(reference))) : growth
          return product(
            exactly(coefficient),
            ...(gone ? [] : [call('exp', exponent)]),
            ...[...bases].flatMap(([key, { base }]) =>
              raised({
                base,
                exponent: addRational(
                  powers.get(key)?.exponent ?? zero,
                  negateRational(shared.get(key)?.exponent ?? zero),
                ),
              }),
            ),
          )
        }),
      ),
    )
  const distinct = [...new Map(growths.map((g) => [keyOf(g), g])).values()]
  const references = grows ? distinct.slice(0, mostReferences) : [null]
  return {
    shared: [...shared.values()],
    rests: references.map(restOver) as [Tree, ...Tree[]],
  }
}

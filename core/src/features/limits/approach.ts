import { simplify } from '../../algebra/simplify'
import * as I from '../../arithmetic/intervals'
import { rational } from '../../arithmetic/rational'
import { substitute } from '../../algebra/curves'
import { withKnownValues } from '../../algebra/knownValues'
import { binaryRational, numberInterval } from '../../evaluate/enclosures'
import {
  constant,
  exactly,
  isZero,
  name,
  negate,
  product,
  sum,
  type Tree,
} from '../../formula/tree'
import { toPlain } from '../../language/print'
import type { Split } from '../split'
import type { Approach } from './byGrowth'

/** The fractions that come ever nearer to a number, by its continued fraction, simplest first. */
function simpleFractions(x: number): [n: number, d: number][] {
  let [n0, d0, n1, d1] = [1, 0, Math.floor(x), 1]
  const found: [number, number][] = [[n1, d1]]
  let rest = x - n1
  while (rest > 1e-12 && found.length < 12) {
    const next = 1 / rest
    const whole = Math.floor(next)
    ;[n0, d0, n1, d1] = [n1, d1, whole * n1 + n0, whole * d1 + d0]
    if (d1 > 1e6) break
    found.push([n1, d1])
    rest = next - whole
  }
  return found
}

/** So many twelfths and tenths of π are tried. */
const turns = [1, 2, 3, 4, 5, 6, 8, 12]

/**
 * The place of a split as a number, where it is known exactly: a fraction or a multiple of π at which
 * a part that is 0 there is proven to be 0.
 */
function exactPlace({ enclosure, parts = [] }: Split, variable: string): Tree | null {
  if (enclosure.lo === enclosure.hi) return exactly(binaryRational(enclosure.lo))
  const middle = I.middle(enclosure)
  const vanishes = (place: Tree) =>
    parts.some((part) => isZero(withKnownValues(substitute(part, variable, place))))
  const holds = (x: number) => enclosure.lo - slack <= x && x <= enclosure.hi + slack
  const slack = 1e-12 * Math.max(1, Math.abs(middle))
  const candidates = [
    ...simpleFractions(middle).flatMap(([n, d]): Tree[] =>
      holds(n / d) ? [exactly(rational(BigInt(n), BigInt(d)))] : [],
    ),
    ...turns.flatMap((d): Tree[] => {
      const n = Math.round((middle / Math.PI) * d)
      if (n === 0 || !holds((n / d) * Math.PI)) return []
      return [product(exactly(rational(BigInt(n), BigInt(d))), constant('pi'))]
    }),
  ]
  return candidates.find(vanishes) ?? null
}

/**
 * Close to a place, from one side: the variable is c ± 1/t. Where the place has no exact form, the
 * variable itself stands for it in constants, which its enclosure and the parts that are 0 there tell.
 */
export function beside(split: Split, variable: string, side: -1 | 1, given?: Tree): Approach {
  const x = name(variable)
  const exact = given ?? exactPlace(split, variable)
  const c = exact ?? x
  const enclosure = exact?.kind === 'number' ? numberInterval(exact.exact) : split.enclosure
  return {
    place: { variable, enclosure, zeros: split.zeros },
    variable: (algebra) =>
      algebra.add(
        algebra.tree(c),
        algebra.scale(algebra.powerOfT(-1), algebra.constants.rational(side)),
      ),
    t: exact && { base: simplify(sum(x, negate(c))), power: -1, turned: side < 0 },
    where: exact ? `close to ${toPlain(exact)}` : 'close by',
  }
}

/** Far out on the right or on the left: the variable is ± t. */
export function farOut(variable: string, sign: -1 | 1): Approach {
  const x = name(variable)
  return {
    place: { variable, enclosure: I.point(0), zeros: new Set() },
    variable: (algebra) => algebra.scale(algebra.powerOfT(1), algebra.constants.rational(sign)),
    t: { base: x, power: 1, turned: sign < 0 },
    where: 'far out',
  }
}

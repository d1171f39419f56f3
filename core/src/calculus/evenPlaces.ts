import { simplify } from '../algebra/simplify'
import { rational } from '../arithmetic/rational'
import { constant, exactly, product, type Tree } from '../formula/tree'

/** More decimals than these are no decimals that anyone has typed. */
const mostDecimals = 12
/** Nor are fractions with a larger denominator, such as 1/3 or 22/7. */
const largestDenominator = 10_000

interface Fraction {
  n: number
  d: number
}

/** A number as a fraction of whole numbers, where it is a decimal or a fraction; null where not. */
function asFraction(value: number): Fraction | null {
  for (let k = 0, d = 1; k <= mostDecimals; k++, d *= 10) {
    const n = Math.round(value * d)
    if (n / d === value) return { n, d }
  }
  return byContinuedFraction(value)
}

/** The first convergent that rounds to the number, where its denominator is small. */
function byContinuedFraction(value: number): Fraction | null {
  let [n0, d0, n1, d1] = [0, 1, 1, 0]
  let rest = value
  for (let i = 0; i < 30; i++) {
    const whole = Math.floor(rest)
    ;[n0, d0, n1, d1] = [n1, d1, whole * n1 + n0, whole * d1 + d0]
    if (d1 > largestDenominator) return null
    if (n1 / d1 === value) return { n: n1, d: d1 }
    rest = 1 / (rest - whole)
  }
  return null
}

const gcd = (a: number, b: number): number => (b === 0 ? Math.abs(a) : gcd(b, a % b))

/** The places at the shares (i + position)/count of a span. */
export interface EvenPlaces {
  at(i: number): number
  /** The places from the first on, into a list. */
  fill(out: Float64Array): Float64Array
  /** The place as a fraction or a fraction of π, where ends and position are such; else null. */
  exactly(i: number): Tree | null
}

/**
 * The places at the shares (i + position)/count of a span, each the double nearest to the exact one:
 * ends and position are taken as the decimals or fractions they were typed as, and whole numbers are
 * divided once. So the middle of [−1, 1] is 0 and a third of [0, 0.6] is 0.2. Ends that are multiples
 * of π are divided in units of π. Where the ends are neither, or the numbers grow beyond what doubles
 * hold exactly, the places are right to a few units in the last place; the ends are always met.
 */
export function evenPlaces(from: number, to: number, count: number, position = 0): EvenPlaces {
  const plain = inFractions(from, to, count, position)
  if (plain) return plain
  const turns = inFractions(from / Math.PI, to / Math.PI, count, position)
  const rough = (i: number) => (i + position) / count
  const at = (i: number) => {
    const share = rough(i)
    if (share === 0 || share === 1) return share === 0 ? from : to
    return turns ? turns.at(i) * Math.PI : from + (to - from) * share
  }
  const fill = (out: Float64Array) => {
    for (let i = 0; i < out.length; i++) out[i] = at(i)
    return out
  }
  const inTurns = (i: number) => {
    const share = turns?.exactly(i)
    return share ? simplify(product(share, constant('pi'))) : null
  }
  return { at, fill, exactly: inTurns }
}

function inFractions(from: number, to: number, count: number, position: number): EvenPlaces | null {
  const [a, b, p] = [asFraction(from), asFraction(to), asFraction(position)]
  if (!a || !b || !p) return null
  const scale = (a.d / gcd(a.d, b.d)) * b.d
  const [low, high] = [a.n * (scale / a.d), b.n * (scale / b.d)]
  const below = scale * count * p.d
  const largest = (Math.abs(low) + Math.abs(high - low)) * (count + 1) * p.d
  if (largest > Number.MAX_SAFE_INTEGER || below > Number.MAX_SAFE_INTEGER) return null
  const start = low * count * p.d
  const above = (i: number) => start + (high - low) * (i * p.d + p.n)
  const first = above(0)
  const step = (high - low) * p.d
  return {
    at: (i) => above(i) / below,
    fill(out) {
      for (let i = 0; i < out.length; i++) out[i] = (first + step * i) / below
      return out
    },
    exactly: (i) => exactly(rational(BigInt(above(i)), BigInt(below))),
  }
}

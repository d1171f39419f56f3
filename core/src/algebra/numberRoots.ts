import {
  addRational,
  divideRational,
  multiplyRational,
  negateRational,
  type Rational,
  rational,
} from '../arithmetic/rational'
import {
  call,
  exactly,
  isNumber,
  literalFraction,
  power,
  product,
  quotient,
  splitCoefficient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'

/** Factors up to this are looked for under a root, and numbers beyond so many bits are left as they are. */
const [largestFactor, longest] = [10_000n, 256]

/** Sums with a root in them are multiplied out up to this power. */
const mostMultiplied = 6

const isLong = (n: bigint) => n.toString(2).length > longest

/**
 * A broken power of a number, a square or a cube root of one, with all that can be taken out of the root
 * taken out, and no root below a fraction line: 8^(2/3) is 4, √8 is 2√2, 1/√2 is √2/2, (−1)^(4/3) is 1.
 * Exact: nothing but whole numbers is worked with. The tree itself where it is none, or where the real
 * root does not exist.
 */
export function withRootsOut(tree: Tree): Tree {
  if (tree.kind === 'power') {
    const base = numberIn(tree.base)
    const exponent = literalFraction(tree.exponent) ?? brokenNumber(tree.exponent)
    // A typed decimal is no fraction: below 0 its power has no real value.
    const isReal = base && (base.n >= 0n || !brokenNumber(tree.exponent))
    if (isReal && exponent) return rootOf(base, exponent.n, exponent.d) ?? tree
    return squareOfRoot(tree) ?? powerOfSurd(tree) ?? tree
  }
  if (tree.kind === 'call' && (tree.name === 'sqrt' || tree.name === 'cbrt')) {
    const [inside] = tree.args
    const base = inside && numberIn(inside)
    return (base && rootOf(base, 1n, tree.name === 'sqrt' ? 2n : 3n)) ?? tree
  }
  if (tree.kind === 'quotient') {
    const conjugate = overSurd(tree)
    if (conjugate) return conjugate
    const [coefficient, root] = splitCoefficient(tree.below)
    if (root.kind !== 'call' || coefficient.decimal) return tree
    const [inside] = root.args
    if (!inside || !isNumber(inside) || inside.decimal || inside.exact.n <= 0n) return tree
    if (root.name === 'cbrt') {
      // a/(c∛r) is a∛r²/(c·r).
      const square = call('cbrt', power(inside, whole(2)))
      return quotient(product(tree.above, square), product(coefficient, inside))
    }
    if (root.name !== 'sqrt') return tree
    // a/(c√r) is a√r/(c·r).
    return quotient(product(tree.above, root), product(coefficient, inside))
  }
  return tree
}

const brokenNumber = (exponent: Tree): Rational | null =>
  isNumber(exponent) && exponent.exact.d !== 1n ? exponent.exact : null

/** The number that a tree is, also as a fraction; null where it is none, or was typed as a decimal. */
function numberIn(tree: Tree): Rational | null {
  if (isNumber(tree)) return tree.decimal ? null : tree.exact
  if (tree.kind !== 'quotient' || !isNumber(tree.above) || !isNumber(tree.below)) return null
  const { above, below } = tree
  if (above.decimal || below.decimal || below.exact.n === 0n) return null
  return rational(above.exact.n * below.exact.d, above.exact.d * below.exact.n)
}

/** a + b√r as [a, b, r], with a fraction for √r; null for another number. */
function surdOf(tree: Tree): { a: Rational; b: Rational; r: bigint } | null {
  const plain = numberIn(tree)
  if (plain) return { a: plain, b: rational(0n), r: 1n }
  if (tree.kind === 'sum') {
    let total: { a: Rational; b: Rational; r: bigint } | null = null
    for (const term of tree.terms) {
      const next = surdOf(term)
      if (!next || (total && total.r !== 1n && next.r !== 1n && total.r !== next.r)) return null
      total = total
        ? {
            a: addRational(total.a, next.a),
            b: addRational(total.b, next.b),
            r: total.r === 1n ? next.r : total.r,
          }
        : next
    }
    return total
  }
  if (tree.kind === 'quotient') {
    const [above, below] = [surdOf(tree.above), numberIn(tree.below)]
    return (
      above &&
      below && { a: divideRational(above.a, below), b: divideRational(above.b, below), r: above.r }
    )
  }
  const [coefficient, root] = splitCoefficient(tree)
  const inside = root.kind === 'call' && root.name === 'sqrt' ? root.args[0]! : null
  if (!inside || !isNumber(inside) || coefficient.decimal || inside.decimal) return null
  return inside.exact.d === 1n && inside.exact.n > 1n
    ? { a: rational(0n), b: coefficient.exact, r: inside.exact.n }
    : null
}

/** (1 + √5)³ multiplied out. */
function powerOfSurd({ base, exponent }: Tree & { kind: 'power' }): Tree | null {
  const surd = isNumber(exponent) && exponent.exact.d === 1n ? surdOf(base) : null
  const times = surd && isNumber(exponent) ? Number(exponent.exact.n) : 0
  if (!surd || surd.b.n === 0n || times < 2 || times > mostMultiplied) return null
  let [a, b] = [surd.a, surd.b]
  const r = rational(surd.r)
  for (let i = 1; i < times; i++) {
    ;[a, b] = [
      addRational(multiplyRational(a, surd.a), multiplyRational(multiplyRational(b, surd.b), r)),
      addRational(multiplyRational(a, surd.b), multiplyRational(b, surd.a)),
    ]
  }
  return sum(exactly(a), product(exactly(b), call('sqrt', whole(surd.r))))
}

/** (p + q√r)/(a + b√r) without a root below the line; null where that is none. */
function overSurd({ above, below }: Tree & { kind: 'quotient' }): Tree | null {
  const under = below.kind === 'sum' ? surdOf(below) : null
  const over = under && under.b.n !== 0n ? surdOf(above) : null
  if (!under || !over || (over.r !== 1n && over.r !== under.r)) return null
  const r = rational(under.r)
  const size = addRational(
    multiplyRational(under.a, under.a),
    negateRational(multiplyRational(multiplyRational(under.b, under.b), r)),
  )
  if (size.n === 0n) return null
  const plain = addRational(
    multiplyRational(over.a, under.a),
    negateRational(multiplyRational(multiplyRational(over.b, under.b), r)),
  )
  const rooted = addRational(
    multiplyRational(over.b, under.a),
    negateRational(multiplyRational(over.a, under.b)),
  )
  return sum(
    exactly(divideRational(plain, size)),
    product(exactly(divideRational(rooted, size)), call('sqrt', whole(under.r))),
  )
}

/** (√n)² as n; null where it is no such power. */
function squareOfRoot({ base, exponent }: Tree & { kind: 'power' }): Tree | null {
  if (base.kind !== 'call' || base.name !== 'sqrt' || !isNumber(exponent)) return null
  const [inside] = base.args
  const { n, d } = exponent.exact
  const isEven = d === 1n && n > 0n && n % 2n === 0n && n <= 12n
  if (!inside || !isNumber(inside) || inside.exact.n < 0n || !isEven) return null
  return power(inside, whole(n / 2n))
}

/** (n/d)^(p/q) as a rational number times a root; null where there is no real one. */
function rootOf(base: Rational, p: bigint, q: bigint): Tree | null {
  if (q <= 0n || q > 12n || p > 12n || p < -12n) return null
  if (base.n === 0n) return p > 0n ? whole(0) : null
  const isNegative = base.n < 0n
  if (isNegative && q % 2n === 0n) return null
  const size = isNegative ? -base.n : base.n
  const times = p < 0n ? -p : p
  const [n, d] = p < 0n ? [base.d ** times, size ** times] : [size ** times, base.d ** times]
  // The root of n/d is that of n·d^(q−1), over d.
  const under = n * d ** (q - 1n)
  if (isLong(under)) return null
  const { out, left } = takenOut(under, q)
  const sign = isNegative && times % 2n === 1n ? -1n : 1n
  const front = exactly(rational(sign * out, d))
  if (left === 1n) return front
  const root =
    q === 2n
      ? call('sqrt', whole(left))
      : q === 3n
        ? call('cbrt', whole(left))
        : power(whole(left), quotient(whole(1), whole(q)))
  return front.exact.n === 1n && front.exact.d === 1n ? root : product(front, root)
}

/** n as out^q · left, with what the factors that are looked for leave. */
function takenOut(n: bigint, q: bigint): { out: bigint; left: bigint } {
  let [out, left, rest] = [1n, 1n, n]
  for (let f = 2n; f * f <= rest && f <= largestFactor; f += f === 2n ? 1n : 2n) {
    let count = 0n
    while (rest % f === 0n) {
      rest /= f
      count += 1n
    }
    out *= f ** (count / q)
    left *= f ** (count % q)
  }
  // What is left may be a power of one large prime.
  const whole = nearestRoot(rest, q)
  return whole ** q === rest ? { out: out * whole, left } : { out, left: left * rest }
}

function nearestRoot(n: bigint, q: bigint): bigint {
  const near = BigInt(Math.round(Number(n) ** (1 / Number(q))))
  return [near - 1n, near, near + 1n].find((r) => r > 0n && r ** q === n) ?? 1n
}

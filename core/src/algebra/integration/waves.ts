import { addRational, multiplyRational, type Rational, rational } from '../../arithmetic/rational'
import {
  call,
  type CallTree,
  dependsOn,
  exactly,
  type FunctionName,
  isNumber,
  keyOf,
  mapChildren,
  name,
  negate,
  power,
  product,
  quotient,
  sum,
  type Tree,
  whole,
} from '../../formula/tree'
import { maybeEntry } from '../../functions'
import { substitute } from '../curves'
import { simplify } from '../simplify'
import { factorsApart, nextLetter, type Search, straight } from './search'

/** Sines and cosines are multiplied out up to so many factors. */
const mostFactors = 10

/** c·sin u, c·cos u, or c alone where there is no wave. */
interface Wave {
  front: Rational
  wave: 'sin' | 'cos' | null
  of: Tree
}

/**
 * A product of sines and cosines of straight arguments as a sum of single ones, by
 * sin u sin v = (cos(u − v) − cos(u + v))/2 and its like; beside it the factors that are none. Null
 * where fewer than two of them are there.
 */
export function wavesApart(tree: Tree, search: Search): Tree | null {
  const others: Tree[] = []
  const waves: CallTree[] = []
  for (const factor of tree.kind === 'product' ? tree.factors : [tree]) {
    const { base, exponent } =
      factor.kind === 'power' ? factor : { base: factor, exponent: whole(1) as Tree }
    const times = isNumber(exponent) && exponent.exact.d === 1n ? Number(exponent.exact.n) : 0
    const isWave = base.kind === 'call' && (base.name === 'sin' || base.name === 'cos')
    if (isWave && times > 0 && times <= mostFactors && straight(base.args[0]!, search)) {
      waves.push(...Array.from({ length: times }, () => base))
    } else others.push(factor)
  }
  if (waves.length < 2 || waves.length > mostFactors) return null
  let total: Wave[] = [{ front: rational(1n), wave: null, of: whole(0) }]
  for (const one of waves) {
    total = gathered(
      total.flatMap((left) => multipliedWaves(left, one.name as 'sin' | 'cos', one.args[0]!)),
    )
  }
  const terms = total.map(({ front, wave, of }) =>
    product(exactly(front), ...others, ...(wave ? [call(wave, of)] : [])),
  )
  return simplify(sum(whole(0), ...terms))
}

function multipliedWaves({ front, wave, of }: Wave, next: 'sin' | 'cos', v: Tree): Wave[] {
  if (!wave) return [{ front, wave: next, of: v }]
  const half = multiplyRational(front, rational(1n, 2n))
  const [plus, minus] = [simplify(sum(of, v)), simplify(sum(of, negate(v)))]
  const [positive, negative] = [half, { n: -half.n, d: half.d }]
  const parts: [Rational, 'sin' | 'cos', Tree][] =
    wave === next
      ? [
          [positive, 'cos', minus],
          [wave === 'sin' ? negative : positive, 'cos', plus],
        ]
      : [
          [positive, 'sin', plus],
          [wave === 'sin' ? positive : negative, 'sin', minus],
        ]
  return parts.flatMap(([factor, kind, argument]): Wave[] => {
    const isLevel = isNumber(argument) && argument.exact.n === 0n
    if (isLevel) return kind === 'sin' ? [] : [{ front: factor, wave: null, of: argument }]
    return [{ front: factor, wave: kind, of: argument }]
  })
}

function gathered(waves: readonly Wave[]): Wave[] {
  const found = new Map<string, Wave>()
  for (const one of waves) {
    const key = `${one.wave} ${keyOf(one.of)}`
    const known = found.get(key)
    found.set(key, known ? { ...one, front: addRational(known.front, one.front) } : one)
  }
  return [...found.values()].filter(({ front }) => front.n !== 0n)
}

/** Which function stands beside which in sec² u = 1 + tan² u and its like, and the sign of its slope. */
const squares: Partial<Record<FunctionName, { beside: FunctionName; sign: 1 | -1 }>> = {
  tan: { beside: 'sec', sign: 1 },
  cot: { beside: 'csc', sign: -1 },
  sec: { beside: 'tan', sign: 1 },
  csc: { beside: 'cot', sign: -1 },
}

/**
 * Powers of tangents, secants and their like by the usual recurrences, products of a power of sec u
 * with tan u, and 1/cosⁿ u as secⁿ u.
 */
export function ofTangents(tree: Tree, search: Search): Tree | null {
  const { fixed, moving } = factorsApart(tree, search)
  const [one, more] = moving
  if (!one) return null
  if (more) {
    const found =
      moving.length === 2
        ? (timesBeside(one, more, search) ?? timesBeside(more, one, search))
        : null
    return found && product(...fixed, found)
  }
  const power = powerOf(one)
  const slope = power && straight(power.of, search)
  if (!power || !slope) return null
  const found = raisedOnce(power.name, power.of, power.times)
  return found && product(...fixed, quotient(found, slope))
}

/** name(u)^times of a call raised to a whole number above 0. */
function powerOf(tree: Tree): { name: FunctionName; of: Tree; times: number } | null {
  const { base, exponent } =
    tree.kind === 'power' ? tree : { base: tree, exponent: whole(1) as Tree }
  if (base.kind !== 'call' || !isNumber(exponent) || exponent.exact.d !== 1n) return null
  const times = Number(exponent.exact.n)
  return times > 0 && times <= mostFactors && base.name in squares
    ? { name: base.name, of: base.args[0]!, times }
    : null
}

/** The antiderivative by u of a power of a tangent or a secant, or of their like. */
function raisedOnce(name: FunctionName, u: Tree, times: number): Tree | null {
  const { beside, sign } = squares[name]!
  const [own, other] = [call(name, u), call(beside, u)]
  const isTangent = name === 'tan' || name === 'cot'
  const signed = (tree: Tree) => (sign < 0 ? negate(tree) : tree)
  if (times === 1) {
    if (isTangent) return maybeEntry(name)?.antiderivative?.(u) ?? null
    return signed(call('ln', call('abs', sum(own, other))))
  }
  if (!isTangent && times === 2) return signed(other)
  const before = times === 2 ? u : raisedOnce(name, u, times - 2)
  if (!before) return null
  const down = exactly(rational(1n, BigInt(times - 1)))
  const raised = power(own, whole(isTangent ? times - 1 : times - 2))
  // ∫ tanⁿ = tanⁿ⁻¹/(n − 1) − ∫ tanⁿ⁻², ∫ secⁿ = secⁿ⁻² tan/(n − 1) + (n − 2)/(n − 1) ∫ secⁿ⁻².
  return isTangent
    ? sum(signed(product(down, raised)), negate(before))
    : sum(
        signed(product(down, raised, other)),
        product(exactly(rational(BigInt(times - 2), BigInt(times - 1))), before),
      )
}

/** secⁿ u tan u, and cscⁿ u cot u. */
function timesBeside(secant: Tree, tangent: Tree, search: Search): Tree | null {
  const [s, t] = [powerOf(secant), powerOf(tangent)]
  if (!s || !t || keyOf(s.of) !== keyOf(t.of)) return null
  if (squares[s.name]!.beside !== t.name || s.name === 'tan' || s.name === 'cot') return null
  const slope = straight(s.of, search)
  if (!slope) return null
  const sign = squares[s.name]!.sign
  const done = (found: Tree) => quotient(sign < 0 ? negate(found) : found, slope)
  if (t.times === 1)
    return done(product(exactly(rational(1n, BigInt(s.times))), power(secant0(s), whole(s.times))))
  // sec² u tanⁿ u is tanⁿ⁺¹ u/(n + 1).
  if (s.times === 2) {
    return done(
      product(
        exactly(rational(1n, BigInt(t.times + 1))),
        power(call(t.name, t.of), whole(t.times + 1)),
      ),
    )
  }
  return null
}
const secant0 = ({ name: n, of }: { name: FunctionName; of: Tree }) => call(n, of)

/**
 * A quotient of sines and cosines of one straight argument by t = tan(u/2), and by t = tan u where only
 * squares of them stand there: sin u is 2t/(1 + t²), cos u is (1 − t²)/(1 + t²). What comes out is
 * continuous between the poles of that tangent only.
 */
export function byTangent(tree: Tree, search: Search): Tree | null {
  const letter = nextLetter(search)
  const argument = letter && soleArgument(tree, search)
  const slope = argument && straight(argument, search)
  if (!letter || !argument || !slope) return null
  const t = name(letter)
  const square = power(t, whole(2))
  const round = sum(whole(1), square)
  const plain = inSines(tree)
  const byWhole = replacedWaves(plain, argument, (wave, times) => {
    const share = wave === 'sin' ? quotient(square, round) : quotient(whole(1), round)
    return times % 2 === 0 ? power(share, whole(times / 2)) : null
  })
  if (byWhole && !dependsOn(byWhole, search.variable)) {
    const found = search.integrate(simplify(quotient(byWhole, product(round, slope))), {
      ...search,
      variable: letter,
    })
    return found && substitute(found, letter, call('tan', argument))
  }
  const byHalf = replacedWaves(plain, argument, (wave, times) =>
    power(
      wave === 'sin'
        ? quotient(product(whole(2), t), round)
        : quotient(sum(whole(1), negate(square)), round),
      whole(times),
    ),
  )
  if (!byHalf || dependsOn(byHalf, search.variable)) return null
  const found = search.integrate(
    simplify(quotient(product(whole(2), byHalf), product(round, slope))),
    { ...search, variable: letter },
  )
  return found && substitute(found, letter, call('tan', quotient(argument, whole(2))))
}

/** Tangents and their like by sines and cosines. */
const inSines = (tree: Tree): Tree => {
  const done = mapChildren(tree, inSines)
  const parts = done.kind === 'call' ? maybeEntry(done.name)?.quotient?.(done.args[0]!) : undefined
  return parts && done.kind === 'call' && done.name in squares
    ? quotient(parts.above, parts.below)
    : done
}

/** The one argument of all circular functions of a formula, or null. */
function soleArgument(tree: Tree, { variable }: Search): Tree | null {
  const found = new Map<string, Tree>()
  const visit = (part: Tree): boolean => {
    if (!dependsOn(part, variable)) return true
    if (
      part.kind === 'call' &&
      (part.name === 'sin' || part.name === 'cos' || part.name in squares)
    ) {
      found.set(keyOf(part.args[0]!), part.args[0]!)
      return true
    }
    switch (part.kind) {
      case 'sum':
        return part.terms.every(visit)
      case 'product':
        return part.factors.every(visit)
      case 'quotient':
        return visit(part.above) && visit(part.below)
      case 'power':
        return isNumber(part.exponent) && part.exponent.exact.d === 1n && visit(part.base)
      default:
        return false
    }
  }
  return visit(tree) && found.size === 1 ? [...found.values()][0]! : null
}

/** The formula with each power of a wave replaced; null where one cannot be. */
function replacedWaves(
  tree: Tree,
  argument: Tree,
  by: (wave: 'sin' | 'cos', times: number) => Tree | null,
): Tree | null {
  let possible = true
  const visit = (part: Tree): Tree => {
    const { base, exponent } =
      part.kind === 'power' ? part : { base: part, exponent: whole(1) as Tree }
    const isWave =
      base.kind === 'call' &&
      (base.name === 'sin' || base.name === 'cos') &&
      keyOf(base.args[0]!) === keyOf(argument)
    if (!isWave || !isNumber(exponent)) return mapChildren(part, visit)
    const put = by(base.name, Number(exponent.exact.n))
    if (!put) possible = false
    return put ?? part
  }
  const found = visit(tree)
  return possible ? found : null
}

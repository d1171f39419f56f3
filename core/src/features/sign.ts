import type { BoxCode } from '../evaluate/enclosures'
import type { RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { compileBoxes } from '../evaluate/enclosures'
import * as I from '../arithmetic/intervals'
import { maybeEntry } from '../functions'
import { literalFraction, type Tree } from '../formula/tree'
import { commonFactor } from '../algebra/commonFactors'

export type Sign = -1 | 0 | 1

/**
 * The sign of a formula at x with certainty, 0 where it cannot be told. Factors are asked one by
 * one, so that x·e^(−10⁶x²) has a sign even where its value is smaller than any double.
 */
export function certainSign(tree: Tree, variable: string, x: number): Sign {
  switch (tree.kind) {
    case 'product':
      return tree.factors.reduce<number>((s, f) => s && s * certainSign(f, variable, x), 1) as Sign
    case 'quotient': {
      const above = certainSign(tree.above, variable, x)
      return above === 0 ? 0 : ((above * certainSign(tree.below, variable, x)) as Sign)
    }
    case 'power': {
      const { base, exponent } = tree
      if (base.kind === 'constant') return 1
      const literal =
        literalFraction(exponent) ?? (exponent.kind === 'number' ? exponent.exact : null)
      if (!literal) break
      const inner = certainSign(base, variable, x)
      if (literal.d % 2n === 0n) return inner > 0 ? 1 : 0
      return literal.n % 2n === 0n ? ((inner * inner) as Sign) : inner
    }
    case 'call': {
      const [u] = tree.args as [Tree]
      const entry = maybeEntry(tree.name)
      if (entry?.positive && entry.total) return 1
      if (entry?.signOfArgument) return certainSign(u, variable, x)
      break
    }
    case 'sum': {
      const direct = signByValue(compileBoxes(tree, variable), x)
      if (direct !== 0) return direct
      const common = commonFactor(tree.terms, variable)
      if (!common) return 0
      const rest = common.rests.map((r) => certainSign(r, variable, x)).find((s) => s !== 0) ?? 0
      return common.shared.reduce<number>((s, { base, exponent }) => {
        if (s === 0) return 0
        const inner = certainSign(base, variable, x)
        return exponent.n % 2n === 0n ? s * inner * inner : s * inner
      }, rest) as Sign
    }
    default:
  }
  return signByValue(compileBoxes(tree, variable), x)
}

/** The sign of a compiled formula at x, where its enclosure there is certain. */
export function signByValue(code: BoxCode, x: number): Sign {
  const notes = I.noNotes()
  const [value] = code(I.point(x), 1, notes)
  return notes.empty || notes.partial ? 0 : I.signOf(value!)
}

/** Where a function is looked at between two places, as shares of the way. */
const looks = [0.5, 0.31, 0.73, 0.11, 0.89]

/**
 * The sign of a function on a stretch on which it has no zero and no break, from the enclosure of its
 * value at a place inside, or from the signs of its factors where that is too small to hold: 0 where
 * it is exactly 0 there, null where rounding leaves it open.
 */
export function signInside(
  f: Pick<RealFunction, 'enclose' | 'tree' | 'parameters' | 'variable'>,
  from: number,
  to: number,
): Sign | null {
  const places = looks.map((share) => from + (to - from) * share)
  for (const x of places) {
    const [lo, hi] = f.enclose(x, x)
    if (lo > 0) return 1
    if (hi < 0) return -1
    if (lo === 0 && hi === 0) return 0
  }
  const tree = withValues(f.tree, f.parameters)
  const signs = places.map((x) => certainSign(tree, f.variable, x))
  return signs.find((sign) => sign !== 0) ?? null
}

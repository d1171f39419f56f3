import type { RealFunction } from '../../evaluate/compile'
import type { CurveResult } from '../contract'
import { rounding } from './judge'
import { conditionsIn } from './print'
import type { Condition, Piece } from './read'

/** What is asked about a condition as sliders move over their ranges. */
export interface RangeContext {
  decimals: number
  /** The sliders that a text hangs on, through curves as well; null where it cannot be read. */
  slidersOf(text: string): ReadonlySet<string> | null
  /** A text as a function of one slider, the others as they are; null where it cannot be read. */
  along(text: string, slider: string): RealFunction | null
  range(slider: string): { from: number; to: number } | null
  /** A curve; null where there is none, or where nothing is known between its readings. */
  curve(letter: string): CurveResult | null
}

/** Boxes looked at before a condition is left as one that may hold. */
const mostBoxes = 600

/**
 * A slider over whose whole range a condition is proven never to hold, whatever the others are, or
 * null where there is none. By enclosures over ever smaller stretches of the range: nothing is said
 * that is not proven. Switches of parts count as free.
 */
export function neverOver(condition: Condition, context: RangeContext): string | null {
  const sliders = slidersOfAll(condition, context)
  if (sliders === null) return null
  if (sliders.size === 1) {
    const [slider] = sliders as Set<string>
    return neverAlong(condition, slider!, context) ? slider! : null
  }
  if (condition.kind === 'and') {
    for (const one of condition.of) {
      const found = neverOver(one, context)
      if (found !== null) return found
    }
  }
  if (condition.kind === 'or') {
    const all = condition.of.map((one) => neverOver(one, context))
    return all.every((found) => found !== null && found === all[0]) ? all[0]! : null
  }
  return null
}

/** The sliders that a condition hangs on; null where some of it cannot be read. */
function slidersOfAll(condition: Condition, context: RangeContext): ReadonlySet<string> | null {
  const all = new Set<string>()
  for (const one of conditionsIn(condition)) {
    const texts =
      one.kind === 'compare'
        ? one.sides
        : one.kind === 'shape'
          ? [called(one.curve), one.place]
          : one.kind === 'near'
            ? [called(one.curve), one.place, ...(one.within ? [one.within] : [])]
            : []
    for (const { text } of texts) {
      const found = context.slidersOf(text)
      if (found === null) return null
      for (const slider of found) all.add(slider)
    }
  }
  return all
}

/** A curve hangs on what its value at a place does. */
const called = ({ text, from }: Piece): Piece => ({ text: `${text}(0)`, from })

type Over = 'always' | 'never' | 'perhaps'

function neverAlong(condition: Condition, slider: string, context: RangeContext): boolean {
  const range = context.range(slider)
  if (!range) return false
  const open: [number, number][] = [[range.from, range.to]]
  for (let boxes = 0; open.length > 0; boxes++) {
    if (boxes > mostBoxes) return false
    const [lo, hi] = open.pop()!
    const found = over(condition, slider, lo, hi, context)
    if (found === 'never') continue
    const middle = lo + (hi - lo) / 2
    if (found === 'always' || !(middle > lo && middle < hi)) return false
    open.push([lo, middle], [middle, hi])
  }
  return true
}

const negated: Record<Over, Over> = { always: 'never', never: 'always', perhaps: 'perhaps' }

function over(
  condition: Condition,
  slider: string,
  lo: number,
  hi: number,
  context: RangeContext,
): Over {
  const of = (one: Condition) => over(one, slider, lo, hi, context)
  const boxOf = (piece: Piece) => context.along(piece.text, slider)?.enclose(lo, hi) ?? null
  switch (condition.kind) {
    case 'and': {
      const all = condition.of.map(of)
      return all.includes('never') ? 'never' : all.includes('perhaps') ? 'perhaps' : 'always'
    }
    case 'or': {
      const all = condition.of.map(of)
      return all.includes('always') ? 'always' : all.includes('perhaps') ? 'perhaps' : 'never'
    }
    case 'not':
      return negated[of(condition.of)]
    case 'part':
      return 'perhaps'
    case 'compare': {
      const within = 0.5 * 10 ** -context.decimals
      const boxes = condition.sides.map(boxOf)
      const all = condition.signs.map((sign, i): Over => {
        const [a, b] = [boxes[i], boxes[i + 1]]
        if (!a || !b) return 'perhaps'
        const [least, most] = [a[0] - b[1], a[1] - b[0]]
        if (Number.isNaN(least) || Number.isNaN(most)) return 'perhaps'
        const slack = 1e-11 * Math.max(1, ...[...a, ...b].map(Math.abs))
        switch (sign) {
          // Equal but for rounding is not below.
          case '<':
            return least > -rounding ? 'never' : most < -slack ? 'always' : 'perhaps'
          case '>':
            return most < rounding ? 'never' : least > slack ? 'always' : 'perhaps'
          case '≤':
            return least > slack ? 'never' : most < -slack ? 'always' : 'perhaps'
          case '≥':
            return most < -slack ? 'never' : least > slack ? 'always' : 'perhaps'
          case '=':
          case '≠': {
            const apart = least > within + slack || most < -within - slack
            const alike = least > -within && most < within
            const found = apart ? 'never' : alike ? 'always' : 'perhaps'
            return sign === '=' ? found : negated[found]
          }
        }
      })
      return all.includes('never') ? 'never' : all.includes('perhaps') ? 'perhaps' : 'always'
    }
    case 'shape':
    case 'near': {
      const curve = context.curve(condition.curve.text)
      const hangs = context.slidersOf(called(condition.curve).text)
      const place = boxOf(condition.place)
      if (!curve || !place || hangs === null || hangs.size > 0) return 'perhaps'
      const reach =
        condition.kind === 'near'
          ? condition.within
            ? (boxOf(condition.within)?.[1] ?? NaN)
            : 0.5 * 10 ** -context.decimals
          : 0
      const [from, to] = [
        Math.max(place[0] - reach, curve.reach.from),
        Math.min(place[1] + reach, curve.reach.to),
      ]
      if (from > to) return 'never'
      const order = condition.primes.length + orderOf(condition)
      if (order > 3) return 'perhaps'
      const [least, most] = curve.derivative(order).f.enclose(from, to)
      const isOut =
        condition.kind === 'near'
          ? least > 0 || most < 0
          : condition.shape === 'falls' || condition.shape === 'is concave down'
            ? least >= 0
            : most <= 0
      return isOut ? 'never' : 'perhaps'
    }
  }
}

/** The derivative whose sign decides. */
function orderOf(condition: Condition & { kind: 'shape' | 'near' }): number {
  if (condition.kind === 'shape') return condition.shape.startsWith('is') ? 2 : 1
  return condition.feature === 'zero' ? 0 : condition.feature === 'inflection' ? 2 : 1
}

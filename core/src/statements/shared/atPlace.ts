import { placeIs } from './said'
import type { CurveResult, LineContext, LineProblem, Proposal, Request } from '../contract'
import {
  type CurveRef,
  curveAndPlace,
  curveText,
  likelyPlace,
  namesNoCurve,
  placeSaid,
} from './slots'
import { lookAtPlace, type PlaceFacts } from '../../features/place/placeFacts'
import * as I from '../../arithmetic/intervals'
import type { RealFunction } from '../../evaluate/compile'
import { steadyDerivatives } from '../../algebra/steady'
import { bothSidesWords, noSlopeWords, numberWords } from './placeWords'
import { heldAt } from '../../features/held'
import type { Tree } from '../../formula/tree'
import { formatShort, sayNumber } from '../../vocabulary/numbers'

/** The derivatives of a curve at a place, and where that place is. */
export interface AtPlace {
  curve: CurveResult
  x: number
  /** The place as it was typed, where it hangs on no slider. */
  exact: Tree | null
  /** The place as a number without names. */
  tree: Tree
  /** It has the rounding of doubles in it, as after a drag. */
  rough: boolean
  /** f, f′, … up to the order asked for. */
  derivatives: number[]
}

/** Looks up a curve at a place, or says what is in the way. */
export function lookAt(
  line: { curve: string; place: string },
  orders: number,
  context: LineContext,
): { ok: true; at: AtPlace } | { ok: false; problem: LineProblem } {
  const found = context.curve(line.curve)
  if (!found.ok) return found
  const place = context.number(line.place)
  if (!place.ok) return place
  const { curve } = found
  const x = place.value
  const { letter } = context.variable
  const show = (value: number) => sayNumber(value, Math.max(context.decimals, 3))
  const { reach } = curve
  if (x < reach.from || x > reach.to) {
    return {
      ok: false,
      problem: {
        message: `${placeIs(letter, show(x))} lies outside the span of ${curve.name}, ${show(reach.from)} to ${show(reach.to)}`,
        fix: `move the place, or widen the span of ${curve.name}`,
      },
    }
  }
  const derivatives = curve.f.derivatives(x, orders)
  const steady = curve.formula ? steadyDerivatives(curve.f, x, derivatives) : derivatives
  if (!Number.isFinite(derivatives[0])) {
    if (curve.formula && heldAt(curve.f, x) === 'tooLarge') {
      return { ok: false, problem: tooLarge(`${curve.name}(${show(x)})`) }
    }
    return {
      ok: false,
      problem: {
        message: `${curve.name} has no value at ${letter} = ${show(x)}`,
        fix: 'move the place to where the curve is drawn',
      },
    }
  }
  const at = {
    curve,
    x,
    exact: place.exact,
    tree: place.tree,
    rough: place.rough,
    derivatives: steady,
  }
  return { ok: true, at: { ...at, derivatives: withSlope(at) } }
}

/** Where the rules tell no slope, as at a filled hole, the limit of the quotient of differences may. */
function withSlope(at: AtPlace): number[] {
  const { derivatives, curve } = at
  if (derivatives.length > 1 && curve.accumulates) return withSlopeOfArea(at, curve.accumulates.f)
  if (derivatives.length < 2 || !Number.isNaN(derivatives[1]) || !curve.formula) return derivatives
  const { slope } = factsAt({ order: 0 }, at)
  if (slope?.kind !== 'value') return derivatives
  const value = I.middle(slope.range)
  return [derivatives[0]!, value, ...derivatives.slice(2)]
}

/**
 * The slope of an area is what its integrand tends to: at a hole or a displaced point the limit, at
 * a jump none. At an end of the integrand's domain its one side decides.
 */
function withSlopeOfArea({ x, exact, derivatives }: AtPlace, integrand: RealFunction): number[] {
  const facts = lookAtPlace(integrand, x, exact)
  const [area] = derivatives as [number]
  const sides = [facts.left, facts.right].filter((side) => side.limit)
  const limit = sides.length === 1 ? sides[0]!.limit : facts.limit
  const rate = limit?.kind === 'value' ? I.middle(limit.range) : NaN
  const bend = facts.slope?.kind === 'value' ? I.middle(facts.slope.range) : NaN
  const open = facts.kind === 'unsettled'
  return open
    ? derivatives
    : [area, rate, bend, ...derivatives.slice(3)].slice(0, derivatives.length)
}

/** A value that is there and that no double holds. */
export const tooLarge = (what: string): LineProblem => ({
  message: `${what} is too large to hold: beyond 1.8·10³⁰⁸`,
  fix: 'move the place to where the values are smaller',
})

/** "f′(800) is not 0: it is too small to hold", for each of the orders of which that is so. */
export function tooSmallNotes(
  { curve, x, derivatives }: AtPlace,
  orders: readonly number[],
  { decimals }: LineContext,
): string[] {
  if (!curve.formula) return []
  return orders.flatMap((order) => {
    if (derivatives[order] !== 0 || heldAt(curve.derivative(order).f, x) !== 'tooSmall') return []
    const what = `${curveText({ curve: curve.name, order })}(${formatShort(x, Math.max(decimals, 3))})`
    return [`${what} is not 0: it is too small to hold, below 5·10⁻³²⁴.`]
  })
}

/** What a derivative of a curve does at a place, with proof; kept while both stay the same. */
export const factsAt = (
  { order }: Pick<CurveRef, 'order'>,
  { curve, x, exact }: AtPlace,
): PlaceFacts => lookAtPlace(curve.derivative(order).f, x, exact)

/** Why there is no derivative at a place where the curve has a value. */
export function missingDerivative(ref: CurveRef, at: AtPlace, letter: string): LineProblem {
  const lower = { ...ref, order: ref.order - 1 }
  const name = curveText(lower)
  if (at.curve.formula && heldAt(at.curve.derivative(ref.order).f, at.x) === 'tooLarge') {
    return tooLarge(`${curveText(ref)}(${formatShort(at.x, 6)})`)
  }
  return {
    message: `no ${ref.order > 1 ? curveText(ref) : 'slope'} at ${placeIs(letter, sayNumber(at.x, 6))}: ${missingReason(lower, at, name)}`,
    fix: 'move the place a little to either side',
  }
}

/** "q has a kink here, −1 on its left and 1 on its right" */
export function missingReason(ref: CurveRef, at: AtPlace, name: string): string {
  const { curve, x } = at
  if (curve.accumulates && ref.order === 0) return areaWords(at, curve.accumulates, name)
  if (!curve.formula) return kinkWords(ref, at, name)
  if (x === curve.reach.from || x === curve.reach.to) return `${name} ends here`
  return `${name} ${noSlopeWords(factsAt(ref, at), 6)}`
}

/** Why an area has no slope, by what its integrand does. */
function areaWords(
  { x, exact }: AtPlace,
  { f, ...under }: NonNullable<CurveResult['accumulates']>,
  name: string,
): string {
  const facts = lookAtPlace(f, x, exact)
  const integrand = curveText(under)
  if (facts.kind === 'jump') {
    const [left, right] = [facts.left.limit, facts.right.limit].map((limit) =>
      limit?.kind === 'value' ? numberWords(limit, 6) : '',
    )
    return `${name} has a kink here, ${left} on its left and ${right} on its right, since ${integrand} jumps`
  }
  return `${integrand} ${bothSidesWords(facts, 6)} here`
}

/** What is known without a formula: the slopes that lie beside the place. */
function kinkWords({ order }: CurveRef, { curve, x }: AtPlace, name: string): string {
  const sides = ([-1, 1] as const).map((side) => curve.f.beside(x, side, order + 1)[order + 1])
  if (!sides.every(Number.isFinite)) return `${name} has no slope here`
  const [left, right] = sides.map((slope) => sayNumber(slope!, 6))
  if (curve.readings) {
    return `at a reading no rate is known, about ${left} before it and ${right} after it`
  }
  return `${name} has a kink here, ${left} on its left and ${right} on its right`
}

const functionWords = /^(?:a?(?:sin|cos|tan)h?|arc\w+|sqrt|cbrt|exp|log|abs)$/

/** Whether a text has words that no formula and no slider has. */
const isPhrase = (text: string, { sliders, otherSliders }: Request) =>
  [...text.matchAll(/[A-Za-z]{3,}/g)].some(
    ([word]) =>
      !functionWords.test(word) && !sliders.includes(word) && !otherSliders.includes(word),
  )

/** Lines that hang on a place: which curve and which place the words name or leave open. */
export function offersAt<L>(
  rest: string,
  request: Request,
  make: (ref: CurveRef, place: string) => L | null,
): Proposal<L>[] {
  const { ref, place: said } = curveAndPlace(rest, request.variable.letter, request.curves)
  // "from 2 to 5" is no place.
  if (said && /^(?:from|over|on)\s/.test(said)) return []
  // Nor is a phrase; and a letter behind "of" or "to" that no curve has is another curve.
  if (said && isPhrase(said, request)) return []
  const behind = /\b(?:of|to)\s+\S.*$/.exec(request.text)?.[0] ?? rest
  if (!ref && namesNoCurve(behind, request)) return []
  const meant = ref ?? request.ref
  const refs = meant ? [meant] : request.curves.map((c) => ({ curve: c.name, order: 0 }))
  const { place, sliders } = said ? placeSaid(said, request) : likelyPlace(request)
  return refs.flatMap((one) => {
    const line = make(one, place)
    return line ? [{ line, ...(sliders.length > 0 ? { newSliders: sliders } : {}) }] : []
  })
}

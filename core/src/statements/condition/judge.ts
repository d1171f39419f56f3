import type { Examination } from '../../features/examination'
import { examine } from '../../features/examine'
import { formatShort } from '../../vocabulary/numbers'
import type { CurveResult, LineContext } from '../contract'
import { spanFacts } from '../shared/spanFacts'
import type { CompareSign, Condition, NearFeature, Piece, Shape } from './read'

/** Whether a part is switched on; null where there is no such part. */
export type PartOn = (letter: string, id: string | null) => boolean | null

export interface ConditionTrouble {
  message: string
  fix?: string
  /** The piece it stands in. */
  at: Piece
}

/** What a condition comes to. What is not settled counts as not held, and is said. */
export interface Judgement {
  holds: boolean
  /** Why a piece of it could not be decided. */
  unsettled: string | null
  /** What is wrong with it; then the line is shown all the same. */
  troubles: readonly ConditionTrouble[]
}

export type ConditionContext = Pick<
  LineContext,
  'variable' | 'decimals' | 'curve' | 'number' | 'steps' | 'memo'
>

/** Numbers that differ by no more than this, relatively, are told apart only by their rounding. */
export const rounding = 1e-12

/**
 * Whether a condition holds now. `=` and `≠` compare to within half a unit of the study's last
 * decimal; the others compare what doubles tell apart beyond their rounding, so that 0.1 + 0.2 ≤ 0.3.
 * A shape holds inside an interval of that shape, not at its ends.
 */
export function judge(condition: Condition, context: ConditionContext, partOn: PartOn): Judgement {
  const troubles: ConditionTrouble[] = []
  let unsettled: string | null = null
  const open = (why: string) => {
    unsettled ??= why
    return null
  }
  /** null where it is not settled. */
  const truth = (one: Condition): boolean | null => {
    switch (one.kind) {
      case 'and':
      case 'or': {
        // All are looked at: what is wrong with any of them is told.
        const all = one.of.map(truth)
        const decisive = one.kind === 'or'
        return all.includes(decisive) ? decisive : all.includes(null) ? null : !decisive
      }
      case 'not': {
        const of = truth(one.of)
        return of === null ? null : !of
      }
      case 'part': {
        const on = partOn(one.letter, one.id)
        if (on !== null) return on
        const any = one.id === null ? '' : ' any more'
        troubles.push({
          message: `there is no part ${one.letter}${any}`,
          fix: 'drop it',
          at: one.at,
        })
        return null
      }
      case 'compare':
        return compare(one)
      case 'shape':
        return shapeAt(one)
      case 'near':
        return near(one)
    }
  }
  const number = (piece: Piece): number | null => {
    const found = context.number(piece.text)
    if (found.ok) return found.value
    const { message, fix } = found.problem
    if (found.problem.at === undefined && message.endsWith('has no value')) return open(message)
    troubles.push({
      message: message.replace(/^a place/, 'a condition'),
      ...(fix === undefined ? {} : { fix }),
      at: piece,
    })
    return null
  }
  const curve = (piece: Piece): CurveResult | null => {
    const found = context.curve(piece.text)
    if (found.ok) return found.curve
    troubles.push({ message: found.problem.message, at: piece })
    return null
  }
  function compare({ sides, signs }: Condition & { kind: 'compare' }): boolean | null {
    const values = sides.map(number)
    const within = 0.5 * 10 ** -context.decimals
    const all = signs.map((sign, i) => {
      const [a, b] = [values[i]!, values[i + 1]!]
      return a === null || b === null ? null : compares(a, sign, b, within)
    })
    return all.includes(false) ? false : all.includes(null) ? null : true
  }
  function shapeAt({ curve: letter, primes, shape, place }: Condition & { kind: 'shape' }) {
    const [of, x] = [curve(letter), number(place)]
    if (of === null || x === null) return null
    if (of.readings) return open(`between its readings nothing is known of ${of.name}`)
    return hasShape(of, primes.length, shape, x, context) ?? open(notSettled(of, primes, x))
  }
  function near({ curve: letter, primes, feature, within, place }: Condition & { kind: 'near' }) {
    const [of, x] = [curve(letter), number(place)]
    const reach = within === null ? 0.5 * 10 ** -context.decimals : number(within)
    if (of === null || x === null || reach === null) return null
    if (of.readings) return open(`between its readings nothing is known of ${of.name}`)
    return isNear(of, primes.length, feature, x, reach, context) ?? open(notSettled(of, primes, x))
  }
  const notSettled = (of: CurveResult, primes: string, x: number) =>
    `what ${of.name}${primes} does at ${context.variable.letter} = ${formatShort(x, 6)} is not settled`

  const holds = truth(condition)
  if (troubles.length > 0) return { holds: true, unsettled: null, troubles }
  return { holds: holds === true, unsettled: holds === null ? unsettled : null, troubles }
}

/** Whether a comparison holds; `within` is how far equal numbers may lie apart. */
export function compares(a: number, sign: CompareSign, b: number, within: number): boolean {
  const same = Math.abs(a - b) <= rounding * Math.max(1, Math.abs(a), Math.abs(b))
  switch (sign) {
    case '<':
      return a < b && !same
    case '>':
      return a > b && !same
    case '≤':
      return a <= b || same
    case '≥':
      return a >= b || same
    case '=':
      return same || Math.abs(a - b) <= within
    case '≠':
      return !same && !(Math.abs(a - b) <= within)
  }
}

const listOf = {
  falls: 'falling',
  rises: 'rising',
  'is concave up': 'concaveUp',
  'is concave down': 'concaveDown',
} as const satisfies Record<Shape, keyof Examination>

/** Ends of intervals are known to so much, relatively. */
const endSlack = 1e-9
const slackAt = (x: number) => endSlack * Math.max(1, Math.abs(x))

/** The stretch about a place that is examined where nothing is known of the whole span yet. */
const nearby = 1e-6

/**
 * Whether a place lies inside an interval of a shape; null where that is not settled. What lines have
 * found out about the whole span serves here too; else the neighbourhood alone is examined.
 */
function hasShape(
  curve: CurveResult,
  order: number,
  shape: Shape,
  x: number,
  context: ConditionContext,
): boolean | null {
  const { reach } = curve
  const slack = slackAt(x)
  if (!(x > reach.from + slack && x < reach.to - slack)) return false
  const found = aboutOf(curve, order, x, nearby * Math.max(1, Math.abs(x)), context)
  if (found.unresolved.some(([lo, hi]) => x >= lo - slack && x <= hi + slack)) return null
  return found[listOf[shape]].some(([lo, hi]) => x > lo + slack && x < hi - slack)
}

function isNear(
  curve: CurveResult,
  order: number,
  feature: NearFeature,
  x: number,
  within: number,
  context: ConditionContext,
): boolean | null {
  if (!(within >= 0)) return false
  const slack = slackAt(x)
  const found = aboutOf(curve, order, x, within + nearby * Math.max(1, Math.abs(x)), context)
  const places = {
    'high point': found.turningPoints.filter((p) => p.kind === 'maximum'),
    'low point': found.turningPoints.filter((p) => p.kind === 'minimum'),
    'turning point': found.turningPoints,
    inflection: found.inflections,
    zero: found.zeros,
  }[feature]
  if (places.some((p) => p.proven && Math.abs(p.x - x) <= within + slack)) return true
  const doubtful = [
    ...found.unresolved,
    ...places.filter((p) => !p.proven).map((p) => p.enclosure),
  ].some(([lo, hi]) => hi >= x - within - slack && lo <= x + within + slack)
  return doubtful ? null : false
}

/** An examination that holds the stretch about a place: that of the whole span, or one of its own. */
function aboutOf(
  curve: CurveResult,
  order: number,
  x: number,
  around: number,
  context: ConditionContext,
): Examination {
  const { from, to, reach } = curve
  const [lo, hi] = [Math.max(reach.from, x - around), Math.min(reach.to, x + around)]
  if (lo >= from && hi <= to) {
    const known = spanFacts(curve, order, from, to, context as LineContext).examination
    if (known) return known
  }
  const { f } = curve.derivative(order)
  return context.memo(curve, `about ${order} ${lo} ${hi}`, () => examine(f, lo, hi))
}

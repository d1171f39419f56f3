import { sayNumber } from '../../vocabulary/numbers'
import { placeIs, oneSign } from '../shared/said'
import { unitOfArea, unitOfDerivative } from '../../vocabulary/units'
import { listed } from '../../vocabulary/units'
import type { LineContext, LineResult, Readout } from '../contract'
import { placeSaid } from '../shared/exactPlaces'
import { toldReadout } from '../shared/toldNumbers'
import { curveText } from '../shared/slots'
import { type SpanFacts, toldOver, toldTotal, totalOf } from '../shared/spanFacts'
import { readingOf, type SignsLine } from './line'
import { breaksOff, type Moment, motionOf, type Phase } from './motionFacts'

/** How many orders above the line's graph its velocity is. */
export const velocityAbove = (line: SignsLine, letter: string) =>
  readingOf(line, letter) === 'position' ? 1 : 0

/** Where something rests, turns back, speeds up and slows down, and how far it comes. */
export function motionTold(
  line: SignsLine,
  /** Of the line's graph and of the two orders above it. */
  facts: readonly SpanFacts[],
  unit: string,
  context: LineContext,
): Pick<LineResult, 'readouts' | 'conclusions' | 'notes'> {
  const above = velocityAbove(line, context.variable.letter)
  const [velocity, acceleration] = [facts[above]!, facts[above + 1]!]
  const { from, to } = velocity
  const { phases, moments } = motionOf(velocity, acceleration, [from, to])
  const reading = readingOf(line, context.variable.letter)
  const order = line.order + above
  const leap = reading === 'position' ? firstLeap(facts[0]!) : null
  const [v, a] = [order, order + 1].map((k) => curveText({ curve: line.curve, order: k })) as [
    string,
    string,
  ]
  const placeAt = ([lo, hi]: readonly [number, number]) =>
    placeSaid(
      velocity.f,
      { enclosure: [lo, hi], proven: true },
      context.variable.letter,
      context.decimals,
    )
  const wording = { v, a, context, placeAt }
  const other = reading === 'position' ? 'velocity' : 'position'
  return {
    readouts: leap === null ? ways(line, velocity, unit, context) : [],
    conclusions: [
      ...moments.map((m) => ({ text: momentWords(m, wording), at: m.x })),
      ...phases.map((p) => ({ text: phaseWords(p, wording), at: p.on[0] })),
    ],
    notes: [
      ...(leap === null ? [] : [leapWords(leap, line, context)]),
      reading === 'position'
        ? `${curveText(line)} is read as the position of what moves, ${v} as its velocity and ${a} as its acceleration; choose ${other} to read it so.`
        : `${v} is read as the velocity of what moves, ${a} as its acceleration; choose ${other} to read it so.`,
    ],
  }
}

/** The first place inside at which a position is not continuous, or null. */
function firstLeap({ signChanges, from, to }: SpanFacts): number | null {
  const leaps = signChanges!.breaks.filter(({ kind, x }) => breaksOff(kind) && x > from && x < to)
  return leaps[0]?.x ?? null
}

const leapWords = (x: number, line: SignsLine, { variable, decimals }: LineContext) =>
  `${curveText(line)} is not continuous at ${placeIs(variable.letter, sayNumber(x, decimals))}: nothing moves so, and no distance is told.`

interface Wording {
  v: string
  a: string
  context: LineContext
  placeAt: (enclosure: readonly [number, number]) => string
}

const signWord = (sign: number) => (sign > 0 ? '+' : '−')

/** "It is at rest at t = 1, because v = 0 there, and turns back, since v goes + to −." */
function momentWords({ enclosure, rests, before, after }: Moment, { v, placeAt }: Wording): string {
  const at = `at ${placeAt(enclosure)}`
  const known = before !== null && after !== null
  const goes = known ? `${v} goes ${signWord(before)} to ${signWord(after)}` : ''
  if (!rests)
    return `It turns back ${at} without being at rest, because ${goes} there with a break.`
  const rest = `It is at rest ${at}, because ${v} = 0 there`
  if (!known) return `${rest}.`
  return before === after
    ? `${rest}, and does not turn back: ${v} is ${signWord(before)} on both sides.`
    : `${rest}, and turns back: ${goes}.`
}

const phaseVerbs: Record<Phase['does'], string> = {
  speedsUp: 'speeds up',
  slowsDown: 'slows down',
  keepsSpeed: 'keeps its speed',
  rests: 'is at rest',
}

/** "It speeds up from t = 1 to 2, because v < 0 and v′ < 0 inside." */
function phaseWords({ on, does, v: sv, a: sa, except }: Phase, { v, a, context }: Wording): string {
  const { variable, decimals } = context
  const show = (x: number) => sayNumber(x, decimals)
  const sign = (s: number) => (s > 0 ? '> 0' : s < 0 ? '< 0' : '= 0')
  const because =
    does === 'rests' ? `${v} = 0 inside` : `${v} ${sign(sv)} and ${a} ${sign(sa)} inside`
  const but =
    except.length === 0
      ? ''
      : ` but for ${placeIs(variable.letter, listed(oneSign(except.map(show)), mostListed))}, where ${a} is 0 or missing`
  return `It ${phaseVerbs[does]} from ${placeIs(variable.letter, show(on[0]))} to ${show(on[1])}, because ${because}${but}.`
}
const mostListed = 4

/** How far from its beginning it ends, and how far it went: the area under v, and all of its parts. */
function ways(line: SignsLine, facts: SpanFacts, unit: string, context: LineContext): Readout[] {
  const { variable } = context
  const total = totalOf(facts)
  if (!Number.isFinite(facts.exact.value) || total === null || !Number.isFinite(total)) return []
  const order = line.order + velocityAbove(line, variable.letter)
  const length = unitOfArea(unitOfDerivative(unit, variable.unit, order), variable.unit)
  return [
    toldReadout('displacement', toldOver('area', line, facts, context), length),
    toldReadout('distance', toldTotal(line, facts, total, context), length),
  ]
}

import { placeIs } from '../shared/said'
import type { Examination, Feature } from '../../features/examination'
import type { SearchMethod } from '../../search/minimize'
import { type Found, type Probe, usualTolerance } from '../../search/walk'
import { formatPower, sayNumber, sayStretch } from '../../vocabulary/numbers'
import type { LineContext, LineProblem } from '../contract'
import { curveText } from '../shared/slots'
import { beginsAtPlace, type SearchLine } from './line'
import type { Asked } from './run'
import { bestSoFar } from './tables'

interface Teller {
  line: SearchLine
  asked: Asked
  context: LineContext
}

/** A place as it is told: s = 2.103. */
const placeOf = ({ context }: Teller, x: number) =>
  placeIs(context.variable.letter, sayNumber(x, Math.max(3, context.decimals)))

/** Places nearer than this count as one: what the search leaves open, and what its values can tell. */
const closeness = (x: number, { numbers }: Asked) =>
  Math.max(3 * (numbers.tolerance ?? 0), 1e-5) * Math.max(1, Math.abs(x))

/** What was found, beside what is proven of the curve. */
export function besideProven(found: Found, examination: Examination, teller: Teller): string {
  const { line, asked, context } = teller
  const isLow = line.goal === 'low'
  const word = isLow ? 'low' : 'high'
  const best = isLow ? examination.lowest : examination.highest
  const decided = isLow ? examination.extremesDecided.lowest : examination.extremesDecided.highest
  const reach = closeness(found.x, asked)
  const isNear = ({ x }: Feature) => Math.abs(x - found.x) <= reach
  const span = sayStretch(asked.whole, 6)
  if (best?.at.some(isNear)) {
    const others = best.at.filter((one) => !isNear(one))
    const also =
      others.length === 0
        ? ''
        : `; ${others.map(({ x }) => placeOf(teller, x)).join(', ')} as ${word}`
    return decided && examination.complete
      ? `The ${word}est on ${span}: proven${also}.`
      : `The ${word}est that is known on ${span}${also}.`
  }
  const ahead = aheadOf(found, best, decided, teller)
  const kind = isLow ? 'minimum' : 'maximum'
  const turning = examination.turningPoints.find(isNear)
  // Without a best one that is known, and without proof that there is none, nothing is said of the rank.
  const rank =
    best || decided
      ? `, and not the ${word}est${ahead}`
      : `; whether it is the ${word}est is not settled`
  if (turning?.kind === kind) return `A ${word} point${rank}.`
  if (turning) {
    const other = isLow ? 'high' : 'low'
    return `A ${other} point, where the slope says nothing of the way on${ahead}.`
  }
  const outstanding = examination.outstanding.find((one) => isNear(one) && one.kind === kind)
  if (outstanding) {
    const where = outstanding.where === 'end' ? 'the end of the span' : 'a break'
    return `A ${word} value at ${where}${rank}.`
  }
  if (examination.criticalPoints.some(isNear)) {
    return `No ${word} point: the slope is 0 or missing at ${placeOf(teller, found.x)} and keeps its sign${ahead}.`
  }
  if (examination.level.some(([a, b]) => found.x >= a - reach && found.x <= b + reach)) {
    return `${curveText(line)} is level there${ahead}.`
  }
  const nearest = examination.turningPoints
    .filter((one) => one.kind === kind)
    .sort((a, b) => Math.abs(a.x - found.x) - Math.abs(b.x - found.x))[0]
  if (nearest && found.stopped !== 'settled') {
    return `No ${word} point yet: the nearest lies at ${placeOf(teller, nearest.x)}.`
  }
  const decimals = context.decimals
  const [, slope = NaN] = asked.f.derivatives(found.x, 1)
  const why = Number.isFinite(slope)
    ? `the slope there is ${sayNumber(slope, decimals)}`
    : 'there is no slope there'
  return `No ${word} point that is proven: ${why}${ahead}.`
}

/** Where it goes lower, and by how much. */
function aheadOf(
  found: Found,
  best: Examination['lowest'],
  decided: boolean,
  teller: Teller,
): string {
  const { line, context } = teller
  const isLow = line.goal === 'low'
  if (best) {
    const by = isLow ? found.value - best.value : best.value - found.value
    const amount = sayNumber(by, context.decimals)
    return by > 0
      ? `: ${placeOf(teller, best.at[0]!.x)} lies ${amount} ${isLow ? 'lower' : 'higher'}`
      : ''
  }
  return decided ? `: ${curveText(line)} has no ${isLow ? 'lowest' : 'highest'} value there` : ''
}

/** Places that no way downhill crosses: high points, for one who looks for low ones, and gaps. */
export function barriersOf(examination: Examination, goal: SearchLine['goal']) {
  const crest = goal === 'low' ? 'maximum' : 'minimum'
  return [
    ...examination.turningPoints
      .filter(({ kind, proven }) => kind === crest && proven)
      .map(({ x }) => ({ x, words: `the ${goal === 'low' ? 'high' : 'low'} point` })),
    ...examination.breaks
      .filter(({ kind }) => kind === 'pole' || kind === 'domain-end')
      .map(({ x, kind }) => ({ x, words: kind === 'pole' ? 'the pole' : 'the gap' })),
  ].sort((a, b) => a.x - b.x)
}

/** Where the walk first went over a crest, and whether it came back; null where it stayed in its valley. */
export function leftValley(
  method: SearchMethod,
  { log, x }: Found,
  examination: Examination,
  teller: Teller,
): string | null {
  if (!beginsAtPlace(method) || log.length < 2) return null
  const barriers = barriersOf(examination, teller.line.goal)
  const crossed = (a: number, b: number) =>
    barriers.filter((one) => one.x > Math.min(a, b) && one.x < Math.max(a, b))
  const first = log[0]!.x
  // A simplex has left only when its better place has: the worse one may lie anywhere.
  const isLow = teller.line.goal === 'low'
  const best = bestSoFar(log, teller.line.goal)
  const leads = (probe: Probe, i: number) =>
    probe.accepted &&
    (method !== 'simplex' ||
      i === 0 ||
      (isLow ? probe.value < best[i - 1]! : probe.value > best[i - 1]!))
  const at = log.findIndex(
    (probe, i) => leads(probe, i) && probe.from !== null && crossed(probe.from, probe.x).length > 0,
  )
  if (at < 0) return null
  const { from, x: to } = log[at]!
  const over = crossed(from!, to)
  const show = (v: number) => sayNumber(v, Math.max(2, Math.min(3, teller.context.decimals)))
  const isAlike = over.every(({ words }) => words === over[0]!.words)
  const places = isAlike
    ? `${over[0]!.words}${over.length > 1 ? 's' : ''} at ${over.map((one) => show(one.x)).join(' and ')}`
    : over.map((one) => `${one.words} at ${show(one.x)}`).join(' and ')
  const valley = isLow ? 'valley' : 'hill'
  const back = crossed(first, x).length === 0 ? ', and came back later' : ''
  return `It left the ${valley} it started in at probe ${at + 1}: the step from ${show(from!)} to ${show(to)} crosses ${places}${back}.`
}

/** Why it stopped, as a sentence. */
export function whyStopped(method: SearchMethod, found: Found, teller: Teller): string {
  const { line, asked } = teller
  switch (found.stopped) {
    case 'settled':
      return `It stopped because ${whyRested(method, asked.numbers.tolerance)}.`
    case 'level':
      return method === 'newton' || method === 'gradient'
        ? `It stopped because the slope is 0 at ${placeOf(teller, found.x)}.`
        : `It stopped because ${curveText(line)} has the same value wherever it looked.`
    case 'most':
      return method === 'population' && found.evaluations < (asked.numbers.most ?? 20_000)
        ? `It stopped after ${found.iterations} generations, the most it lives.`
        : `It stopped after ${found.evaluations} evaluations, the most it makes.`
    case 'missing':
      return `It stopped because ${curveText(line)} has no value or no slope where it came to.`
    case 'away':
      return 'It stopped because it ran away.'
  }
}

function whyRested(method: SearchMethod, given: number | undefined): string {
  const tolerance = formatPower(given ?? usualTolerance)
  switch (method) {
    case 'simplex':
      return `its two places lie within ${tolerance} of each other`
    case 'golden':
      return `what is left of the span is shorter than ${tolerance}`
    case 'newton':
      return given === undefined
        ? 'a further step changes no digit'
        : `a further step is shorter than ${tolerance}`
    case 'gradient':
      return `a further step is shorter than ${tolerance}`
    case 'population':
      return `all members lie within ${given === undefined ? 'a millionth' : tolerance} of the span`
  }
}

/** What went wrong, with a way out; null where it came to rest. */
export function failureOf(method: SearchMethod, found: Found, teller: Teller): LineProblem | null {
  const { line, asked } = teller
  const isLow = line.goal === 'low'
  const name = curveText(line)
  switch (found.stopped) {
    case 'level':
      if (method === 'newton' || method === 'gradient') return null
      return {
        message: `${name} is level wherever the search looked: there is no way ${isLow ? 'down' : 'up'}`,
        fix: beginsAtPlace(method)
          ? 'begin elsewhere, or with a longer first step'
          : 'widen its span',
      }
    case 'away':
      return {
        message: `the search runs away: at ${placeOf(teller, found.x)} ${name} still goes ${isLow ? 'down' : 'up'}`,
        fix: 'give the curve a span, or begin elsewhere',
      }
    case 'missing': {
      const lost = found.log.at(-1)!
      const [from, to] = [asked.curve.reach.from, asked.curve.reach.to]
      const isOut = lost.x < from || lost.x > to
      return Number.isNaN(lost.value)
        ? {
            message: isOut
              ? `the search left the span of ${line.curve} at probe ${found.evaluations}: ${placeOf(teller, lost.x)}`
              : `${name} has no value at ${placeOf(teller, lost.x)}, probe ${found.evaluations}`,
            fix:
              method === 'gradient' ? 'give a smaller rate, or begin elsewhere' : 'begin elsewhere',
          }
        : {
            message: `${name} has no slope at ${placeOf(teller, found.x)}, where the search came to`,
            fix: 'begin elsewhere, or search by simplex, which needs no slope',
          }
    }
    case 'most':
      if (method === 'population') return null
      return {
        message: `the search did not come to rest within ${found.evaluations} evaluations`,
        fix:
          method === 'gradient'
            ? 'give another rate: a small one is slow, a large one goes to and fro'
            : 'let it make more, or begin elsewhere',
      }
    case 'settled':
      return null
  }
}

import { sayNumber } from '../../vocabulary/numbers'
import { placeIs, oneSign } from '../shared/said'
import type { BreakKind } from '../../features/examination'
import { listed } from '../../vocabulary/units'
import { intervalText } from '../shared/intervals'
import type { Bridge } from './bridges'
import type { Conclusion, Does, Has, Missing, Orders, Seen, SeenAt } from './facts'

/** f′′ for the second order of f. */
export const shown = (subject: string, order: number) => subject + '′'.repeat(order)

const doesWords: Record<Does, string> = {
  rises: 'rises',
  falls: 'falls',
  level: 'is level',
  straight: 'is straight',
  concaveUp: 'is concave up',
  concaveDown: 'is concave down',
  notBelow: 'is 0 or above',
  notAbove: 'is 0 or below',
  zero: 'is 0',
}

const signs = (up: boolean) => (up ? '− to +' : '+ to −')
const course = (minimum: boolean) => (minimum ? 'falling to rising' : 'rising to falling')

function seenWords(seen: Seen, graph: string, letter: string, decimals: number): string {
  switch (seen.of) {
    case 'graph':
      return `the graph of ${graph} ${doesWords[seen.does]} there`
    case 'slope':
      return `the slope of ${graph} ${seen.up ? 'rises' : 'falls'} there`
    case 'values':
      return `${graph} ${seen.up ? 'rises' : 'falls'} there`
    case 'zero':
      return `${graph} is 0 there`
    case 'even':
      return `${graph} is level there`
    case 'sign': {
      const places = (all: readonly number[]) => placesWords(all, letter, decimals)
      const but = [
        ...(seen.zeros.length > 0 ? [`${places(seen.zeros)}, where it is 0`] : []),
        ...(seen.missing.length > 0 ? [`${places(seen.missing)}, where it is not continuous`] : []),
      ]
      const sign = `${graph} ${seen.up ? '>' : '<'} 0 inside`
      return but.length === 0 ? sign : `${sign} but for ${but.join(', and ')}`
    }
  }
}

const mostPlaces = 4

/** x = 1, 2 and 3 */
const placesWords = (all: readonly number[], letter: string, decimals: number) =>
  placeIs(letter, listed(oneSign(all.map((x) => sayNumber(x, Math.max(3, decimals)))), mostPlaces))

/** What a graph does at a place where it changes without being continuous. */
const leaps: Partial<Record<BreakKind, string>> = {
  jump: 'with a jump',
  displaced: 'beside a displaced point',
  hole: 'across a hole',
  pole: 'across a pole',
}

const breakReasons: Record<BreakKind, string> = {
  jump: 'jumps',
  kink: 'has a kink',
  cusp: 'has a cusp',
  vertical: 'is vertical',
  hole: 'has a hole',
  displaced: 'has a displaced point',
  pole: 'has a pole',
  'domain-end': 'ends',
  oscillation: 'swings without end',
}

function seenAtWords(seen: SeenAt, graph: string, missing: boolean): string {
  switch (seen.of) {
    case 'ownTurn':
      return `its graph turns from ${course(seen.minimum)} there`
    case 'turn':
      return `${graph} turns from ${course(seen.minimum)} there`
    case 'signGoes':
      return `${graph} goes ${signs(seen.up)} there`
    case 'signLeaps':
      return `${graph} goes ${signs(seen.up)} there ${leaps[seen.by] ?? ''}`.trimEnd()
    case 'courseLeaps':
      return `${graph} turns from ${course(seen.up)} there ${leaps[seen.by] ?? ''}`.trimEnd()
    case 'ownBend':
      return `its graph turns from concave ${seen.up ? 'down to concave up' : 'up to concave down'} there`
    case 'break':
      return `the graph of ${graph} ${breakReasons[seen.by]} there`
    case 'nearby':
      return `its graph ${breakReasons[seen.where]} there and no value nearby is ${seen.highest ? 'higher' : 'lower'}`
    case 'graphTurns':
      return `the graph of ${graph} ${missing ? 'has a kink there' : 'turns'}`
    case 'concavityTurns':
      return `the graph of ${graph} turns from concave ${seen.up ? 'down to concave up' : 'up to concave down'}`
  }
}

function hasWords(has: Has, name: string, where: string, seen: SeenAt): string {
  if (has.what === 'turning')
    return `${name} has a local ${has.minimum ? 'minimum' : 'maximum'} at ${where}`
  if (has.what === 'inflection')
    return `${name} has an inflection at ${where}${has.hasTangent ? '' : ', without a tangent'}`
  if (has.what === 'outstanding')
    return `${name} has a value at ${where} that is ${has.highest ? 'highest' : 'lowest'} nearby, without turning`
  if (has.what === 'missing') return `${name} is missing at ${where}`
  if (has.vanishes) return `${name} is 0 at ${where} and goes ${signs(has.up)} there`
  return seen.of === 'graphTurns'
    ? `${name} is missing at ${where}`
    : `${name} goes ${signs(has.up)} at ${where}, where it is missing`
}

/** What conclusions are worded with: the function they are about, and how numbers are written. */
export interface Wording {
  subject: string
  letter: string
  decimals: number
  /** "x = 1" or "x ≈ 1.155" for a place within an enclosure. */
  placeAt: (enclosure: readonly [number, number]) => string
}

/** A conclusion with its reason, as one sentence. */
export function conclusionWords(
  fact: Conclusion,
  { taken, about }: Orders,
  { subject, letter, decimals, placeAt }: Wording,
): string {
  const [name, graph] = [shown(subject, about), shown(subject, taken)]
  if (fact.kind === 'on') {
    const on = intervalText(fact.on, fact.closed, decimals)
    const but =
      fact.except.length === 0
        ? ''
        : ` but for ${placesWords(fact.except, letter, decimals)}, where it is missing`
    return `${name} ${doesWords[fact.does]} on ${on}${but}, because ${seenWords(fact.seen, graph, letter, decimals)}.`
  }
  const where = placeAt(fact.enclosure)
  const missing = fact.has.what === 'sign' && !fact.has.vanishes
  return `${hasWords(fact.has, name, where, fact.seen)}, because ${seenAtWords(fact.seen, graph, missing)}.`
}

/** What would have to be known besides the graph. */
export function missingWords(
  missing: Missing,
  { taken, about, steps }: Orders,
  subject: string,
): string {
  const named = (order: number) => shown(subject, order)
  const name = named(about)
  switch (missing) {
    case 'values':
      return `Values of ${name} need one value of ${name} beside the graph.`
    case 'riseAndValues':
      return `Where ${name} rises and falls needs one value of ${named(about + 1)} beside the graph; values of ${name} one value of ${name} as well.`
    case 'laneBelow':
      return `Where ${name} rises and falls is not seen on this graph: it follows from the lane of ${named(about - 1)}.`
    case 'laneExamined':
      return `${name} is not seen on the graph of ${named(taken - steps)}: this follows from the lane of ${named(taken)}.`
  }
}

/** Places at which nothing follows, since the area under the graph does not go on. */
export const gapWords = (
  gaps: readonly number[],
  { taken, about }: Orders,
  { subject, letter, decimals }: Wording,
): string[] =>
  gaps.length === 0
    ? []
    : [
        `Nothing follows about ${shown(subject, about)} at ${placesWords(gaps, letter, decimals)}, where ${shown(subject, taken)} has no value and no area that goes on: the sides are told apart.`,
      ]

/** What is taken for granted where a graph does what no derivative does. */
export function bridgeWords(
  bridges: readonly Bridge[],
  { taken }: Orders,
  { subject, letter, decimals }: Wording,
): string[] {
  if (bridges.length === 0) return []
  const [graph, below] = [shown(subject, taken), shown(subject, taken - 1)]
  const of = (kind: BreakKind) => bridges.filter((b) => b.kind === kind).map((b) => b.x)
  const at = (all: readonly number[]) => placesWords(all, letter, decimals)
  const say = (kind: BreakKind, words: (places: string) => string) =>
    of(kind).length > 0 ? [words(at(of(kind)))] : []
  return [
    ...say(
      'jump',
      (x) =>
        `At ${x} ${graph} jumps, which no derivative does where it has a value: ${below} is taken to be continuous there, with a kink.`,
    ),
    ...say(
      'displaced',
      (x) =>
        `At ${x} ${graph} has a value beside its limit, which no derivative has: ${below} is taken to be continuous there, with the limit as its slope.`,
    ),
    ...say('hole', (x) => `At ${x} ${graph} is missing: ${below} is taken to be continuous there.`),
    ...say(
      'pole',
      (x) =>
        `At ${x} ${graph} is unbounded with a bounded area: ${below} is taken to be continuous there.`,
    ),
  ]
}

import { sayNumber } from '../../vocabulary/numbers'
import type { PlaceKind } from '../../features/place/placeFacts'
import type { Tree } from '../../formula/tree'
import { placeWords } from '../shared/exactPlaces'
import { oneSign } from '../shared/said'
import { placeIs } from '../shared/said'
import { listed } from '../../vocabulary/units'
import type { Condition, Tested } from './facts'

/** What sentences about a theorem are worded with. */
export interface Wording {
  /** f, or f′. */
  name: string
  letter: string
  decimals: number
  /** The ends of the span, as they were typed. */
  ends: readonly [string, string]
  /** The exact number of a place within an enclosure, where it is known. */
  exactOf: (enclosure: readonly [number, number]) => Tree | null
}

export const show = (x: number, { decimals }: Wording) => sayNumber(x, Math.max(3, decimals))
export const place = (x: number, wording: Wording) => `${wording.letter} = ${show(x, wording)}`
const closedSpan = ({ ends }: Wording) => `[${ends.join(', ')}]`
export const openSpan = ({ ends }: Wording) => `(${ends.join(', ')})`

const doesWords: Record<PlaceKind, string> = {
  smooth: 'is smooth',
  kink: 'has a kink',
  cusp: 'has a cusp',
  vertical: 'has an upright tangent',
  swings: 'has secants whose slopes swing without settling',
  hole: 'has no value',
  displaced: 'has a value beside its limit',
  jump: 'jumps',
  pole: 'grows without bound',
  oscillation: 'swings without settling',
  end: 'ends',
  isolated: 'has no values beside it',
  outside: 'has no value',
  unsettled: 'could not be settled',
}

/** A condition with its answer, and where it fails. */
function conditionWords(condition: Condition, what: string, wording: Wording): string {
  const { name } = wording
  const { holds, at } = condition
  if (holds) return `${name} is ${what}.`
  const where = at ? ` at ${place(at.x, wording)} it ${doesWords[at.does]}` : ''
  return holds === null
    ? `Whether ${name} is ${what} is not settled${at ? `: at ${place(at.x, wording)}` : ''}.`
    : `${name} is not ${what}:${where}.`
}

export const continuousWords = (condition: Condition, wording: Wording) =>
  conditionWords(condition, `continuous on ${closedSpan(wording)}`, wording)

export const differentiableWords = (condition: Condition, wording: Wording) =>
  conditionWords(condition, `differentiable on ${openSpan(wording)}`, wording)

/** Places found, each exactly or to its certain digits. */
export const placesWords = (
  all: readonly { enclosure: readonly [number, number] }[],
  wording: Wording,
): string => placeIs(wording.letter, placeList(all, wording))

/** The same without the letter; of places that are all rounded the first alone carries ≈. */
export function placeList(
  all: readonly { enclosure: readonly [number, number] }[],
  { decimals, exactOf }: Wording,
): string {
  const most = 6
  const texts = all.map(({ enclosure: [lo, hi] }) =>
    placeWords(exactOf([lo, hi]), { enclosure: [lo, hi], proven: true }, Math.max(3, decimals)),
  )
  return listed(oneSign(texts), most)
}

const signWord = { 1: '+', 0: '0', [-1]: '−' } as const
const outcome = (t: Pick<Tested, 'before' | 'after'>) => {
  if (t.before === null || t.after === null || t.before === 0 || t.after === 0) return null
  return t.before === t.after ? 'neither' : t.before > 0 ? 'maximum' : 'minimum'
}

/** What the signs of f′ beside a critical point tell. */
export function firstTestWords(t: Tested, wording: Wording): string {
  const { name } = wording
  const at = `At ${placesWords([t], wording)}`
  if (t.does !== 'smooth' && !['kink', 'cusp', 'vertical', 'swings'].includes(t.does)) {
    return `${at} the test does not apply: ${name} ${doesWords[t.does]}, so it is not continuous.`
  }
  if (t.before === null || t.after === null)
    return `${at} the sign of ${name}′ on both sides is not settled.`
  if (t.before === 0 || t.after === 0) {
    return `${at} ${name}′ is 0 all along on one side: ${name} is level there, and the test does not decide.`
  }
  const what = outcome(t)
  const signs =
    what === 'neither'
      ? `keeps the sign ${signWord[t.before]}`
      : `goes ${signWord[t.before]} to ${signWord[t.after]}`
  const so = what === 'neither' ? 'neither a local maximum nor a local minimum' : `a local ${what}`
  return `${at} ${name} is continuous and ${name}′ ${signs}, so ${name} has ${so} there.`
}

/** What the sign of f′′ at a critical point tells. */
export function secondTestWords(t: Tested, wording: Wording): string {
  const { name } = wording
  const at = `At ${placesWords([t], wording)}`
  if (t.does !== 'smooth') {
    return `${at} the test does not apply: ${name} ${doesWords[t.does]}, so ${name}′ is not 0 there.`
  }
  if (!Number.isFinite(t.bend)) {
    return `${at} ${name}′ is 0 and ${name}′′ has no value: the test does not apply.`
  }
  if (t.bendSign === 1 || t.bendSign === -1) {
    const [relation, what] = t.bendSign > 0 ? ['> 0', 'minimum'] : ['< 0', 'maximum']
    return `${at} ${name}′ is 0 and ${name}′′ is ${show(t.bend, wording)} ${relation}, so ${name} has a local ${what} there.`
  }
  const zero = t.bendSign === 0 ? 'is 0 as well' : 'is 0, or too near to it to tell'
  const first = outcome(t)
  const instead = first
    ? ` By the first derivative test ${name} has ${first === 'neither' ? 'no turning point' : `a local ${first}`} there.`
    : ''
  return `${at} ${name}′ is 0 and ${name}′′ ${zero}: the test does not decide.${instead}`
}

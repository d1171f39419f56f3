import { type Tree } from '../../formula/tree'
import { readableFunctions } from '../../vocabulary/exactForms'
import { sayNumber } from '../../vocabulary/numbers'
import { numberSaid } from './said'
import { tellNumber } from '../../vocabulary/told'
import * as I from '../../arithmetic/intervals'
import type { OneSided } from '../../features/limits/oneSided'
import type { PlaceFacts, SideFacts } from '../../features/place/placeFacts'

/** A limit or value as it is written: its form where it is short, else by its digits. */
export function numberWords(
  found: { range: I.Interval; exact?: Tree | null },
  decimals: number,
): string {
  const places = Math.max(decimals, 3)
  const value = I.middle(found.range)
  if (found.exact) {
    const told = tellNumber(found.exact, places, readableFunctions)
    if (told.certain && Math.abs(told.value - value) <= 1e-9 * Math.max(1, Math.abs(value))) {
      return numberSaid(told, places)
    }
  }
  return sayNumber(Math.abs(value) < 1e-300 ? 0 : value, places)
}

/** “tends to 4”, “grows without bound”, “swings without settling”. */
export function tendingWords(limit: OneSided | null, decimals: number): string {
  switch (limit?.kind) {
    case 'value':
      return `tends to ${numberWords(limit, decimals)}`
    case 'infinite':
      return limit.sign > 0 ? 'grows without bound' : 'falls without bound'
    case 'none':
      return 'swings without settling'
    case 'unsettled':
      return 'does something that is not settled'
    default:
      return 'has no values'
  }
}

/** “tends to 1 from the left and to 3 from the right” */
export function bothSidesWords({ left, right }: PlaceFacts, decimals: number): string {
  const [p, q] = [tendingWords(left.limit, decimals), tendingWords(right.limit, decimals)]
  const [before, after] = [left.limit, right.limit].map((limit, i) =>
    limit ? `from the ${i === 0 ? 'left' : 'right'}` : `on the ${i === 0 ? 'left' : 'right'}`,
  )
  if (p === q && left.limit && right.limit) return `${p} from both sides`
  const both = p.startsWith('tends ') && q.startsWith('tends ')
  return `${p} ${before} and ${both ? q.slice('tends '.length) : q} ${after}`
}

const slopeOn = ({ slope }: SideFacts, decimals: number) =>
  slope?.kind === 'value'
    ? numberWords(slope, decimals)
    : slope?.kind === 'infinite'
      ? 'unbounded'
      : null

/** Why there is no slope at a place where a function has a value, after its name. */
export function noSlopeWords(facts: PlaceFacts, decimals: number): string {
  const { left, right, value } = facts
  const [p, q] = [slopeOn(left, decimals), slopeOn(right, decimals)]
  switch (facts.kind) {
    case 'kink':
      return p && q ? `has a kink here, ${p} on its left and ${q} on its right` : 'has a kink here'
    case 'cusp':
      return 'has a cusp here, where its slope is unbounded with opposite signs'
    case 'vertical':
      return 'is vertical here'
    case 'swings':
      return 'is continuous here, and the slopes of its secants swing without settling'
    case 'oscillation':
      return 'swings here without end'
    case 'displaced':
      return `is ${value ? numberWords(value, decimals) : ''} here, though both sides tend to ${left.limit?.kind === 'value' ? numberWords(left.limit, decimals) : ''}`
    case 'jump':
      return 'jumps here'
    case 'pole':
      return `${bothSidesWords(facts, decimals)} here`
    case 'end':
      return 'ends here'
    case 'isolated':
      return 'has a value here and none beside it'
    case 'unsettled':
      return 'could not be settled here'
    default:
      return 'has no slope here'
  }
}

/** How pieces meet at a place, as a sentence about the curve. */
export function joinWords(facts: PlaceFacts, name: string, at: string, decimals: number): string {
  const { left, right, value, slope } = facts
  const show = (of: OneSided | null) => (of?.kind === 'value' ? numberWords(of, decimals) : '')
  switch (facts.kind) {
    case 'smooth':
      return `${at} the pieces meet smoothly: ${name} is continuous and has the slope ${show(slope)}.`
    case 'kink':
      return left.slope?.kind === 'value' && right.slope?.kind === 'value'
        ? `${at} there is a kink: ${name} is continuous, its slope goes from ${show(left.slope)} to ${show(right.slope)}.`
        : `${at} the pieces meet: ${name} is continuous and has no slope.`
    case 'cusp':
    case 'vertical':
    case 'swings':
      return `${at} the pieces meet: ${name} is continuous and has no slope.`
    case 'jump':
      return `${at} ${name} jumps from ${show(left.limit)} to ${show(right.limit)}: it is not continuous and has no slope.`
    case 'hole':
      return `${at} ${name} has no value, though both sides tend to ${show(left.limit)}.`
    case 'displaced':
      return `${at} ${name} is ${numberWords(value!, decimals)}, though both sides tend to ${show(left.limit)}: it is not continuous.`
    case 'pole':
    case 'oscillation':
      return `${at} ${name} ${bothSidesWords(facts, decimals)}: it is not continuous.`
    case 'end':
      return `${at} ${name} ends: it has no values right ${left.limit ? 'after' : 'before'} it.`
    case 'isolated':
      return `${at} ${name} has a single value, ${numberWords(value!, decimals)}, and none beside it.`
    case 'outside':
      return `${at} ${name} ends: it has no values right beside it.`
    case 'unsettled':
      return `${at} it is not settled how the pieces of ${name} meet.`
  }
}

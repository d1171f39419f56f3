import { formatCertain } from '../../vocabulary/numbers'
import { intervalText } from '../shared/intervals'
import type { Conclusion, Does, Has, Missing, Orders, Seen, SeenAt } from './facts'

/** f′′ for the second order: what a graph is taken to be has no letter of its own. */
export const shown = (order: number) => `f${'′'.repeat(order)}`

const doesWords: Record<Does, string> = {
  rises: 'rises',
  falls: 'falls',
  level: 'is level',
  concaveUp: 'is concave up',
  concaveDown: 'is concave down',
  notBelow: 'is 0 or above',
  notAbove: 'is 0 or below',
  zero: 'is 0',
}

const signs = (up: boolean) => (up ? '− to +' : '+ to −')
const course = (minimum: boolean) => (minimum ? 'falling to rising' : 'rising to falling')

function seenWords(seen: Seen, graph: string): string {
  switch (seen.of) {
    case 'graph':
      return `the graph of ${graph} ${doesWords[seen.does]} there`
    case 'straight':
      return `the graph of ${graph} is straight`
    case 'slope':
      return `the slope of ${graph} ${seen.up ? 'rises' : 'falls'} there`
    case 'values':
      return `${graph} ${seen.up ? 'rises' : 'falls'} there`
    case 'sign':
      return `${graph} ${seen.up ? '>' : '<'} 0 inside`
  }
}

function seenAtWords(seen: SeenAt, graph: string, missing: boolean): string {
  switch (seen.of) {
    case 'ownTurn':
      return `its graph turns from ${course(seen.minimum)} there`
    case 'turn':
      return `${graph} turns from ${course(seen.minimum)} there`
    case 'signGoes':
      return `${graph} goes ${signs(seen.up)} there`
    case 'graphTurns':
      return `the graph of ${graph} ${missing ? 'has a kink there' : 'turns'}`
    case 'concavityTurns':
      return `the graph of ${graph} turns from concave ${seen.up ? 'down to concave up' : 'up to concave down'}`
  }
}

function hasWords(has: Has, name: string, where: string, seen: SeenAt): string {
  if (has.what === 'turning')
    return `${name} has a local ${has.minimum ? 'minimum' : 'maximum'} at ${where}`
  if (has.what === 'inflection') return `${name} has an inflection at ${where}`
  if (has.vanishes) return `${name} is 0 at ${where} and goes ${signs(has.up)} there`
  return seen.of === 'graphTurns'
    ? `${name} is missing at ${where}`
    : `${name} goes ${signs(has.up)} at ${where}, where it is missing`
}

/** A conclusion with its reason, as one sentence. */
export function conclusionWords(
  fact: Conclusion,
  { taken, about }: Orders,
  letter: string,
  decimals: number,
): string {
  const [name, graph] = [shown(about), shown(taken)]
  if (fact.kind === 'on') {
    const on = intervalText(fact.on, fact.closed, decimals)
    return `${name} ${doesWords[fact.does]} on ${on}, because ${seenWords(fact.seen, graph)}.`
  }
  const where = `${letter} = ${formatCertain(fact.enclosure, decimals).text}`
  const missing = fact.has.what === 'sign' && !fact.has.vanishes
  return `${hasWords(fact.has, name, where, fact.seen)}, because ${seenAtWords(fact.seen, graph, missing)}.`
}

/** What would have to be known besides the graph. */
export function missingWords(missing: Missing, { taken, about, steps }: Orders): string {
  const name = shown(about)
  switch (missing) {
    case 'values':
      return `Values of ${name} need one value of ${name} beside the graph.`
    case 'riseAndValues':
      return `Where ${name} rises and falls needs one value of ${shown(about + 1)} beside the graph; values of ${name} one value of ${name} as well.`
    case 'laneBelow':
      return `Where ${name} rises and falls is not seen on this graph: it follows from the lane of ${shown(about - 1)}.`
    case 'laneExamined':
      return `${name} is not seen on the graph of ${shown(taken - steps)}: this follows from the lane of ${shown(taken)}.`
  }
}

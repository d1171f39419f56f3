import type { BreakKind, Outstanding } from '../../features/examination'

/** Why a place is what it is, before it is put into words. */
export type BecauseFact =
  /** The signs of f on both sides; null where there is none, or none is known. */
  | { kind: 'zero'; before: 1 | -1 | null; after: 1 | -1 | null }
  /** An end of the span; its value may be the highest or lowest nearby. */
  | { kind: 'end'; nearby: Outstanding['kind'] | null }
  /** f′ changes its sign; `rises` for − to +. */
  | { kind: 'turns'; rises: boolean; vanishes: boolean }
  /** A critical point at which f does not turn; what it does there where f′ is missing, and the signs
   * of f′ beside it: 0 where it is 0 all along, null where it is not known. */
  | {
      kind: 'keeps'
      missing: BreakKind | null
      before: 1 | 0 | -1 | null
      after: 1 | 0 | -1 | null
    }
  /** The concavity changes; `up` for − to +. */
  | { kind: 'bends'; up: boolean; hasTangent: boolean; vanishes: boolean }
  | { kind: 'break'; of: BreakKind }
  /** No value nearby lies beyond its own, and it is no turning point. */
  | { kind: 'outstanding'; highest: boolean; where: Outstanding['where'] }
  /** A place with a value and none beside it. */
  | { kind: 'alone' }

const breakSentences: Record<BreakKind, (name: string) => string> = {
  jump: (q) => `the sides of ${q} tend to different numbers`,
  kink: (q) => `the slopes of ${q} on its sides differ`,
  cusp: (q) => `${q}′ is unbounded with opposite signs`,
  vertical: (q) => `${q}′ is unbounded with one sign`,
  hole: (q) => `${q} tends to a number it does not take there`,
  displaced: (q) => `${q} tends to a number beside its value there`,
  pole: (q) => `${q} is unbounded there`,
  'domain-end': (q) => `${q} has values on one side only`,
  oscillation: (q) => `${q} tends to no number there`,
}

/** The same, short, where it is why the slope is missing. */
const missingSentences: Record<BreakKind, (name: string) => string> = {
  ...breakSentences,
  jump: (q) => `${q} jumps there`,
  kink: () => 'the slopes on its sides differ',
  cusp: () => 'unbounded with opposite signs',
  vertical: () => 'unbounded with one sign',
}

/** The reason in one sentence, as the list, files and the screen reader say it. */
export function because(fact: BecauseFact, name: string): string {
  const signs = (up: boolean) => (up ? '− to +' : '+ to −')
  switch (fact.kind) {
    case 'zero':
      return zeroSentence(name, fact.before, fact.after)
    case 'end':
      return fact.nearby === null
        ? 'the span ends there'
        : `the span ends there; no value nearby is ${fact.nearby === 'maximum' ? 'higher' : 'lower'}`
    case 'turns':
      return fact.vanishes
        ? `${name} is continuous there and ${name}′ goes ${signs(fact.rises)}`
        : `${name} is continuous there, ${name}′ is missing and goes ${signs(fact.rises)}`
    case 'keeps':
      return fact.missing
        ? `${name}′ is missing: ${missingSentences[fact.missing](name)}`
        : keptSentence(name, fact.before, fact.after)
    case 'bends':
      if (!fact.hasTangent) return `${name} has a kink there and ${name}′′ goes ${signs(fact.up)}`
      return `${name} is continuous there and ${name}′′ goes ${signs(fact.up)}`
    case 'outstanding':
      return `no value nearby is ${fact.highest ? 'higher' : 'lower'}; no turning point, since ${whyNone(fact.where, name)}`
    case 'alone':
      return `${name} has a value there and none beside it`
    case 'break':
      return breakSentences[fact.of](name)
  }
}

/** Why a place with an outstanding value is no turning point. */
function whyNone(where: Outstanding['where'], name: string): string {
  if (where === 'end') return 'the span ends there'
  return where === 'domain-end' ? `${name} ends there` : `${name} is not continuous there`
}

function keptSentence(name: string, before: Beside, after: Beside): string {
  const there = `${name}′ is 0 there`
  if (before === null || after === null) return there
  if (before === after && before !== 0) {
    return `${there} and keeps its sign, ${before > 0 ? '+' : '−'} on both sides`
  }
  const side = before === 0 ? 'before' : 'after'
  return before === 0 || after === 0 ? `${there}, and all along ${side} it` : there
}
type Beside = 1 | 0 | -1 | null

function zeroSentence(name: string, before: 1 | -1 | null, after: 1 | -1 | null): string {
  const [a, b] = [before, after].map((sign) => (sign === 1 ? '+' : '−'))
  if (before === null || after === null) return `${name} is 0 there`
  return before === after
    ? `${name} is 0 there and ${a} on both sides`
    : `${name} goes ${a} to ${b}`
}

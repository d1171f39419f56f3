import { divideJets, type Jet, lnJet, undefinedJet } from '../evaluate/jets'
import { type CircularName, circular } from './circular'
import type { FunctionEntry } from './entry'
import { type ExponentialName, exponentials } from './exponentials'
import { type HyperbolicName, hyperbolic } from './hyperbolic'
import { type RootName, roots } from './roots'
import { type StepName, steps } from './steps'

export type { FunctionEntry } from './entry'

/**
 * Every function of one argument, by its name. What the rest of core must know of one stands in its
 * entry; a list of their names stands nowhere else.
 */
const entries: Record<UnaryName, FunctionEntry> = {
  ...circular,
  ...hyperbolic,
  ...exponentials,
  ...roots,
  ...steps,
}

export type UnaryName = CircularName | HyperbolicName | ExponentialName | RootName | StepName
/** Those of several arguments have rules of their own wherever functions are worked with. */
export type FunctionName = UnaryName | 'logBase' | 'min' | 'max'

export const unaryNames = Object.keys(entries) as UnaryName[]

/** The entry of a function of one argument. */
export const entryOf = (name: UnaryName): FunctionEntry => entries[name]

/** The entry behind a name, or null for a function of several arguments. */
export const maybeEntry = (name: FunctionName): FunctionEntry | null =>
  name in entries ? entries[name as UnaryName] : null

/** Every way a function may be written. */
export const spellings: Record<string, FunctionName> = {
  ...Object.fromEntries(unaryNames.flatMap((n) => entries[n].spellings.map((s) => [s, n]))),
  min: 'min',
  max: 'max',
}

/** log of x to a base: NaN unless both are above 0 and the base is not 1. */
export function logToBase(base: number, x: number): number {
  if (!(x > 0) || !(base > 0) || base === 1) return NaN
  if (base === 2) return Math.log2(x)
  if (base === 10) return Math.log10(x)
  return Math.log(x) / Math.log(base)
}

/** log of a jet to a fixed or moving base. */
export function logToBaseJet(base: Jet, x: Jet): Jet {
  const value = logToBase(base[0]!, x[0]!)
  if (Number.isNaN(value)) return undefinedJet(x.length)
  const jet = divideJets(lnJet(x), lnJet(base))
  jet[0] = value
  return jet
}

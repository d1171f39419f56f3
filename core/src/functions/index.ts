import type { FunctionName } from '../formula/tree'
import { divideJets, type Jet, lnJet, undefinedJet } from '../arithmetic/jets'
import { type CircularName, circular } from './circular'
import type { FunctionEntry } from './entry'
import { type ExponentialName, exponentials } from './exponentials'
import { type HyperbolicName, hyperbolic } from './hyperbolic'
import { type RootName, roots } from './roots'
import { several, type SeveralEntry, type SeveralName } from './several'
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
export type { FunctionName }

export const unaryNames = Object.keys(entries) as UnaryName[]

/** The entry of a function of one argument; a TypeError for one of several. */
export function entryOf(name: FunctionName): FunctionEntry {
  const entry = maybeEntry(name)
  if (!entry) throw new TypeError(`${name} has several arguments`)
  return entry
}

/** The entry behind a name, or null for a function of several arguments. */
export const maybeEntry = (name: FunctionName): FunctionEntry | null =>
  name in entries ? entries[name as UnaryName] : null

/** The entry of a function of several arguments, or null for one of one. */
export const severalOrNull = (name: FunctionName): SeveralEntry | null =>
  name in several ? several[name as SeveralName] : null
export const severalNames = Object.keys(several) as SeveralName[]

/** How many arguments a function takes. */
export const argumentsOf = (name: FunctionName): Pick<SeveralEntry, 'takes' | 'inWords'> =>
  severalOrNull(name) ?? { takes: [1, 1], inWords: 'one value' }

/** Every way a function may be written. */
export const spellings: Record<string, FunctionName> = {
  ...Object.fromEntries(unaryNames.flatMap((n) => entries[n].spellings.map((s) => [s, n]))),
  ...Object.fromEntries(severalNames.flatMap((n) => several[n].spellings.map((s) => [s, n]))),
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

import { countPrimes } from './primes'

/** A formula with an optional left side: q(t) = 6 + 4 sin t. */
export interface Definition {
  name: string
  /** The letter in the parentheses, or null for the short form y = …. */
  variable: string | null
  /** Whose formula the body is: 1 for f′(x) = 2x and dy/dx = 2x; 0 for the curve itself. */
  order: number
  body: string
  /** Where the body begins in the text. */
  bodyFrom: number
}

// A pasted left side may come in dollar signs and with \left( \right).
const leftSide =
  /^(?:\s|\$|\\[([])*(\p{L}(?:_\d{1,3}|_\{\d{1,3}\}|[₀-₉]{1,3})?)\s*(['’′"″‴]{0,3})\s*(?:(?:\\left)?\(\s*(\p{L})\s*(?:\\right)?\))?\s*=(?!=)/u

/** dy/dx = */
const quotientSide = /^\s*d\s*(\p{L})\s*\/\s*d\s*(\p{L})\s*=(?!=)/u

/** f: x ↦, x ↦ */
const arrowSide = /^\s*(?:(\p{L})\s*:\s*)?(\p{L})\s*(?:↦|⟼|→|->|\\mapsto|\\to(?![a-z]))\s*/u

/** Splits off a left side; null where the text has none. e and π cannot be names. */
export function parseDefinition(text: string): Definition | null {
  const arrow = arrowSide.exec(text)
  if (arrow) {
    const [all, name = 'f', variable = 'x'] = arrow
    if (name === variable || name === 'e' || variable === 'e') return null
    return { name, variable, order: 0, body: text.slice(all.length), bodyFrom: all.length }
  }
  const quotient = quotientSide.exec(text)
  const match = quotient ?? leftSide.exec(text)
  if (!match) return null
  const [all, typedName = ''] = match
  const variable = (quotient ? match[2] : match[3]) ?? null
  const order = quotient ? 1 : countPrimes(match[2]!)
  const name = typedName.replace(/_\{?(\d+)\}?/, (_, digits: string) =>
    [...digits].map((d) => '₀₁₂₃₄₅₆₇₈₉'[Number(d)]).join(''),
  )
  if (name === 'e' || name === 'π' || variable === 'e' || variable === 'π') return null
  if (variable === name) return null
  return { name, variable, order, body: text.slice(all.length), bodyFrom: all.length }
}

/** A value that is said of a curve beside its formula: f(0) = 3, f′(1) = 2. */
export interface KnownValue {
  name: string
  order: number
  at: string
  value: string
}

const knownValue =
  /(?:\s*[,;]\s*|\s+)(?:(?:with|and|where|given)\s+)?(\p{L}[₀-₉]{0,3})\s*(['’′"″‴]{0,2})\s*\(([^()=,;]+)\)\s*=\s*([^=;]+?)\s*$/u

/** Cuts values of a curve off the end of its formula: "2x, f(0) = 3", "6x with f′(0) = 1 and f(0) = 2". */
export function cutKnownValues(text: string): { rest: string; known: KnownValue[] } {
  const known: KnownValue[] = []
  let rest = text
  for (;;) {
    const match = knownValue.exec(rest)
    if (!match) return { rest, known }
    const [all, name = '', primes = '', at = '', value = ''] = match
    known.unshift({ name, order: countPrimes(primes), at: at.trim(), value })
    rest = rest.slice(0, rest.length - all.length)
  }
}

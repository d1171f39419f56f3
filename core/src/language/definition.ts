/** A formula with an optional left side: q(t) = 6 + 4 sin t. */
export interface Definition {
  name: string
  /** The letter in the parentheses, or null for the short form y = …. */
  variable: string | null
  body: string
  /** Where the body begins in the text. */
  bodyFrom: number
}

// A pasted left side may come in dollar signs and with \left( \right).
const leftSide =
  /^(?:\s|\$|\\[([])*(\p{L}(?:_\d{1,3}|_\{\d{1,3}\}|[₀-₉]{1,3})?)\s*(?:(?:\\left)?\(\s*(\p{L})\s*(?:\\right)?\))?\s*=(?!=)/u

/** Splits off a left side; null where the text has none. e and π cannot be names. */
export function parseDefinition(text: string): Definition | null {
  const match = leftSide.exec(text)
  if (!match) return null
  const [all, typedName = '', variable = null] = match
  const name = typedName.replace(/_\{?(\d+)\}?/, (_, digits: string) =>
    [...digits].map((d) => '₀₁₂₃₄₅₆₇₈₉'[Number(d)]).join(''),
  )
  if (name === 'e' || name === 'π' || variable === 'e' || variable === 'π') return null
  if (variable === name) return null
  return { name, variable, body: text.slice(all.length), bodyFrom: all.length }
}

import { parseCurveRef } from '../statements/shared/slots'

const leadIn = new RegExp(
  `^(?:${[
    ...['please', 'find', 'show', 'draw', 'plot', 'add', 'give', 'make', 'compute', 'calculate'],
    ...['sketch', 'graph', 'insert', 'consider', 'line(?= y\\s*=)', 'curve(?= \\p{L}\\s*[=(])'],
    ...['function(?= \\p{L}\\s*[=(])'],
    ...['determine', 'get', 'what is', "what's", 'how large is', 'me', 'graph of'],
    ...['the', 'an?(?= \\p{L}{3})', 'all', 'its', 'is there an?'],
  ].join('|')})\\s+(?=\\S)`,
  'iu',
)

/** A request without the words that lead to it, such as “please find the”. */
export function withoutLeadIn(typed: string): string {
  let text = typed.trim()
  while (leadIn.test(text)) text = text.replace(leadIn, '')
  return text
}

/** A request as lines look at it: without the words that lead to it, q for q(t). */
export function plainRequest(
  typed: string,
  letter: string,
  curves: readonly { name: string }[],
): string {
  const text = withoutLeadIn(typed)
  if (definedName(text, letter, curves) !== null) return text
  return text
    .replace(/\?+$/, '')
    .replace(new RegExp(`(\\S+?)\\s*\\(\\s*${letter}\\s*\\)`, 'gu'), (whole, name: string) => {
      const ref = parseCurveRef(name)
      return ref && curves.some((c) => c.name === ref.curve) ? name : whole
    })
    .trim()
}

/** The letter that a text says the meaning of, where no curve has it: its words are a formula's. */
export function definedName(
  text: string,
  letter: string,
  curves: readonly { name: string }[],
): string | null {
  const defined =
    /^(?:let\s+|given\s+)?(\p{L}(?:[₀-₉]|_?\d)*)\s*['’′″]*\s*(?:\(\s*\p{L}\s*\))?\s*=/u.exec(
      text.trim(),
    )?.[1]
  if (defined === undefined || defined === letter) return null
  return curves.some(({ name }) => name === defined) ? null : defined
}

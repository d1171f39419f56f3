const between = /\s*(?:[.;?!]+\s+|\n+|,?\s+(?:and\s+)?then\s+|,\s+(?:and\s+)?|\s+and\s+)/giu

/** A request is not longer than this many parts of a sentence. */
const mostCuts = 12

/**
 * A text cut at every place where one request may end and another begin: after sentences, at
 * "and", "then" and commas, the later places first. Each cut gives what stands before and behind it.
 */
function cuts(text: string): { before: string; behind: string }[] {
  const found = [...text.matchAll(between)].map(({ index, 0: cut }) => ({
    before: text.slice(0, index).trim(),
    behind: text.slice(index + cut.length).trim(),
  }))
  const whole = found.filter(({ before, behind }) => before !== '' && behind !== '')
  return whole.slice(0, mostCuts).reverse()
}

/** The sentences of a text, each a request or more. */
export const sentencesIn = (text: string): string[] =>
  text
    .split(/(?<=[^\d\s])[.;?!]+(?:\s+|$)|(?<=\d)[.;?!](?:\s+|$)|\n+/u)
    .map((sentence) => sentence.trim())
    .filter((sentence) => sentence !== '')

/**
 * The first request of a text that is understood, with what stands behind it; the longest that is,
 * so that "from 1 and 3" is not cut. null where none is.
 */
export function firstUnderstood(
  text: string,
  isUnderstood: (request: string) => boolean,
): { request: string; rest: string } | null {
  const plain = text.trim()
  if (plain === '') return null
  if (isUnderstood(plain)) return { request: plain, rest: '' }
  const found = cuts(plain).find(({ before }) => isUnderstood(before))
  return found ? { request: found.before, rest: found.behind } : null
}

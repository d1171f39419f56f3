/** Numbers, places and comparisons as they stand among words, for the patterns of the reader. */

/** The letters that names of curves and places are made of; a range is read faster than a property. */
export const letters = 'A-Za-z\u00C0-\u024F\u0370-\u03FF\u0400-\u04FF'

const signed = String.raw`[-−+]\s?`
const calls = 'sqrt|cbrt|ln|log|exp|sin|cos|tan|arcsin|arccos|arctan|abs'
// A number ends where its figures end: there is one way only to cut a long one.
const atom = String.raw`(?:\d+(?:[.,]\d+)?(?!\d)|\.\d+(?!\d)|[√π∞°½¼¾⅓⅔]|pi(?![${letters}])|infinity(?![${letters}])|(?:${calls})\s?\([^()]*\)|(?<![${letters}])[${letters}][₀-₉]*['’′]*\([^(),]*\)|(?<![${letters}])[${letters}](?:[₀-₉]+|_\d+)?(?![${letters}]|-[${letters}])|\([^(),]*\))`
const operator = String.raw`\s*(?:[/*·×^]|[-−+](?!>))\s*`

/** An expression without spaces but around its operators: 2, −1.5, π/2, a + h, √(2), f(3). */
export const expression = String.raw`(?:${signed})?${atom}+(?:${operator}(?:${signed})?${atom}+)*`

const smallNumbers: Readonly<Record<string, string>> = {
  ...{ zero: '0', one: '1', two: '2', three: '3', four: '4', five: '5', six: '6', seven: '7' },
  ...{ eight: '8', nine: '9', ten: '10', eleven: '11', twelve: '12', fifteen: '15', twenty: '20' },
  ...{ thirty: '30', forty: '40', fifty: '50', hundred: '100', thousand: '1000' },
}
export const numberWords = Object.keys(smallNumbers).join('|')

/** A number in figures or words, as a group. */
export const numberPattern = String.raw`(\d+|${numberWords})`
export const timeUnits = 'seconds?|secs?|minutes?|mins?|hours?|days?|years?'

/** "four" as 4; anything else as it is. */
export const inFigures = (word: string) => smallNumbers[word.toLowerCase()] ?? word

const words = (said: string) => String.raw`\b(?:${said.replace(/ /g, String.raw`\s+`)})\b`

export type Relation = '=' | '<' | '>' | '≤' | '≥'

/** Words and signs that compare, the longer ones first. */
export const comparisons: readonly (readonly [said: string, relation: Relation])[] = [
  [String.raw`>=|=>|≥|⩾|\\geq?\b`, '≥'],
  [String.raw`<=|≤|⩽|\\leq?\b`, '≤'],
  ['>', '>'],
  ['<', '<'],
  ['==?', '='],
  [words('(?:greater|more|larger) than or equal to|at least|not less than|no less than'), '≥'],
  [words('(?:less|smaller) than or equal to|at most|not (?:more|greater) than|no more than'), '≤'],
  [words(String.raw`(?:strictly )?(?:greater|larger|bigger|more|higher) than|exceeds?|above`), '>'],
  [words('(?:strictly )?(?:less|smaller|lower) than|below'), '<'],
  [
    words(
      '(?:has|have|takes?)(?: on)?(?: the)? values?(?: of)?|equals?(?: to)?|(?:reach|hit|become|get|cross)(?:es|s)?(?: to)?(?: the (?:value|level))?|intersects?(?: with)?|crosses?|meets?|is|are|be',
    ),
    '=',
  ],
]

/** Signs as people say them, as a comparison with 0. */
export const signWords: readonly (readonly [said: string, relation: Relation])[] = [
  [String.raw`non-?\s?negative`, '≥'],
  [String.raw`non-?\s?positive`, '≤'],
  [
    String.raw`positive|(?:above|over)\s+(?:the\s+)?(?:[xt]-?\s?)?axis|above\s+(?:zero|ground)`,
    '>',
  ],
  [String.raw`negative|(?:below|under)\s+(?:the\s+)?(?:[xt]-?\s?)?axis|below\s+zero`, '<'],
  [String.raw`zero|level|horizontal|flat|vanish(?:es)?|nought`, '='],
]

/** A pattern for a whole text, made once for each source; whoever uses it sets where it begins. */
export function asPattern(source: string, flags = 'gi'): RegExp {
  const key = `${flags} ${source}`
  let pattern = patterns.get(key)
  if (!pattern) patterns.set(key, (pattern = new RegExp(source, flags)))
  pattern.lastIndex = 0
  return pattern
}
const patterns = new Map<string, RegExp>()

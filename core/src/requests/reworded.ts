/** A curve by its letter, with primes: f, q′. */
const curve = String.raw`(\p{L}[₀-₉]{0,3}[′'’″]*)`
/** The same as it is written in a formula: f, f(x). */
const called = String.raw`(\p{L}[₀-₉]{0,3}[′'’″]*)(?:\(\p{L}\))?`
const spelled = (pattern: string) => new RegExp(pattern, 'iu')
/** Where capitals tell: R4 is a sum. */
const exactly = (pattern: string) => new RegExp(pattern, 'u')

const rules: Readonly<Record<string, string>> = {
  R: 'right',
  L: 'left',
  M: 'midpoint',
  T: 'trapezoid',
  S: 'simpson',
}

type Rewording = readonly [RegExp, string | ((...found: string[]) => string)]

/**
 * Phrases of textbooks, and what the lines call the same; each is put in place of what it finds. They
 * are tried in order, on what the one before has left.
 */
const rewordings: readonly Rewording[] = [
  // y − f(2) = f′(2)(x − 2) is the tangent there.
  [
    spelled(
      String.raw`^y\s*[-−–]\s*(\p{L})\(([^()]+)\)\s*=\s*\1[′'’]\(\2\)\s*[·*]?\s*\(\s*\p{L}\s*[-−–]\s*\2\s*\)$`,
    ),
    'tangent to $1 at $2',
  ],
  // An area as a function.
  [
    spelled(
      String.raw`^(?:let\s+)?(\p{L})\(\p{L}\)\s*=\s*(?:the\s+)?(?:integral of|area under|accumulated area under)\s+${called}\s+from\s+(\S+)\s+to\s+\p{L}$`,
    ),
    'accumulate $2 from $3 as $1',
  ],
  [
    spelled(
      String.raw`^(?:\\int|∫)\s*_\{?([^{}^\s]+?)\}?\s*\^\{?([^{}\s]+?)\}?\s*${called}\s*\\?,?\s*d\s*\p{L}$`,
    ),
    'area under $3 from $1 to $2',
  ],
  [spelled(String.raw`\bdefinite integral\b`), 'integral'],
  // Limits.
  [
    spelled(
      String.raw`^lim(?:it)?\s*_?\s*\{?\s*(\p{L})\s*(?:→|->|\\to)\s*([^{}\s]+?)\s*\}?\s+${called}$`,
    ),
    'limit of $3 as $1 -> $2',
  ],
  [spelled(String.raw`^end behaviou?r(?:\s+of)?\s+${called}`), 'limit of $1 at infinity'],
  // Tangents.
  [
    spelled(String.raw`^(?:the\s+)?(?:equation of\s+)?(?:the\s+)?(tangent|normal|secant) line\b`),
    '$1',
  ],
  [spelled(String.raw`^horizontal tangents?(?:\s+(?:of|to))?\s+${called}`), "where $1' = 0"],
  [spelled(String.raw`^y[- ]intercept(?:\s+of)?\s+${called}`), 'value of $1 at 0'],
  [spelled(String.raw`^(?:the\s+)?point\s+(?:on|of)\s+${called}\s+at\b`), 'value of $1 at'],
  [spelled(String.raw`^(?:the\s+)?point\s+at\b`), 'value at'],
  [
    spelled(String.raw`^(?:the\s+)?point\s*\(\s*([^(),]+?)\s*,\s*(\p{L})\(\s*\1\s*\)\s*\)$`),
    'value of $2 at $1',
  ],
  [spelled(String.raw`\baverage rate of change\b`), 'average rate'],
  // Meetings.
  [
    spelled(
      String.raw`^(?:the\s+)?(?:points? of\s+)?intersections?\s+(?:of|between)\s+${called}\s+(?:and|with)\s+${called}`,
    ),
    'where does $1 meet $2',
  ],
  [
    spelled(String.raw`^where\s+do\s+${called}\s+and\s+${called}\s+(?:meet|intersect|cross)`),
    'where does $1 meet $2',
  ],
  [spelled(String.raw`^(?:where|when)\s+(?:is\s+)?${called}\s+equal\s+to\s+`), 'where $1 = '],
  // Rise, fall, concavity.
  [
    spelled(
      String.raw`^(?:where\s+is\s+|when\s+is\s+|intervals?\s+(?:on\s+which|where)\s+)?${curve}\s+(?:is\s+)?(?:increasing|decreasing|rising|falling|concave\s+(?:up|down)|concave)\b`,
    ),
    'conclude $1 as $1',
  ],
  [
    spelled(
      String.raw`^(?:the\s+)?(?:intervals?\s+of\s+(?:increase|decrease|concavity)|monotonicity)\s+of\s+${called}`,
    ),
    'conclude $1 as $1',
  ],
  // Points.
  [spelled(String.raw`^critical numbers?\b`), 'critical points'],
  [
    spelled(
      String.raw`^(?:local|relative)\s+(?:extrem(?:a|um|es)|max(?:ima|imum)|min(?:ima|imum)|extreme values?)\b`,
    ),
    'turning points',
  ],
  [
    spelled(
      String.raw`^(?:absolute|global)\s+(?:extrem(?:a|um|es)|max(?:ima|imum)|min(?:ima|imum)|extreme values?)\b`,
    ),
    'features',
  ],
  [spelled(String.raw`^range\s+(?=of\s)`), 'features '],
  // Strips.
  [
    exactly(String.raw`^([RLMTS])_?(\d+)\b\s*`),
    (_, rule = '', count = '') => `${rules[rule]!} ${count} strips `,
  ],
  [spelled(String.raw`\b(rule|sum)\s+(?:with\s+)?(\d+)$`), '$1 with $2 strips'],
  [
    spelled(
      String.raw`\b(\d+)\s+(?:equal\s+)?(?:sub-?intervals?|sub-?divisions?|divisions?|partitions?)\b`,
    ),
    '$1 strips',
  ],
  [
    spelled(
      String.raw`^(?=.*\b(?:area|sums?|strips?|rectangles?|trapezoids?|integral)\b)(.*)\b(?:using|with|at|by|from)\s+(?:the\s+)?(left|right|mid)(?:dle)?(?:[- ]?(?:hand)?[- ]?(?:end[- ]?points?|points?|sums?|heights?))?(?=\s|$)`,
    ),
    (_, before = '', side = '') =>
      before + (side.toLowerCase() === 'mid' ? 'midpoint' : side.toLowerCase()),
  ],
]

/**
 * What was typed, with phrases of textbooks put into the words that lines know. `isCurve` tells which
 * letters are curves: R4 is a sum only where nothing is called R.
 */
export function reworded(text: string, isCurve: (name: string) => boolean): string {
  let result = text.trim().replace(/[?.!]+$/, (end) => (end === '!' ? end : ''))
  for (const [pattern, instead] of rewordings) {
    const sum = /^([RLMTS])_?\d+/u.exec(result)
    if (pattern.flags === 'u' && sum && isCurve(sum[1]!)) continue
    result =
      typeof instead === 'string'
        ? result.replace(pattern, instead)
        : result.replace(pattern, (...found) => instead(...(found as string[])))
  }
  return result.trim()
}

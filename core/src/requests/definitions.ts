const called = String.raw`(\p{L}[₀-₉]{0,3}[′'’″]*)(?:\(\s*\p{L}\s*\))?`
const name = String.raw`(\p{L}[₀-₉]{0,3})(?:\(\s*\p{L}\s*\))?`
const spelled = (pattern: string) => new RegExp(pattern, 'iu')
const orders = ['first', 'second', 'third']

/** Sentences that say what a new curve is, and equations of tangents; each in the lines' own words. */
const definitions: readonly (readonly [RegExp, string | ((...found: string[]) => string)])[] = [
  // y − f(2) = f′(2)(x − 2), and y = f(2) + f′(2)(x − 2), are the tangent there.
  [
    spelled(
      String.raw`^y\s*[-−–]\s*(\p{L})\(([^()]+)\)\s*=\s*\1[′'’]\(\2\)\s*[·*]?\s*\(\s*\p{L}\s*[-−–]\s*\2\s*\)$`,
    ),
    'tangent to $1 at $2',
  ],
  [
    spelled(
      String.raw`^y\s*=\s*(\p{L})\(([^()]+)\)\s*\+\s*\1[′'’]\(\2\)\s*[·*]?\s*\(\s*\p{L}\s*[-−–]\s*\2\s*\)$`,
    ),
    'tangent to $1 at $2',
  ],
  [
    spelled(
      String.raw`^y\s*=\s*(\p{L})[′'’]\(([^()]+)\)\s*[·*]?\s*\(\s*\p{L}\s*[-−–]\s*\2\s*\)\s*\+\s*\1\(\2\)$`,
    ),
    'tangent to $1 at $2',
  ],
  // The quotient of differences.
  [
    spelled(
      String.raw`^\(\s*(\p{L})\(([^()]+?)\s*\+\s*(h|Δ\p{L})\)\s*[-−]\s*\1\(\2\)\s*\)\s*\/\s*\3$`,
    ),
    (_, of = '', at = '', h = '') =>
      /^\p{L}$/u.test(at) && at !== 'a'
        ? `secant to ${of}`
        : `secant to ${of} from ${at} to ${at} + ${h}`,
  ],
  // A distance as its line says it.
  [
    spelled(
      String.raw`^distance\s+\p{L}[₀-₉]{0,3}\(\p{L}\)\s+from\s+${called}\s+at\s+\p{L}\s*=\s*(.+?)\s+to\s+(\(.*\))$`,
    ),
    'distance from $1 at $2 to $3',
  ],
  // A rate of change as its line says it.
  [
    spelled(
      String.raw`^(?:rate of change(?: of the rate)?|\p{L}+ derivative)\s+(\p{L}[₀-₉]{0,3}[′'’″]+)\(\p{L}\)\s*=.*$`,
    ),
    '$1',
  ],
  // An area as a function.
  [
    spelled(
      String.raw`^(?:let\s+)?${name}\s*(?:=|be|is)\s*(?:the\s+)?(?:integral|area under|accumulated area under)\s+(?:of\s+)?${called}\s+(?:d\p{L}\s+)?from\s+(\S+)\s+to\s+\p{L}(?:,?\s+plus\s+(\S+))?$`,
    ),
    (_, own = '', of = '', from = '', plus) =>
      `accumulate ${of} from ${from}${plus === undefined ? '' : ` plus ${plus}`} as ${own}`,
  ],
  [
    spelled(
      String.raw`^(?:let\s+)?${name}\s*(?:=|be|is)\s*(?:the\s+)?integral\s+from\s+(\S+)\s+to\s+\p{L}\s+of\s+${called}(?:\s+d\p{L})?$`,
    ),
    'accumulate $3 from $2 as $1',
  ],
  [
    spelled(
      String.raw`^(?:let\s+)?${name}\s*(?:=|be|is)\s*(?:∫|\\int)\s*_\s*\{?([^{}^\s]+?)\}?\s*\^\s*\{?\p{L}\}?\s*${called}\s*\\?,?\s*d\s*\p{L}$`,
    ),
    'accumulate $3 from $2 as $1',
  ],
  [
    spelled(
      String.raw`^(?:let\s+)?${name}\s*(?:=|be|is)\s*(?:the\s+)?(?:(first|second|third)\s+)?derivative\s+of\s+(\p{L}[₀-₉]{0,3})(?:\(\s*\p{L}\s*\))?$`,
    ),
    (_, own = '', order = 'first', of = '') =>
      `let ${own} = ${of}${'′'.repeat(orders.indexOf(order.toLowerCase()) + 1)}`,
  ],
]

/** A sentence that defines a curve or is the equation of a tangent, as lines call it; else as it was. */
export function asDefined(typed: string): string {
  const text = typed.trim().replace(/[?.]+$/, '')
  for (const [pattern, instead] of definitions) {
    if (!pattern.test(text)) continue
    return typeof instead === 'string'
      ? text.replace(pattern, instead)
      : text.replace(pattern, (...found) => instead(...(found as string[])))
  }
  return text
}

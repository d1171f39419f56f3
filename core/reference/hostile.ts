/** Texts made to exhaust a reader that recurses, backtracks or copies: [what it is, text]. */
export const hostileTexts: [string, string][] = [
  ['nested parentheses', '('.repeat(10_000) + 'x' + ')'.repeat(10_000)],
  ['open parentheses', '('.repeat(100_000)],
  ['a long sum', Array(50_000).fill('x').join('+')],
  ['signs', '-'.repeat(100_000) + 'x'],
  ['powers', Array(20_000).fill('x').join('^')],
  ['divisions', Array(20_000).fill('x').join('/')],
  ['bars', '|'.repeat(50_000)],
  ['functions', 'sin '.repeat(20_000) + 'x'],
  ['nonsense', '$'.repeat(100_000)],
  ['digits', '9'.repeat(100_000)],
  ['letters', 'q'.repeat(100_000)],
  ['spaces', `${' '.repeat(100_000)}x${' '.repeat(99_000)}+`],
  ['backslashes', '\\'.repeat(100_000)],
  ['fractions', '\\frac'.repeat(20_000)],
  ['texts', '\\text{'.repeat(20_000)],
]

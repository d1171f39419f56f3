import { asPattern } from './grammar'

const digits = '₀₁₂₃₄₅₆₇₈₉⁰¹²³⁴⁵⁶⁷⁸⁹'
/** ₁₀ and ¹⁰ as 10. */
const plainDigits = (small: string) =>
  [...small].map((d) => (/[₋⁻]/.test(d) ? '-' : String(digits.indexOf(d) % 10))).join('')

const isPosition = (name: string) => /^[sx]$/.test(name)
/** The letter v where a position is there against t, and no velocity. */
const velocityOf = (letter: string, curves: readonly string[]): RegExp =>
  letter === 't' && curves.some(isPosition) && !curves.includes('v')
    ? /(?<![\p{L}\d])v(?:\(t\))?(?=\s*(?:[=<>≤≥]|\bis\b|\bequals?\b|\s(?:positive|negative|zero))|(?=\([^()t]+\)))/gu
    : /(?!)/g

/** A request with its signs written in one way: curves by their letters, no dollar signs, no dx. */
export function inOneWay(
  typed: string,
  { letter, curves }: { letter: string; curves: readonly string[] },
): string {
  const name = curves.length === 0 ? '(?!)' : `(?:${curves.join('|')})`
  const primes = `['’′″‴]*`
  return (
    typed
      .replace(/[$]|\\[,;!:]|\\(?:left|right|displaystyle|limits)\b/g, ' ')
      .replace(/\\infty|\binfty\b/g, '∞')
      .replace(/\b(?:plus\s+|positive\s+)?infinity\b/gi, '∞')
      .replace(/\b(?:minus|negative)\s+(?=∞|\d)/gi, '−')
      .replace(/-\s?∞/g, '−∞')
      .replace(/\b(?:plus\s+)?inf\b/gi, '∞')
      .replace(/\bpi\b/g, 'π')
      // ∫₀² as ∫_0^2.
      .replace(/∫\s*([₋₀-₉]+)\s*([⁻⁰¹²³⁴-⁹]+)/g, (_, from: string, to: string) => {
        return `∫_${plainDigits(from)}^${plainDigits(to)}`
      })
      // The area between the curve and the axis is said in both ways.
      .replace(
        asPattern(
          String.raw`\b(under|below)\s+(.{1,40}?)\s+(?:and\s+)?above\s+(?:the\s+)?${letter}\s?-?\s?axis\b`,
        ),
        '$1 $2',
      )
      .replace(/\babs\.?\s+(?=(?:max|min)\w*\b)/gi, 'absolute ')
      // The x-coordinates are the places, the y-value is the value.
      .replace(
        asPattern(String.raw`\b${letter}\s?-\s?(?:coordinate|value)s?\b(?:\s+of\b)?`, 'gi'),
        'places',
      )
      .replace(/\by\s?-\s?(?:coordinate|value)s?\b/gi, 'value')
      // f prime, f double prime, f of 2.
      .replace(
        asPattern(String.raw`(?<!\p{L})(${name})[ -](?:double|triple)?[ -]?prime\b`, 'gu'),
        (whole, of: string) =>
          `${of}${/double/.test(whole) ? '′′' : /triple/.test(whole) ? '′′′' : '′'}`,
      )
      .replace(
        asPattern(
          String.raw`(?<!\p{L})(${name}${primes})\s+of\s+([-−]?\d+(?:\.\d+)?|${letter})(?![\p{L}\d])`,
          'gu',
        ),
        '$1($2)',
      )
      // The velocity v of a position.
      .replace(velocityOf(letter, curves), () => `${curves.find(isPosition) ?? ''}′`)
      .replace(/’/g, "'")
      // d/dx f(x), df/dx, dy/dx, d²y/dx².
      .replace(
        asPattern(String.raw`\bd\s*(?:\^?2|²)\s*(${name}|y)?\s*\/\s*d${letter}\s*(?:\^?2|²)`, 'gu'),
        (_, of: string | undefined) => `second derivative ${of && of !== 'y' ? `of ${of}` : ''}`,
      )
      .replace(
        asPattern(String.raw`\bd\s*(${name}|y)?\s*\/\s*d${letter}\b`, 'gu'),
        (_, of: string | undefined) => `derivative ${of && of !== 'y' ? `of ${of}` : ''}`,
      )
      // dx, which may stand right behind a bracket.
      .replace(asPattern(String.raw`(?<![\p{L}])d${letter}\b`, 'gu'), ' ')
      // The curve y = f(x).
      .replace(
        asPattern(
          String.raw`\by\s*=\s*(${name}${primes})(?:\s*\(\s*${letter}\s*\))?(?![\p{L}(\d]|\s*[-+*/^−·])`,
          'gu',
        ),
        '$1',
      )
      .replace(
        asPattern(String.raw`(?<!\p{L})(${name}${primes})\s*\(\s*${letter}\s*\)`, 'gu'),
        '$1',
      )
      .replace(/[?.!]+(?=\s*$)/, '')
      .replace(/\s+/g, ' ')
      .trim()
  )
}

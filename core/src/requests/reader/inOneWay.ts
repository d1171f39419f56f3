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
      .replace(/\bpi\b/g, 'π')
      .replace(/’/g, "'")
      // d/dx f(x), df/dx, dy/dx, d²y/dx².
      .replace(
        new RegExp(
          String.raw`\bd\s*(?:\^?2|²)\s*(${name}|y)?\s*\/\s*d${letter}\s*(?:\^?2|²)`,
          'gu',
        ),
        (_, of: string | undefined) => `second derivative ${of && of !== 'y' ? `of ${of}` : ''}`,
      )
      .replace(
        new RegExp(String.raw`\bd\s*(${name}|y)?\s*\/\s*d${letter}\b`, 'gu'),
        (_, of: string | undefined) => `derivative ${of && of !== 'y' ? `of ${of}` : ''}`,
      )
      // The curve y = f(x).
      .replace(
        new RegExp(
          String.raw`\by\s*=\s*(${name}${primes})(?:\s*\(\s*${letter}\s*\))?(?![\p{L}(\d]|\s*[-+*/^−·])`,
          'gu',
        ),
        '$1',
      )
      .replace(
        new RegExp(String.raw`(?<!\p{L})(${name}${primes})\s*\(\s*${letter}\s*\)`, 'gu'),
        '$1',
      )
      .replace(new RegExp(String.raw`\bd${letter}\b`, 'gu'), ' ')
      .replace(/[?.!]+(?=\s*$)/, '')
      .replace(/\s+/g, ' ')
      .trim()
  )
}

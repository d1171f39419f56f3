import { accents, mathSigns, textSigns } from './signs'

/** Stands where a character has no sign in LaTeX without fonts of its own. */
const box = '\\framebox[0.7em]{\\rule{0pt}{0.45em}}'

const raised = '⁰¹²³⁴⁵⁶⁷⁸⁹⁺⁻⁽⁾ⁿᵏ'
const lowered = '₀₁₂₃₄₅₆₇₈₉₊₋₍₎ₙₖ'
const plainOf = (character: string, all: string) => '0123456789+-()nk'[all.indexOf(character)]!

/** A text in LaTeX with the characters of it that stand as empty boxes. */
export interface LatexText {
  source: string
  missing: readonly string[]
}

/**
 * A text of people as LaTeX that means nothing but its letters: every character that LaTeX reads as more
 * is written out, letters with marks are composed, signs of mathematics are mathematics. All of it is
 * ASCII. A character without a sign is an empty box, and told.
 */
export function latexText(text: string): LatexText {
  const missing: string[] = []
  let source = ''
  for (const run of runsOf(text.normalize('NFD'))) {
    if (run.kind === 'power') source += `\\ensuremath{^{${run.text}}}`
    else if (run.kind === 'index') source += `\\ensuremath{_{${run.text}}}`
    else if (run.kind === 'primes') source += `\\ensuremath{${"'".repeat(run.text.length)}}`
    else source += sign(run.text, missing)
  }
  return { source, missing }
}

/** The source alone, for texts whose missing characters are told elsewhere. */
export const latexWords = (text: string) => latexText(text).source

interface Run {
  kind: 'sign' | 'power' | 'index' | 'primes'
  text: string
}

/** Characters with their marks, and raised, lowered and primed stretches as wholes. */
function runsOf(text: string): Run[] {
  const pattern = /[⁰¹²³⁴-⁹⁺⁻⁽⁾ⁿᵏ]+|[₀-₉₊₋₍₎ₙₖ]+|′+|″|‴|\P{M}\p{M}*|\p{M}+/gsu
  return (text.match(pattern) ?? []).map((part): Run => {
    const first = [...part][0]!
    if (raised.includes(first)) {
      return { kind: 'power', text: [...part].map((c) => plainOf(c, raised)).join('') }
    }
    if (lowered.includes(first)) {
      return { kind: 'index', text: [...part].map((c) => plainOf(c, lowered)).join('') }
    }
    if (/[′″‴]/.test(first)) {
      return { kind: 'primes', text: part.replace('″', '′′').replace('‴', '′′′') }
    }
    return { kind: 'sign', text: part }
  })
}

function sign(part: string, missing: string[]): string {
  const [letter, ...marks] = [...part]
  const whole = part.normalize('NFC')
  const known = textSigns[whole] ?? (mathSigns[whole] && `\\ensuremath{${mathSigns[whole].trim()}}`)
  if (known) return known
  if (/^\s$/.test(part)) return ' '
  // Controls, and marks that only steer how text runs, are nothing to be seen.
  if (/^[\p{Cc}\p{Cf}]+$/u.test(part)) return ''
  if (/^[ -~]$/.test(part)) return part
  const [mark, ...more] = marks
  if (mark && more.length === 0 && accents[mark] && /^[A-Za-z]$/.test(letter!)) {
    const under = /[ij]/.test(letter!) && mark !== '\u0323' ? `\\${letter!}` : letter!
    return `${accents[mark]}{${under}}`
  }
  missing.push(whole)
  return box
}

/** A name of a curve or a place as mathematics: q′ is q'. */
export function latexName(text: string): LatexText {
  const plain = text.replace(/[₀-₉]/g, (c) => plainOf(c, lowered))
  const found = /^([A-Za-z])(?:_?([A-Za-z0-9]+))?([′″‴']*)$/u.exec(plain)
  if (!found) {
    // A place that is an expression, such as a + h or −2.
    const isPlain = /^[A-Za-z0-9+−\-.*/() ]+$/.test(text) && !/[A-Za-z]{2}/.test(text)
    const source = `\\ensuremath{${text.replaceAll('−', '-').replaceAll('*', '\\cdot ')}}`
    return isPlain ? { source, missing: [] } : latexText(text)
  }
  const [, letter, index, primes] = found
  const marks = primes!.replaceAll('″', '′′').replaceAll('‴', '′′′').replaceAll('′', "'")
  const below = index === undefined ? '' : `_{${/^\d/.test(index) ? index : `\\mathrm{${index}}`}}`
  return { source: `\\ensuremath{${letter!}${below}${marks}}`, missing: [] }
}

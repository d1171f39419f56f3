import { type LatexCommand, latexCommandAt } from '../latexInput'
import { subscript } from './letters'
import type { TextReader } from './textReader'

/** ^\circ is a degree sign. */
export function latexDegree(r: TextReader): boolean {
  const from = r.at
  if (r.text[from] !== '^') return false
  const found = r.match(/^\^\s*(?:\{\s*\\circ\s*\}|\\circ)/, 24)
  if (!found) return false
  r.at += found[0].length
  r.push(from, { kind: 'degree' })
  return true
}

/** In a cases block the condition stands behind &, with or without a word or a comma. */
export function caseColumn(r: TextReader): boolean {
  if (r.text[r.at] !== '&' || r.casesDepth === 0) return false
  r.at += 1
  if (r.last?.kind === ',') r.tokens.pop()
  r.push(r.at - 1, { kind: 'word', word: 'if' })
  return true
}

/** \begin{cases} and \end{cases}, and the line breaks between their rows. */
function cases(r: TextReader, found: LatexCommand): boolean {
  const from = r.at
  const { command } = found
  if (command === '\\' && r.casesDepth > 0) {
    r.at = found.to
    if (r.last?.kind === ',') r.tokens.pop()
    r.push(from, { kind: ';' })
    return true
  }
  if (command !== 'begin' && command !== 'end') return false
  const named = /^\{(?:d?cases|rcases)\*?\}/.exec(r.text.slice(found.to))
  if (!named) return false
  r.at = found.to + named[0].length
  r.casesDepth += command === 'begin' ? 1 : -1
  // The last row may end with a line break.
  if (command === 'end' && r.last?.kind === ';') r.tokens.pop()
  r.push(from, { kind: command === 'begin' ? '(' : ')' })
  return true
}

/** \left| and its like: which of two bars opens is said. */
function bars(r: TextReader): boolean {
  const from = r.at
  const bar = r.match(/^\\(left|right|bigl|bigr|Bigl|Bigr)\s*(?:\||\\vert)/, 20)
  if (!bar) return false
  r.at += bar[0].length
  r.readAs(/l$|left/.test(bar[1]!) ? 'abs(' : ')', from, r.at)
  return true
}

/** \\frac{d}{dx} */
function quotientOfD(r: TextReader): boolean {
  const from = r.at
  const found = r.match(
    /^\\[dt]?frac\s*\{\s*(?:d|\\mathrm\s*\{?d\}?)\s*\}\s*\{\s*(?:d|\\mathrm\s*\{?d\}?)\s*([A-Za-z])\s*\}/,
    60,
  )
  if (!found || found[1] !== r.context.variable || r.own.has('d')) return false
  r.at += found[0].length
  r.push(from, { kind: 'derivative', order: 1 })
  return true
}

/** A command that stands for a text, with its subscript. */
function spelledOut(r: TextReader, text: string, from: number): void {
  const word = text.trim()
  if (word === 'and' || word === 'or') {
    r.pushWord(word, from, r.at)
    return
  }
  const below = /^(log|[α-ωΔΩ])$/.test(text) ? subscript(r.text, r.at) : null
  if (below) r.at = below.to
  r.readAs(below ? `${text}_{${below.text}}` : text, from, r.at)
}

/** Takes one LaTeX command, with what belongs to it. */
export function latex(r: TextReader): boolean {
  const from = r.at
  if (r.text[from] !== '\\') return false
  if (quotientOfD(r)) return true
  const found = latexCommandAt(r.text, from)
  if ((found && cases(r, found)) || bars(r)) return true
  const meaning = found?.meaning
  r.at = found?.to ?? from + 1
  if (!meaning) {
    r.problem(from, r.at, `${r.text.slice(from, r.at)} is not understood here`, {
      fix: 'write it as it is said, such as sin x or x^2',
    })
  } else if ('text' in meaning) spelledOut(r, meaning.text, from)
  else if (meaning.kind === 'fraction' || meaning.kind === 'latexRoot') {
    r.push(from, { kind: meaning.kind })
  } else if (meaning.kind === 'upright') {
    const braces = r.match(/^\s*\{([^{}]{0,200})\}/)
    if (!braces) return true
    r.readPart(braces[1]!, r.at + braces[0].indexOf('{') + 1)
    r.at += braces[0].length
  }
  return true
}

import { createStudy } from '../study/create'
import type { Created } from '../study/created'
import { parseDefinition } from '../language/definition'
import type { Study } from '../study/schema'
import { joining, tokensOf } from './joining'
import { firstUnderstood, sentencesIn } from './several'
import { isPlainly, understand } from './understand'

/** A study that was begun with a formula and what was asked about it. */
export interface Begun {
  created: Created
  /** The sentences that were added behind the first line. */
  added: readonly string[]
  /** What was not understood, as it was typed. */
  left: readonly string[]
}

/**
 * Begins a study with what the start field takes: a formula with or without its span; a formula with
 * requests behind it; the sentence of an exercise with a formula in it. What is asked is added as far
 * as it is understood, and the rest comes back.
 */
export function begin(typed: string, withValues: readonly string[] = []): Begun {
  const created = createStudy(typed, withValues)
  if (created.ok) return { created, added: [], left: [] }
  const found = formulaIn(typed.replace(/[^\S\n]+/g, ' '), withValues)
  if (!found) return { created, added: [], left: [] }
  const { study } = found.created
  const name = parseDefinition(found.formula)?.name ?? 'f'
  const asked = isAsked(found.before) ? `${found.before} ${name}` : ''
  const requests = sentencesIn(`${asked}${found.behind}`.replace(partLabels, '$1'))
  let now: Study = study
  const added: string[] = []
  const left: string[] = []
  for (const sentence of requests) {
    let rest = sentence
    while (rest !== '') {
      const next = firstUnderstood(rest, (request) => isPlainly(understand(request, now)))
      if (!next) {
        if (isAsked(rest)) left.push(rest)
        break
      }
      const [offer] = understand(next.request, now).offers
      rest = next.rest
      // Two questions may have their answers in one line.
      if (added.includes(offer!.sentence)) continue
      now = offer!.edit(now)
      added.push(offer!.sentence)
    }
  }
  return { created: { ...found.created, study: now }, added, left }
}

/** "(a)" and "b)" before the parts of an exercise. */
const partLabels = /(^|[.;?!]\s+|\n)\s*\(?[a-h1-9]\)\s*/gu

/** Whether any word asks for something, as "find the tangent to" does and "let" does not. */
const isAsked = (words: string) =>
  tokensOf(words).some(({ plain }) => !joining.has(plain) && !introducing.has(plain))
const introducing = new Set(['suppose', 'assume', 'let', 'given', 'consider', 'function', 'be'])

/** More words than this are no exercise. */
const mostWords = 80
const mostCharacters = 1000

interface Found {
  before: string
  formula: string
  behind: string
  created: Extract<Created, { ok: true }>
}

/**
 * The formula in a text: behind a name and "=", else at the beginning, else behind "of" or "to". It
 * is as long as it can be read.
 */
function formulaIn(text: string, withValues: readonly string[]): Found | null {
  if (text.length > mostCharacters || tokensOf(text).length > mostWords) return null
  const defined =
    /(?<!\p{L})(?:let\s+)?(?:\p{L}[₀-₉]?\s*['’′]{0,2}\s*\(\s*\p{L}\s*\)|y)\s*=/iu.exec(text)
  const behindWords = [
    ...text.matchAll(
      /\b(?:of|to|under|for|function|curve|graph|differentiate|integrate)\s+(?=\S)|\\?\blim\s*_?\s*(?:\{[^{}]*\}|\S+\s*(?:→|->)\s*\S+)\s*|(?:∫|\\int)\s*_?\{?[^\s{}^]+\}?\s*\^\s*\{?[^\s{}]+\}?\s*/giu,
    ),
  ]
  const starts = [
    ...(defined ? [defined.index] : []),
    0,
    ...behindWords.map(({ index, 0: word }) => index + word.length),
  ]
  for (const start of starts) {
    const found = formulaAt(text, start, withValues)
    if (found) return found
  }
  return null
}

function formulaAt(text: string, start: number, withValues: readonly string[]): Found | null {
  const rest = text.slice(start)
  const ends = [...rest.matchAll(/\s*(?:[,;.]\s|[.?!]?$|\s(?=\p{L}{2}))/gu)]
    .map(({ index }) => index)
    .filter((end) => end > 0)
    .reverse()
  for (const end of ends) {
    const formula = rest
      .slice(0, end)
      .replace(/^let\s+/i, '')
      .replace(/^y\s*=/i, '')
      .replace(/[.,;]+$/, '')
      .trim()
    // A word or a letter alone is what a sentence is about.
    if (!/[\d+\-−*/^·√²³()]/u.test(formula)) continue
    const created = createStudy(formula, withValues)
    if (created.ok && usesItsVariable(created.study)) {
      return { before: text.slice(0, start), formula, behind: rest.slice(end), created }
    }
  }
  return null
}

/** A number alone is no curve that someone asks about. */
const usesItsVariable = ({ title, variable }: Study) =>
  new RegExp(`(?<!\\p{L})${variable.letter}(?!\\p{L})`, 'u').test(title.replace(/^.*?=/, ''))

/**
 * Conditions under which a line is shown: `1 ≤ a ≤ 4 and part C`, `q falls at a`. Not binds closest,
 * then and, then or. Numbers and places are formulas and are read by the reader of formulas; here the
 * words between them are told apart.
 */

/** A piece of a condition as it was typed, with where it stands. */
export interface Piece {
  text: string
  from: number
}

export type CompareSign = '<' | '≤' | '>' | '≥' | '=' | '≠'

/** What a curve does at a place: the sign of one of its derivatives beside it. */
export type Shape = 'falls' | 'rises' | 'is concave up' | 'is concave down'
export type NearFeature = 'high point' | 'low point' | 'turning point' | 'inflection' | 'zero'

export type Condition =
  | { kind: 'and' | 'or'; of: readonly Condition[] }
  | { kind: 'not'; of: Condition }
  /** A part, by its id once it is known; the letter is what was typed. */
  | { kind: 'part'; letter: string; id: string | null; at: Piece }
  | { kind: 'compare'; sides: readonly Piece[]; signs: readonly CompareSign[] }
  | { kind: 'shape'; curve: Piece; primes: string; shape: Shape; place: Piece }
  | {
      kind: 'near'
      curve: Piece
      primes: string
      feature: NearFeature
      within: Piece | null
      place: Piece
    }

export interface ConditionProblem {
  message: string
  fix?: string
  from: number
  to: number
}
export type ReadCondition =
  { ok: true; condition: Condition } | { ok: false; problems: readonly ConditionProblem[] }

/** Conditions are short; what is nested deeper than this is none. */
const deepest = 50

const example = 'compare numbers, as in 1 ≤ a ≤ 4, or say q falls at a'

class Unreadable extends Error {
  constructor(readonly problem: ConditionProblem) {
    super(problem.message)
  }
}

function fail(piece: Piece, message: string, fix?: string): never {
  const from = piece.from
  const to = Math.max(from + 1, from + piece.text.length)
  throw new Unreadable(fix === undefined ? { message, from, to } : { message, fix, from, to })
}

/** Reads a condition; offsets are 0-based into the text. Never throws. */
export function readCondition(text: string): ReadCondition {
  try {
    return { ok: true, condition: anyOf(trimmed({ text, from: 0 }), 0) }
  } catch (error) {
    if (error instanceof Unreadable) return { ok: false, problems: [error.problem] }
    throw error
  }
}

function trimmed({ text, from }: Piece): Piece {
  const lead = text.length - text.trimStart().length
  return { text: text.trim(), from: from + lead }
}

/** The pieces of a text around each match that lies in no parentheses. */
function splitAt({ text, from }: Piece, between: RegExp): { pieces: Piece[]; found: string[] } {
  const pieces: Piece[] = []
  const found: string[] = []
  let [level, start] = [0, 0]
  for (let i = 0; i < text.length; i++) {
    const c = text[i]!
    if ('([{'.includes(c)) level += 1
    if (')]}'.includes(c)) level -= 1
    if (level !== 0) continue
    between.lastIndex = i
    const match = between.exec(text)
    if (!match) continue
    pieces.push(trimmed({ text: text.slice(start, i), from: from + start }))
    found.push(match[0])
    start = i + match[0].length
    i = start - 1
  }
  pieces.push(trimmed({ text: text.slice(start), from: from + start }))
  return { pieces, found }
}

const word = (words: string) =>
  new RegExp(`(?<![\\p{L}\\p{N}])(?:${words})(?![\\p{L}\\p{N}])`, 'uy')
const [or, and] = [word('or'), word('and')]
const comparison = /<=|>=|!=|<>|==|[<>≤≥⩽⩾=≠]/y
const signs: Readonly<Record<string, CompareSign>> = {
  ...{ '<': '<', '>': '>', '=': '=', '≠': '≠', '≤': '≤', '≥': '≥' },
  ...{ '<=': '≤', '>=': '≥', '!=': '≠', '<>': '≠', '==': '=', '⩽': '≤', '⩾': '≥' },
}

function anyOf(piece: Piece, depth: number): Condition {
  const { pieces } = splitAt(piece, or)
  const [first, ...more] = pieces.map((one) => allOf(one, depth))
  return more.length === 0 ? first! : { kind: 'or', of: [first!, ...more] }
}

function allOf(piece: Piece, depth: number): Condition {
  const { pieces } = splitAt(piece, and)
  const [first, ...more] = pieces.map((one) => single(one, depth))
  return more.length === 0 ? first! : { kind: 'and', of: [first!, ...more] }
}

function single(piece: Piece, depth: number): Condition {
  const { text, from } = piece
  if (depth > deepest) fail(piece, 'this condition is nested too deeply')
  if (text === '') fail(piece, 'a condition is missing here', example)
  const not = /^not(?![\p{L}\p{N}])\s*/u.exec(text)
  if (not) {
    const rest = { text: text.slice(not[0].length), from: from + not[0].length }
    return { kind: 'not', of: single(trimmed(rest), depth + 1) }
  }
  const inside = withinParentheses(piece)
  if (inside && !isExpression(inside)) return anyOf(inside, depth + 1)
  return partOf(piece) ?? shapeOf(piece) ?? nearOf(piece) ?? compared(piece)
}

/** What stands between parentheses that hold the whole piece, or null. */
function withinParentheses({ text, from }: Piece): Piece | null {
  if (!text.startsWith('(')) return null
  let level = 0
  for (let i = 0; i < text.length; i++) {
    if (text[i] === '(') level += 1
    if (text[i] === ')') level -= 1
    if (level === 0) {
      const whole = i === text.length - 1
      return whole ? trimmed({ text: text.slice(1, -1), from: from + 1 }) : null
    }
  }
  return null
}

/** A piece in which nothing is claimed: parentheses around it belong to a number. */
const isExpression = (piece: Piece) =>
  !/[<>≤≥⩽⩾=≠]/.test(piece.text) &&
  !/(?<![\p{L}\p{N}])(?:and|or|not|part|at|has)(?![\p{L}\p{N}])/u.test(piece.text)

const partPattern = /^part\s+([A-Za-z]{1,2})(?:\[([^\]\s]{1,40})\])?$/i

function partOf(piece: Piece): Condition | null {
  const [, letter, id = null] = partPattern.exec(piece.text) ?? []
  if (letter === undefined) return null
  return { kind: 'part', letter: letter.toUpperCase(), id, at: piece }
}

const curvePattern = String.raw`([A-Za-zα-ωΑ-Ω](?:[₀-₉]{1,3}|_[A-Za-z])?)(['′]{0,3})`

const shapes: readonly (readonly [words: RegExp, shape: Shape])[] = [
  [/^(?:falls|falling|decreases|decreasing)$/, 'falls'],
  [/^(?:rises|rising|increases|increasing)$/, 'rises'],
  [/^(?:concave up|concave upwards?)$/, 'is concave up'],
  [/^(?:concave down|concave downwards?)$/, 'is concave down'],
]
const shapePattern = new RegExp(
  `^${curvePattern}\\s+(?:is\\s+)?([a-z]+(?:\\s+(?:up|down)(?:wards?)?)?)\\s+at\\s+(.+)$`,
  'u',
)

function shapeOf(piece: Piece): Condition | null {
  const found = shapePattern.exec(piece.text)
  const shape = found && shapes.find(([words]) => words.test(found[3]!))?.[1]
  if (!found || !shape) return null
  return {
    ...{ kind: 'shape', shape, primes: primesOf(found[2]!) },
    curve: { text: found[1]!, from: piece.from },
    place: placeOf(piece, found[4]!),
  }
}

/** The variable before a place says no more than the place: t = a is a. */
function placeOf(piece: Piece, text: string): Piece {
  const from = piece.from + piece.text.length - text.length
  const named = /^[A-Za-zα-ω][₀-₉]*\s*=\s*(?=\S)/u.exec(text)
  const skipped = named ? named[0].length : 0
  return { text: text.slice(skipped), from: from + skipped }
}

const primesOf = (text: string) => text.replace(/'/g, '′')

const nearFeatures: readonly (readonly [words: RegExp, feature: NearFeature])[] = [
  [/^(?:high points?|(?:local )?maxim(?:um|a)|peaks?)$/, 'high point'],
  [/^(?:low points?|(?:local )?minim(?:um|a))$/, 'low point'],
  [/^(?:turning points?|(?:local )?extrem(?:um|a|e point))$/, 'turning point'],
  [/^(?:inflections?|inflection points?|points? of inflection)$/, 'inflection'],
  [/^(?:zeros?|roots?)$/, 'zero'],
]
const nearPattern = new RegExp(
  `^${curvePattern}\\s+has\\s+an?\\s+([a-z]+(?:\\s[a-z]+){0,2}?)\\s+(?:(?:within|at most)\\s+(.+?)\\s+(?:of|from)|at)\\s+(.+)$`,
  'u',
)

function nearOf(piece: Piece): Condition | null {
  const found = nearPattern.exec(piece.text)
  const feature = found && nearFeatures.find(([words]) => words.test(found[3]!))?.[1]
  if (!found || !feature) return null
  const within = found[4]
  const at =
    within === undefined ? -1 : piece.text.indexOf(within, piece.text.search(/within|at most/))
  return {
    ...{ kind: 'near', feature, primes: primesOf(found[2]!) },
    curve: { text: found[1]!, from: piece.from },
    within: within === undefined ? null : { text: within, from: piece.from + at },
    place: placeOf(piece, found[5]!),
  }
}

function compared(piece: Piece): Condition {
  const { pieces, found } = splitAt(piece, comparison)
  if (found.length === 0) fail(piece, `“${shortened(piece.text)}” claims nothing`, example)
  for (const side of pieces) {
    if (side.text === '') fail(piece, 'one side of this comparison is missing', example)
  }
  const words = /(?<![\p{L}\p{N}])(?:at|has|is)(?![\p{L}\p{N}])/u
  const odd = pieces.find((side) => words.test(side.text))
  if (odd) fail(odd, `“${shortened(odd.text)}” was not understood`, example)
  return { kind: 'compare', sides: pieces, signs: found.map((sign) => signs[sign]!) }
}

const shortened = (text: string) => (text.length > 40 ? `${text.slice(0, 39)}…` : text)

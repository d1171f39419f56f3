import type { Tree } from '../../formula/tree'
import type { Hint, Problem } from '../problems'
import { type IntegralText, integralsIn } from '../integrals'
import { mostParts, partMark, type Token, tokenize } from '../tokens'
import { readCondition } from './conditions'
import { readBase, readFactor } from './factors'
import { readGroup } from './groups'
import { arcs, otherReadings, powersOfTen } from './hints'
import { readSum } from './sums'
import { type Grammar, Stop, TokenReader } from './tokenReader'

export interface ParseOptions {
  /** The letter of the variable; x where it is left out. */
  variable?: string
  /** Names that have a value: the sliders. */
  names?: readonly string[]
  /** Other curves by name. */
  curves?: Readonly<Record<string, Tree>>
  /** How many integrals stand around this one. */
  depth?: number
  /** What an integral comes to, or why it has no formula; without it there are none in formulas. */
  integral?: (written: WrittenIntegral) => Tree | string
  /** What d/dx comes to; without it there are no derivatives in formulas. */
  derivative?: (tree: Tree, variable: string) => Tree
}

/** An integral that has been read: its ends, what is integrated and by which letter. */
export interface WrittenIntegral {
  body: Tree
  letter: string
  from: Tree
  to: Tree
}

export type Parsed = { ok: true; tree: Tree; hints: Hint[] } | { ok: false; problems: Problem[] }

const grammar: Grammar = {
  group: readGroup,
  sum: readSum,
  factor: readFactor,
  base: readBase,
  condition: readCondition,
}

/**
 * Reads a formula as people write it by hand: implied multiplication, sin 2x, sin^2 x, |x|,
 * powers to the right, pieces with conditions. Never throws, whatever the text; problems carry
 * their position and, where there is one, a fix. Unary minus binds less than a power, implied
 * multiplication as tightly as division (1/2x is (1/2)x), and the argument of a function without
 * parentheses runs to the next +, −, ·, / or function name.
 */
export function parse(text: string, options: ParseOptions = {}): Parsed {
  const plain = parseAsWritten(text, options)
  if (plain.ok || !/\d,\d/.test(text)) return plain
  const comma = decimalCommas(text, options)
  if (!comma) return plain
  const pointed = parseAsWritten(comma.text, options)
  return pointed.ok ? { ...pointed, hints: [...pointed.hints, comma.hint] } : plain
}

const namesOf = (options: ParseOptions) => ({
  variable: options.variable ?? 'x',
  names: options.names ?? [],
  curves: Object.keys(options.curves ?? {}),
})

/**
 * A text whose decimal commas are points: where figures stand on both sides, outside the values of a
 * call and of a point (1, 2). Null where there is none. It is told once.
 */
function decimalCommas(text: string, options: ParseOptions): { text: string; hint: Hint } | null {
  const { tokens } = tokenize(text, namesOf(options))
  const opened: boolean[] = []
  const commas: number[] = []
  tokens.forEach((token, i) => {
    const [before, next] = [tokens[i - 1], tokens[i + 1]]
    if (token.kind === '(') {
      const isCall = before?.kind === 'function' || before?.kind === 'curve'
      opened.push(isCall || isPoint(tokens, i))
    } else if (token.kind === ')') opened.pop()
    else if (token.kind === ',' && !opened.at(-1)) {
      const isDecimal =
        before?.kind === 'number' &&
        next?.kind === 'number' &&
        before.to === token.from &&
        next.from === token.to &&
        /^\d+$/.test(before.text) &&
        /^\d+$/.test(next.text) &&
        // 1,000 could as well be a thousand.
        next.text.length !== 3
      if (isDecimal) commas.push(token.from)
    }
  })
  const [first] = commas
  if (first === undefined) return null
  const characters = [...text]
  for (const at of commas) characters[at] = '.'
  const pointed = characters.join('')
  const written = /\d+,\d+/.exec(text.slice(Math.max(0, text.slice(0, first).search(/\d+$/))))![0]
  const replacement = written.replace(',', '.')
  const from = text.indexOf(written)
  return {
    text: pointed,
    hint: {
      message: `${written} is read as ${replacement}`,
      from,
      to: from + written.length,
      replacement,
    },
  }
}

/** (1,2): two numbers alone between parentheses. */
const isPoint = (tokens: readonly Token[], open: number) =>
  tokens[open + 1]?.kind === 'number' &&
  tokens[open + 2]?.kind === ',' &&
  tokens[open + 3]?.kind === 'number' &&
  tokens[open + 4]?.kind === ')'

type Cut = { ok: true; text: string; parts: Tree[] } | { ok: false; problems: Problem[] }

const mayHoldIntegral = /∫|\\int|\bint\s*_|\bintegral\b/i

/** A text with a mark in place of each integral, which is read by itself; places stay the same. */
function withoutIntegrals(text: string, options: ParseOptions): Cut {
  if (!options.integral || !mayHoldIntegral.test(text)) return { ok: true, text, parts: [] }
  const found = integralsIn(text)
  const parts: Tree[] = []
  let rest = text
  for (const one of found.slice(0, mostParts)) {
    if ('unread' in one) {
      const message = 'an integral has two ends, and d with its letter behind'
      const fix = 'write ∫_0^x t^2 dt'
      return { ok: false, problems: [{ message, from: one.at, to: one.at + 1, fix }] }
    }
    const read = readIntegral(one, options)
    if (!read.ok) return read
    rest =
      rest.slice(0, one.at) +
      partMark(parts.length).padEnd(one.length) +
      rest.slice(one.at + one.length)
    parts.push(read.tree)
  }
  return { ok: true, text: rest, parts }
}

/** Integrals inside integrals are read so deep. */
const deepestIntegral = 8

function readIntegral(
  { at, length, bodyAt, letter, ...texts }: IntegralText,
  options: ParseOptions,
): { ok: true; tree: Tree } | { ok: false; problems: Problem[] } {
  const whole = { from: at, to: at + length }
  const depth = (options.depth ?? 0) + 1
  if (depth > deepestIntegral) {
    return {
      ok: false,
      problems: [{ message: 'too many integrals stand in one another', ...whole }],
    }
  }
  const { variable = 'x', names = [] } = options
  const inside = { ...options, depth, variable: letter, names: [...names, variable] }
  const body = parse(texts.body, inside)
  if (!body.ok) {
    const moved = body.problems.map((p) => ({ ...p, from: p.from + bodyAt, to: p.to + bodyAt }))
    return { ok: false, problems: moved }
  }
  const [from, to] = [texts.from, texts.to].map((end) => parse(end, { ...options, depth }))
  for (const end of [from!, to!]) {
    if (!end.ok) return { ok: false, problems: end.problems.map((p) => ({ ...p, ...whole })) }
  }
  if (!from?.ok || !to?.ok) return { ok: false, problems: [] }
  const tree = options.integral!({ body: body.tree, letter, from: from.tree, to: to.tree })
  return typeof tree === 'string'
    ? { ok: false, problems: [{ message: tree, ...whole }] }
    : { ok: true, tree }
}

function parseAsWritten(text: string, options: ParseOptions): Parsed {
  const variable = options.variable ?? 'x'
  const cut = withoutIntegrals(text, options)
  if (!cut.ok) return cut
  const { tokens, problems } = tokenize(cut.text, namesOf(options))
  const reader = new TokenReader(
    tokens,
    text,
    variable,
    grammar,
    options.derivative ?? null,
    cut.parts,
  )
  try {
    const tree = readWhole(reader)
    if (problems.length > 0) return { ok: false, problems }
    return {
      ok: true,
      tree,
      hints: [
        ...reader.hints,
        ...powersOfTen(tokens, text),
        ...arcs(tokens),
        ...otherReadings(tokens, text),
      ],
    }
  } catch (error) {
    if (!(error instanceof Stop)) throw error
    return { ok: false, problems: [...problems, error.problem].sort((a, b) => a.from - b.from) }
  }
}

/** The whole text is one formula: what is left over is told. */
function readWhole(r: TokenReader): Tree {
  const tree = r.grammar.group(r)
  const rest = r.peek()
  return rest.kind === 'end' ? tree : leftOver(r, rest)
}

function leftOver(r: TokenReader, rest: Token): never {
  switch (rest.kind) {
    case ')':
      return r.stop('there is no opening parenthesis for this one', rest, 'remove it, or add (')
    case ',':
      return r.stop('a comma stands here', rest, 'use a point for decimals')
    case 'relation':
      return r.stop(
        'a formula has no = or < in it',
        rest,
        'write only what stands on the right of =',
      )
    case '|':
      return r.stop('this bar is not closed', rest, 'add a second |')
    case ':':
      return r.stop('a colon divides nothing here', rest, 'write / for a quotient')
    case '?':
      return r.stop('a question mark has no meaning in a formula', rest, 'leave it out')
    case ';':
      return r.stop('pieces need conditions', rest, 'x^2 if x < 1; 1 otherwise')
    case 'primes':
      return r.stop('only a curve can carry a prime', rest)
    case 'degree':
      return r.stop('a degree sign follows a number', rest)
    default:
      return r.stop(`“${r.spelled(rest)}” cannot stand here`, rest)
  }
}

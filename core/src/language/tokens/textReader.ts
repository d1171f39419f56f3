import type { Problem } from '../problems'
import { type Known, vocabulary } from './vocabulary'
import type { Names, Token, Word } from './token'

/** What is left of a token once its place is known. */
type Without<T> = T extends unknown ? Omit<T, 'from' | 'to'> : never
export type Meaning = Without<Token>

/** A text while it is cut into tokens: where the reading stands and what was found so far. */
export class TextReader {
  at = 0
  readonly tokens: Token[] = []
  readonly problems: Problem[] = []
  readonly own: ReadonlySet<string>
  readonly known: readonly Known[]
  /** How many cases blocks of LaTeX are open: & and \\\\ have a meaning in one. */
  casesDepth = 0

  constructor(
    readonly text: string,
    readonly context: Names,
    private readonly tokenize: (text: string, context: Names) => Tokens,
  ) {
    this.own = new Set([context.variable, ...context.names, ...context.curves])
    this.known = vocabulary(context)
  }

  get last(): Token | undefined {
    return this.tokens.at(-1)
  }

  /** What stands at the place of reading, if it reads as that; the expression starts with ^. */
  match(pattern: RegExp, length = this.text.length): RegExpExecArray | null {
    return pattern.exec(this.text.slice(this.at, this.at + length))
  }

  /** Adds a token from a place to where the reading stands now. */
  push(from: number, meaning: Meaning, to = this.at): void {
    this.tokens.push({ ...meaning, from, to })
  }

  problem(from: number, to: number, message: string, more: Partial<Problem> = {}): void {
    this.problems.push({ message, from, to, ...more })
  }

  /** Puts a word where one is expected: twice the same, as in & \text{if}, counts once. */
  pushWord(run: string, from: number, to: number): void {
    const isIf = run === 'for' || run === 'when' || run === 'where'
    const word = run === 'else' ? 'otherwise' : isIf ? 'if' : run
    const { last } = this
    if (last?.kind === 'word' && last.word === 'if' && (word === 'if' || word === 'otherwise')) {
      this.tokens.pop()
    }
    this.tokens.push({ kind: 'word', word: word as Word, from, to })
  }

  /** Reads a stretch of the text as if something else stood there. */
  readAs(instead: string, from: number, to: number): void {
    const part = this.tokenize(instead, this.context)
    for (const token of part.tokens) {
      if (token.kind !== 'end') this.tokens.push({ ...token, from, to })
    }
    for (const problem of part.problems) this.problems.push({ ...problem, from, to })
  }

  /** Reads a part of the text by itself, such as what braces hold. */
  readPart(part: string, start: number): void {
    const { tokens, problems } = this.tokenize(part, this.context)
    for (const token of tokens) {
      const moved = { ...token, from: token.from + start, to: token.to + start }
      if (moved.kind === 'word') this.pushWord(moved.word, moved.from, moved.to)
      else if (moved.kind !== 'end') this.tokens.push(moved)
    }
    for (const p of problems) this.problems.push({ ...p, from: p.from + start, to: p.to + start })
  }
}

export interface Tokens {
  tokens: Token[]
  problems: Problem[]
}

import type { Hint, Problem } from '../problems'
import type { Token } from '../tokens'
import type { Condition, Tree } from '../../formula/tree'

const depthLimit = 500
const nodeLimit = 20_000

/** Ends the reading at the first thing that cannot be understood; never leaves this folder. */
export class Stop extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message)
  }
}

/** The readers that call each other around a circle: each stands in a file of its own. */
export interface Grammar {
  /** A whole text or what stands between parentheses: one formula, or pieces. */
  group: (r: TokenReader) => Tree
  sum: (r: TokenReader) => Tree
  factor: (r: TokenReader) => Tree
  base: (r: TokenReader) => Tree
  condition: (r: TokenReader) => Condition
}

export type TokenOf<Kind extends Token['kind']> = Token & { kind: Kind }

/** Tokens while they are read: where the reading stands, and how deep and long it has become. */
export class TokenReader {
  private at = 0
  private depth = 0
  private nodes = 0
  /** How many bars are open: the next one then closes. */
  openBars = 0
  readonly hints: Hint[] = []

  constructor(
    private readonly tokens: readonly Token[],
    readonly text: string,
    readonly variable: string,
    readonly grammar: Grammar,
    /** What the derivative of a part comes to; null where there is none to be had. */
    private readonly derivative: ((tree: Tree, variable: string) => Tree) | null,
    /** Parts that have been read by themselves. */
    readonly parts: readonly Tree[] = [],
  ) {}

  peek(): Token {
    return this.tokens[this.at]!
  }

  take(): Token {
    return this.tokens[this.at++]!
  }

  /** The token just read. */
  before(): Token | undefined {
    return this.tokens[this.at - 1]
  }

  /** A token further on, without reading it; the one to be read next is 0. */
  ahead(by: number): Token | undefined {
    return this.tokens[this.at + by]
  }

  /**
   * How far ahead the parenthesis that opens so far ahead is closed, or the last token before the end
   * where it is not. What looks ahead passes over it so: a look takes no longer, however deep it is.
   */
  closing(by: number): number {
    this.closings ??= closingsOf(this.tokens)
    return this.closings[this.at + by]! - this.at
  }
  private closings: Int32Array | undefined

  /** Takes the token ahead where it is of one kind. */
  takeIf<Kind extends Token['kind']>(kind: Kind): TokenOf<Kind> | null {
    return this.peek().kind === kind ? (this.take() as TokenOf<Kind>) : null
  }

  isSign(one: string, other = one): boolean {
    const token = this.tokens[this.at]!
    return token.kind === 'sign' && (token.sign === one || token.sign === other)
  }

  /** Takes one of some signs where it stands ahead. */
  takeSign(one: string, other = one): string | null {
    return this.isSign(one, other) ? (this.take() as TokenOf<'sign'>).sign : null
  }

  isWord(word: string): boolean {
    const token = this.peek()
    return token.kind === 'word' && token.word === word
  }

  spelled(token: Token): string {
    return this.text.slice(token.from, token.to)
  }

  stop(message: string, token: Token, fix?: string): never {
    const to = Math.max(token.to, token.kind === 'end' ? token.from : token.from + 1)
    throw new Stop({ message, from: token.from, to, ...(fix ? { fix } : {}) })
  }

  /** Ends the reading where a stretch of the text could mean several things. */
  ask(first: Token, last: Token, choices: readonly string[]): never {
    const [from, to] = [first.from, last.to]
    const spelled = this.text.slice(from, to)
    const message = `${spelled} could mean ${choices.length === 2 ? 'two' : 'three'} things`
    const fix = `write ${choices.slice(0, -1).join(', ')} or ${choices.at(-1)!}`
    throw new Stop({ message, from, to, fix, choices })
  }

  /** The derivative of a part that has been read, so many times over. */
  differentiated(tree: Tree, times: number, token: Token): Tree {
    if (!this.derivative) return this.stop('there is no derivative to be taken here', token)
    let result = tree
    for (let i = 0; i < times; i++) result = this.derivative(result, this.variable)
    return this.count(result)
  }

  /** Counts one part of the formula. */
  count<T>(part: T): T {
    this.nodes += 1
    if (this.nodes > nodeLimit) {
      const most = nodeLimit.toLocaleString('en')
      this.stop('this formula is too long', this.peek(), `keep it below ${most} parts`)
    }
    return part
  }

  /** Reads one level deeper. */
  deeper<T>(read: (r: this) => T): T {
    this.depth += 1
    if (this.depth > depthLimit) this.tooDeep(`keep it below ${depthLimit} levels`)
    const result = read(this)
    this.depth -= 1
    return result
  }

  /** Division nests, so a long chain of it counts as depth. */
  countDivisions(divided: number): void {
    if (divided + this.depth > depthLimit) this.tooDeep('divide by one product instead')
  }

  private tooDeep(fix: string): never {
    return this.stop('this formula is nested too deeply', this.peek(), fix)
  }

  /** Whether something begins here that can be multiplied with what stands before. */
  startsFactor(): boolean {
    const { kind } = this.peek()
    return beginsFactor.has(kind) || (kind === '|' && this.openBars === 0)
  }

  /** Something is missing where a token stands. */
  missingOperand(token: Token): never {
    const before = this.before()
    if (token.kind === 'end' && !before) return this.stop('there is no formula yet', token)
    if (token.kind === ')' && before?.kind !== '(') {
      return this.stop('something is missing before this parenthesis', token)
    }
    if (token.kind === ')') return this.stop('there is nothing between the parentheses', token)
    if (token.kind === ',')
      return this.stop('a comma stands here', token, 'use a point for decimals')
    if (token.kind === 'end') {
      const behind = before ? ` after ${this.spelled(before)}` : ''
      return this.stop(`something is missing${behind}`, before ?? token)
    }
    return this.stop(`“${this.spelled(token)}” cannot stand here`, token)
  }

  /** Reads what stands between parentheses; bars opened outside do not close inside. */
  between<T>(read: (open: Token) => T): T {
    const open = this.take()
    const bars = this.openBars
    this.openBars = 0
    const inside = read(open)
    if (this.peek().kind !== ')') {
      if (this.peek().kind === 'end') this.stop('this parenthesis is not closed', open, 'add )')
      this.missingOperand(this.peek())
    }
    this.take()
    this.openBars = bars
    return inside
  }
}

const beginsFactor: ReadonlySet<Token['kind']> = new Set<Token['kind']>([
  'number',
  'name',
  'constant',
  'function',
  'curve',
  'root',
  'fraction',
  'latexRoot',
  'derivative',
  'part',
  '(',
])

/** For each token that opens a parenthesis which one closes it, or the last but one; else 0. */
function closingsOf(tokens: readonly Token[]): Int32Array {
  const closings = new Int32Array(tokens.length)
  const open: number[] = []
  tokens.forEach(({ kind }, i) => {
    if (kind === '(') open.push(i)
    const opened = kind === ')' ? open.pop() : undefined
    if (opened !== undefined) closings[opened] = i
  })
  for (const i of open) closings[i] = Math.max(i, tokens.length - 2)
  return closings
}

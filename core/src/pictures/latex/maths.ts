import { allowedCommands, allowedEnvironments } from '../../statements/words/read'
import { mathSigns } from './signs'
import { latexText, type LatexText } from './words'

/** How many groups a command takes behind it. */
const takes: Readonly<Record<string, number>> = {
  ...{ frac: 2, dfrac: 2, tfrac: 2, binom: 2, sqrt: 1, operatorname: 1 },
  ...{ mathrm: 1, mathbf: 1, mathit: 1, mathbb: 1, mathcal: 1, boxed: 1, cancel: 1 },
  ...{ overline: 1, underline: 1, hat: 1, bar: 1, vec: 1, dot: 1, ddot: 1, tilde: 1 },
  ...{ overbrace: 1, underbrace: 1 },
}
const ofText = new Set(['text', 'textbf', 'textit'])
/** These want a delimiter behind them. */
const sized = new Set(['big', 'Big', 'bigl', 'bigr', 'Bigl', 'Bigr', 'left', 'right'])
const delimiters =
  /^(?:[()[\]|./<>]|\\[{}|]|\\(?:langle|rangle|lvert|rvert|lVert|rVert|lfloor|rfloor|lceil|rceil)(?![A-Za-z]))/

/** On nothing, as another power may stand before it. */
const degree = '{{}^{\\circ}}'
/** How many columns an environment has at the most; an array says so itself. */
const mostColumns: Readonly<Record<string, number>> = {
  ...{ cases: 2, aligned: 20, matrix: 10, pmatrix: 10, bmatrix: 10 },
}

class Unreadable extends Error {}

/**
 * Mathematics of people as source that LaTeX reads as just that: the commands that notes may hold, their
 * groups whole, every bracket closed. What is not such is set as the text that it is.
 */
export function latexMaths(latex: string): LatexText {
  const missing: string[] = []
  try {
    const reader = new Reader(latex, missing)
    const source = reader.row(null, 0)
    return { source: `$${source}$`, missing }
  } catch (error) {
    if (error instanceof Unreadable) return latexText(latex)
    throw error
  }
}

/** Reads mathematics group by group and writes it again. */
class Reader {
  private at = 0

  constructor(
    private readonly text: string,
    private readonly missing: string[],
  ) {}

  /** Up to what closes it: } or ], \right, \end of an environment; or the end of the text. */
  row(close: '}' | ']' | 'right' | 'end' | null, columns: number): string {
    let source = ''
    let scripts = ''
    let used = 1
    for (;;) {
      if (this.at >= this.text.length) {
        if (close !== null) throw new Unreadable()
        return source
      }
      const character = [...this.text.slice(this.at, this.at + 2)][0]!
      const ends =
        close === 'right' || close === 'end'
          ? this.text.startsWith(`\\${close}`, this.at)
          : character === close
      if (ends) {
        if (close === '}' || close === ']') this.at += 1
        return source
      }
      if (character === '^' || character === '_') {
        // Two of them on one letter are none that LaTeX reads.
        if (scripts.includes(character)) throw new Unreadable()
        scripts += character
        this.at += 1
        source += `${character}${this.argument()}`
        continue
      }
      if (character === "'" && scripts.includes('^')) throw new Unreadable()
      if (!/[\s']/.test(character)) scripts = ''
      if (character === '&') used += 1
      if (used > Math.max(1, columns)) throw new Unreadable()
      if (this.text.startsWith('\\\\', this.at)) used = 1
      source += this.piece(character, columns)
    }
  }

  private piece(character: string, columns: number): string {
    if (character === '\\') return this.command(columns)
    this.at += character.length
    switch (character) {
      case '{':
        return `{${this.row('}', 0)}}`
      case '&':
        return '&'
      case '%':
      case '#':
        return `\\${character}`
      case '~':
        return '~'
      case '}':
      case '$':
        throw new Unreadable()
      default:
        return this.sign(character)
    }
  }

  private sign(character: string): string {
    if (/^[ -~]$/.test(character)) return character
    if (/^\s$/.test(character)) return ' '
    if (character === '′') return "'"
    if (character === '°') return degree
    const known = mathSigns[character]
    if (known) return known
    const { source, missing } = latexText(character)
    this.missing.push(...missing)
    return source === '' ? '' : `\\text{${source}}`
  }

  private command(columns: number): string {
    const found = /^\\([A-Za-z]+|[\s\S])/.exec(this.text.slice(this.at))
    if (!found) throw new Unreadable()
    const [whole, name] = [found[0], found[1]!]
    this.at += whole.length
    if (!/[A-Za-z]/.test(name)) {
      if (name === '\\') {
        if (columns === 0) throw new Unreadable()
        return '\\\\{}'
      }
      if (!/[,;:! {}|%#&_$]/.test(name)) throw new Unreadable()
      return whole
    }
    if (name === 'begin') return this.environment()
    if (!allowedCommands.has(name) || name === 'end' || name === 'right') throw new Unreadable()
    if (name === 'degree') return degree
    // Where limits stand is left to LaTeX, which reads these behind certain signs alone.
    if (name === 'limits' || name === 'nolimits') return ''
    if (name === 'left') {
      const opens = this.delimiter()
      const inside = this.row('right', columns)
      this.at += '\\right'.length
      return `\\left${opens}${inside}\\right${this.delimiter()}`
    }
    if (sized.has(name)) return `${whole}${this.delimiter()}`
    if (ofText.has(name)) return `${whole}{${this.words()}}`
    const root = name === 'sqrt' && this.text[this.at] === '[' ? this.root() : ''
    let source = `${whole}${root}`
    for (let i = 0; i < (takes[name] ?? 0); i++) source += this.argument()
    return takes[name] ? source : `${source} `
  }

  private root(): string {
    this.at += 1
    return `[${this.row(']', 0)}]`
  }

  private environment(): string {
    const name = this.named()
    let head = ''
    let columns = mostColumns[name] ?? 0
    if (name === 'array') {
      const found = /^\s*\{([lcr| ]*[lcr][lcr| ]*)\}/.exec(this.text.slice(this.at))
      if (!found) throw new Unreadable()
      this.at += found[0].length
      columns = found[1]!.replace(/[| ]/g, '').length
      head = `{${found[1]!}}`
    }
    const inside = this.row('end', columns)
    this.at += '\\end'.length
    if (this.named() !== name) throw new Unreadable()
    return `\\begin{${name}}${head}${inside}\\end{${name}}`
  }

  private named(): string {
    const found = /^\s*\{([a-z]+)\}/.exec(this.text.slice(this.at))
    if (!found || !allowedEnvironments.has(found[1]!)) throw new Unreadable()
    this.at += found[0].length
    return found[1]!
  }

  private delimiter(): string {
    const space = /^\s*/.exec(this.text.slice(this.at))![0].length
    const found = delimiters.exec(this.text.slice(this.at + space))
    if (!found) throw new Unreadable()
    this.at += space + found[0].length
    return /[A-Za-z]$/.test(found[0]) ? `${found[0]} ` : found[0]
  }

  /** The group or the single sign behind a command. */
  private argument(): string {
    this.at += /^\s*/.exec(this.text.slice(this.at))![0].length
    const character = [...this.text.slice(this.at, this.at + 2)][0]
    if (character === undefined || /[\^_&}']/.test(character)) throw new Unreadable()
    return `{${this.piece(character, 0).replace(/^\{([\s\S]*)\}$/, '$1')}}`
  }

  /** The words of a group of text. */
  private words(): string {
    this.at += /^\s*/.exec(this.text.slice(this.at))![0].length
    if (this.text[this.at] !== '{') throw new Unreadable()
    let depth = 0
    const start = this.at
    for (; this.at < this.text.length; this.at++) {
      if (this.text[this.at] === '{') depth += 1
      else if (this.text[this.at] === '}' && --depth === 0) break
    }
    if (depth !== 0) throw new Unreadable()
    const { source, missing } = latexText(this.text.slice(start + 1, this.at))
    this.at += 1
    this.missing.push(...missing)
    return source
  }
}

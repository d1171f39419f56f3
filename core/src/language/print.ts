import { type FunctionName, maybeEntry } from '../functions'
import { toDecimalText, type Rational } from '../arithmetic/rational'
import {
  type Condition,
  isNegative,
  isNumber,
  isOne,
  negate,
  type NumberTree,
  type Relation,
  type Tree,
} from '../formula/tree'

/** How tightly a printed piece holds together; a part that binds less gets parentheses. */
const binding = { pieces: 0, sum: 1, product: 2, power: 3, atom: 4 } as const

interface Printed {
  text: string
  binds: number
}

/** What differs between text that can be typed again and text for reading. */
interface Manner {
  times: string
  minus: string
  prime: string
  pi: string
  relation: Record<Relation, string>
  bars: boolean
  raises: boolean
}

const typed: Manner = {
  times: ' * ',
  minus: '-',
  prime: "'",
  pi: 'pi',
  relation: { '<': '<', '<=': '<=', '>': '>', '>=': '>=', '=': '=', '!=': '!=' },
  bars: false,
  raises: false,
}
const plain: Manner = {
  times: '·',
  minus: '−',
  prime: '′',
  pi: 'π',
  relation: { '<': '<', '<=': '≤', '>': '>', '>=': '≥', '=': '=', '!=': '≠' },
  bars: true,
  raises: true,
}

/** Text that reads back as an equal function, given the same names and curves. */
export const toText = (tree: Tree): string => print(tree, typed).text

/** One line of plain characters, for names that are read aloud and for copying. */
export const toPlain = (tree: Tree): string => print(tree, plain).text

export const conditionToText = (condition: Condition): string => printCondition(condition, typed)
export const conditionToPlain = (condition: Condition): string => printCondition(condition, plain)

/** A decimal as a person writes it; very large and very small ones with E. */
export function decimalText(digits: string): string {
  const negative = digits.startsWith('-')
  const [wholePart = '', fraction = ''] = digits.replace('-', '').split('.')
  const significant = (wholePart + fraction).replace(/^0+/, '')
  const exponent = wholePart.replace(/^0+/, '').length || -/^0*/.exec(fraction)![0].length
  if (significant === '' || (exponent <= 21 && exponent > -7)) return digits
  const trimmed = significant.replace(/0+$/, '')
  const mantissa = trimmed.length > 1 ? `${trimmed[0]}.${trimmed.slice(1)}` : trimmed
  return `${negative ? '-' : ''}${mantissa}E${exponent - 1}`
}

/** The text of an exact number: a decimal where it was written as one and ends, else a fraction. */
export function rationalText(exact: Rational, asDecimal: boolean): string {
  const digits = exact.d === 1n || asDecimal ? toDecimalText(exact) : null
  return digits === null
    ? `${decimalText(exact.n.toString())}/${decimalText(exact.d.toString())}`
    : decimalText(digits)
}

function printNumber(tree: NumberTree, manner: Manner): Printed {
  const text = rationalText(tree.exact, tree.decimal).replace(/-/g, manner.minus)
  const negative = tree.exact.n < 0n
  return {
    text,
    binds: negative ? binding.sum : text.includes('/') ? binding.product : binding.atom,
  }
}

const wrap = (printed: Printed, least: number) =>
  printed.binds < least ? `(${printed.text})` : printed.text

function print(tree: Tree, manner: Manner): Printed {
  switch (tree.kind) {
    case 'number':
      return printNumber(tree, manner)
    case 'constant':
      return { text: tree.name === 'pi' ? manner.pi : 'e', binds: binding.atom }
    case 'name':
      return { text: tree.name, binds: binding.atom }
    case 'sum':
      return { text: printSum(tree.terms, manner), binds: binding.sum }
    case 'product':
      return printProduct(tree.factors, manner)
    case 'quotient': {
      const above = print(tree.above, manner)
      const below = wrap(print(tree.below, manner), binding.power)
      const negative = isNegative(tree.above)
      const top = negative
        ? manner.minus + wrap(print(negate(tree.above), manner), binding.product)
        : wrap(above, binding.product)
      return { text: `${top}/${below}`, binds: negative ? binding.sum : binding.product }
    }
    case 'power': {
      const exponent = print(tree.exponent, manner)
      const simple = exponent.binds === binding.atom || isNumber(tree.exponent)
      const fits = simple && !exponent.text.includes('/')
      if (manner.raises && /^−?\d+$/.test(exponent.text)) {
        const raised = [...exponent.text].map((c) => (c === '−' ? '⁻' : '⁰¹²³⁴⁵⁶⁷⁸⁹'[Number(c)]))
        return {
          text: wrap(print(tree.base, manner), binding.atom) + raised.join(''),
          binds: binding.power,
        }
      }
      return {
        text: `${wrap(print(tree.base, manner), binding.atom)}^${fits ? exponent.text : `(${exponent.text})`}`,
        binds: binding.power,
      }
    }
    case 'call':
      return printCall(tree.name, tree.args, manner)
    case 'curve':
      return {
        text: `${tree.name}${manner.prime.repeat(tree.primes)}(${print(tree.at, manner).text})`,
        binds: binding.atom,
      }
    case 'area': {
      const { written } = tree
      if (written) {
        const [from, to, body] = [written.from, tree.at, written.body].map(
          (t) => print(t, manner).text,
        )
        return { text: `∫_(${from})^(${to}) (${body}) d${written.letter}`, binds: binding.atom }
      }
      return { text: `${tree.name}(${print(tree.at, manner).text})`, binds: binding.atom }
    }
    case 'pieces':
      return {
        text: tree.pieces
          .map(({ body, when }) => {
            const formula = wrap(print(body, manner), binding.sum)
            return when ? `${formula} if ${printCondition(when, manner)}` : `${formula} otherwise`
          })
          .join('; '),
        binds: binding.pieces,
      }
  }
}

function printSum(terms: readonly Tree[], manner: Manner): string {
  return terms
    .map((term, i) => {
      const negative = isNegative(term)
      const part = wrap(print(negative ? negate(term) : term, manner), binding.product)
      if (i === 0) return negative ? manner.minus + part : part
      return `${negative ? ` ${manner.minus} ` : ' + '}${part}`
    })
    .join('')
}

function printProduct(factors: readonly Tree[], manner: Manner): Printed {
  const [first, ...rest] = factors
  if (first && isNumber(first) && first.exact.n < 0n) {
    const turned = negate(first)
    const body = isOne(turned) && rest.length > 0 ? rest : [turned, ...rest]
    const inner = body.length === 1 ? print(body[0]!, manner) : printProduct(body, manner)
    // A factor that is itself negative, or a sum, must not run into the sign.
    return { text: manner.minus + wrap(inner, binding.product), binds: binding.sum }
  }
  let text = ''
  factors.forEach((factor, i) => {
    const printed = print(factor, manner)
    // A fraction in front, 1/2 x, would read on into what follows without parentheses.
    const fraction = printed.binds === binding.product
    const part = fraction ? `(${printed.text})` : wrap(printed, binding.power)
    if (i === 0) text = part
    else text += separator(text, part, manner) + part
  })
  return { text, binds: binding.product }
}

/** What stands between two factors: nothing, a space, or a sign where digits would run together. */
function separator(before: string, after: string, manner: Manner): string {
  const last = before.at(-1)!
  const next = after[0]!
  if (/[\d.]/.test(next)) return manner.times
  if (next === '(') return last === manner.prime ? manner.times : ''
  if (next === '|') return manner.times
  // 3x and 4 sin(x); a longer word keeps its distance.
  if (/\d$/.test(before) && !/\^[^ ]*$/.test(before)) return /^[a-z]{2}/.test(after) ? ' ' : ''
  return ' '
}

function printCall(name: FunctionName, args: readonly Tree[], manner: Manner): Printed {
  // Pieces would read on to the end of the line: among others, or between bars, they stand alone.
  const least = args.length > 1 || (name === 'abs' && manner.bars) ? binding.sum : binding.pieces
  const texts = args.map((arg) => wrap(print(arg, manner), least))
  if (name === 'abs' && manner.bars) return { text: `|${texts[0]}|`, binds: binding.atom }
  if (name === 'sqrt' && manner.bars) {
    return { text: `√${wrap(print(args[0]!, manner), binding.atom)}`, binds: binding.power }
  }
  if (name === 'logBase') {
    // A base that is no plain number or letter has no place to stand; the quotient says the same.
    return /^(\d+(\.\d+)?|[a-zA-Z])$/.test(texts[0]!)
      ? { text: `log_${texts[0]}(${texts[1]})`, binds: binding.atom }
      : { text: `ln(${texts[1]})/ln(${texts[0]})`, binds: binding.product }
  }
  const latex = maybeEntry(name)?.latex
  if (latex && 'behind' in latex) {
    return {
      text: wrap(print(args[0]!, manner), binding.atom) + latex.behind,
      binds: binding.power,
    }
  }
  return { text: `${name}(${texts.join(', ')})`, binds: binding.atom }
}

function printCondition(condition: Condition, manner: Manner): string {
  if (condition.kind === 'compare') {
    return condition.terms
      .map((term, i) => {
        const relation = condition.relations[i]
        const text = wrap(print(term, manner), binding.sum)
        return relation ? `${text} ${manner.relation[relation]} ` : text
      })
      .join('')
  }
  const word = condition.kind === 'all' ? ' and ' : ' or '
  return condition.of
    .map((part) =>
      part.kind === 'compare' ? printCondition(part, manner) : `(${printCondition(part, manner)})`,
    )
    .join(word)
}

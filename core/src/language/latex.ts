import {
  entryOf,
  type FunctionName,
  maybeEntry,
  severalNames,
  severalOrNull,
  unaryNames,
} from '../functions'
import { decimalText, rationalText } from './print'
import {
  type Condition,
  isNegative,
  isNumber,
  isOne,
  negate,
  type Relation,
  type Tree,
} from '../formula/tree'

const binding = { pieces: 0, sum: 1, product: 2, power: 3, atom: 4 } as const

interface Printed {
  text: string
  binds: number
}

/** The name that stands before the argument, in LaTeX. */
function nameOf(name: FunctionName): string {
  const latex = maybeEntry(name)?.latex
  return latex && 'name' in latex ? latex.name : `\\${name}`
}

/** Whether it is written by a name before its argument. */
const isNamed = (name: FunctionName) =>
  severalOrNull(name)?.between !== true && 'name' in (maybeEntry(name)?.latex ?? { name })
/** What a formula that begins with a function begins with. */
const opens = ['\\log', ...[...unaryNames.filter(isNamed), ...severalNames].map(nameOf)]

const relations: Record<Relation, string> = {
  '<': '<',
  '<=': '\\le',
  '>': '>',
  '>=': '\\ge',
  '=': '=',
  '!=': '\\ne',
}
const greek: Record<string, string> = {
  α: '\\alpha',
  β: '\\beta',
  γ: '\\gamma',
  δ: '\\delta',
  ε: '\\varepsilon',
  θ: '\\theta',
  λ: '\\lambda',
  μ: '\\mu',
  ρ: '\\rho',
  σ: '\\sigma',
  τ: '\\tau',
  φ: '\\varphi',
  ω: '\\omega',
  Δ: '\\Delta',
  Ω: '\\Omega',
}

/** LaTeX for a formula, as it would stand on a board: 3.6\cos(0.9t) - 0.3. */
export const toLatex = (tree: Tree): string => print(tree, false).text

/** LaTeX for a name such as n₂ or v_m. */
export function nameToLatex(name: string): string {
  if (/^[A-Za-z]{2,}$/.test(name)) return `\\mathrm{${name}}`
  const base = greek[name[0]!] ?? name[0]!
  const rest = name.slice(1).replace('_', '')
  const digits = [...rest].map((c) => {
    const lowered = '₀₁₂₃₄₅₆₇₈₉'.indexOf(c)
    return lowered >= 0 ? String(lowered) : c
  })
  return rest ? `${base}_{${digits.join('')}}` : base
}

/** The derivative of a curve as it is typeset: q′ or dq/dt; order 0 is the curve. */
export function derivativeToLatex(
  curve: string,
  order: number,
  letter: string,
  notation: 'primes' | 'ratios',
): string {
  const name = nameToLatex(curve)
  if (order === 0) return name
  if (notation === 'primes') return name + primesToLatex(order)
  const power = order === 1 ? '' : `^{${order}}`
  return `\\tfrac{d${power}${name}}{d${nameToLatex(letter)}${power}}`
}

export const primesToLatex = (count: number) => (count === 0 ? '' : `^{${'\\prime'.repeat(count)}}`)

const isTall = (text: string) => /\\frac|\\begin|\\sqrt|\^\{.*\^/.test(text)
const parenthesised = (text: string) => (isTall(text) ? `\\left(${text}\\right)` : `(${text})`)
const wrap = (printed: Printed, least: number) =>
  printed.binds < least ? parenthesised(printed.text) : printed.text
/** `small` is set in exponents, where fractions are written on one line. */
function print(tree: Tree, small: boolean): Printed {
  switch (tree.kind) {
    case 'number':
      return printNumber(rationalText(tree.exact, tree.decimal), small)
    case 'constant':
      return { text: tree.name === 'pi' ? '\\pi' : 'e', binds: binding.atom }
    case 'name':
      return { text: nameToLatex(tree.name), binds: binding.atom }
    case 'sum':
      return { text: printSum(tree.terms, small), binds: binding.sum }
    case 'product':
      return printProduct(tree.factors, small)
    case 'quotient':
      return printQuotient(tree.above, tree.below, small)
    case 'power':
      return printPower(tree.base, tree.exponent, small)
    case 'call':
      return printCall(tree.name, tree.args, small)
    case 'curve':
      return {
        text: `${nameToLatex(tree.name)}${primesToLatex(tree.primes)}(${print(tree.at, small).text})`,
        binds: binding.atom,
      }
    case 'area': {
      const { written } = tree
      if (written) {
        const [from, to, body] = [written.from, tree.at, written.body].map(
          (t) => print(t, small).text,
        )
        return {
          text: `\\int_{${from}}^{${to}} ${body}\\,d${nameToLatex(written.letter)}`,
          binds: binding.product,
        }
      }
      return {
        text: `${nameToLatex(tree.name)}(${print(tree.at, small).text})`,
        binds: binding.atom,
      }
    }
    case 'pieces': {
      const rows = tree.pieces.map(({ body, when }) => {
        const formula = print(body, false).text
        return when
          ? `${formula} & \\text{for } ${conditionToLatex(when)}`
          : `${formula} & \\text{otherwise}`
      })
      if (rows.length === 1 && tree.pieces[0]!.when) {
        const { body, when } = tree.pieces[0]!
        return {
          text: `${print(body, false).text}\\quad\\text{for } ${conditionToLatex(when!)}`,
          binds: binding.pieces,
        }
      }
      return {
        text: `\\begin{cases}${rows.join(' \\\\ ')}\\end{cases}`,
        binds: binding.pieces,
      }
    }
  }
}

function printNumber(text: string, small: boolean): Printed {
  const scientific = /^(-?)(.*)E(-?\d+)$/.exec(text)
  if (scientific) {
    const [, sign, mantissa, exponent] = scientific
    const front = mantissa === '1' ? '' : `${mantissa}\\cdot `
    return {
      text: `${sign}${front}10^{${exponent}}`,
      binds: sign ? binding.sum : binding.product,
    }
  }
  const [above, below] = text.split('/')
  if (below === undefined) {
    return { text, binds: text.startsWith('-') ? binding.sum : binding.atom }
  }
  const negative = above!.startsWith('-')
  const top = negative ? above!.slice(1) : above!
  const fraction = small ? `${decimalText(top)}/${below}` : `\\frac{${decimalText(top)}}{${below}}`
  return {
    text: (negative ? '-' : '') + fraction,
    binds: negative ? binding.sum : small ? binding.product : binding.power,
  }
}

function printSum(terms: readonly Tree[], small: boolean): string {
  return terms
    .map((term, i) => {
      const negative = isNegative(term)
      const part = wrap(print(negative ? negate(term) : term, small), binding.product)
      if (i === 0) return negative ? `-${part}` : part
      return `${negative ? ' - ' : ' + '}${part}`
    })
    .join('')
}

function printProduct(factors: readonly Tree[], small: boolean): Printed {
  const [first, ...rest] = factors
  if (first && isNumber(first) && first.exact.n < 0n) {
    const turned = negate(first)
    const body = isOne(turned) && rest.length > 0 ? rest : [turned, ...rest]
    const inner = body.length === 1 ? print(body[0]!, small) : printProduct(body, small)
    return { text: `-${wrap(inner, binding.product)}`, binds: binding.sum }
  }
  let text = ''
  factors.forEach((factor, i) => {
    const part = wrap(print(factor, small), binding.power)
    if (i === 0) text = part
    else text += separator(factors[i - 1]!, part, text) + part
  })
  return { text, binds: binding.product }
}

function separator(before: Tree, part: string, text: string): string {
  const digitsMeet = /^[\d.]/.test(part) || (/^\\frac/.test(part) && /\d$/.test(text))
  if (digitsMeet) return ' \\cdot '
  // Only another function ends the argument of sin x; a root or a letter would go on with it.
  if (endsBare(before) && !opens.some((name) => part.startsWith(name))) return ' \\cdot '
  return /^\\(?!left)[a-z]/.test(part) ? '' : ' '
}

/** Whether a factor ends in a function without parentheses, whose argument could go on. */
function endsBare(tree: Tree): boolean {
  if (tree.kind === 'product') return endsBare(tree.factors.at(-1)!)
  if (tree.kind === 'power') return isRaised(tree.base, tree.exponent) && endsBare(tree.base)
  if (tree.kind !== 'call' || !isNamed(tree.name)) return false
  return (tree.args.length === 1 || tree.name === 'logBase') && isSimple(tree.args.at(-1)!)
}

function printQuotient(above: Tree, below: Tree, small: boolean): Printed {
  if (isNegative(above)) {
    const inner = printQuotient(negate(above), below, small)
    return { text: `-${inner.text}`, binds: binding.sum }
  }
  if (!small) {
    return {
      text: `\\frac{${print(above, false).text}}{${print(below, false).text}}`,
      binds: binding.power,
    }
  }
  const top = wrap(print(above, true), binding.product)
  return { text: `${top}/${wrap(print(below, true), binding.power)}`, binds: binding.product }
}

const isRaisable = (name: FunctionName) => {
  const latex = maybeEntry(name)?.latex
  return latex !== undefined && 'name' in latex && latex.raised === true
}
/** What stands around its argument and holds together by itself, such as bars. */
const isTight = (name: FunctionName) => {
  const latex = maybeEntry(name)?.latex
  return latex !== undefined && 'before' in latex && latex.loose !== true
}

/** sin²x rather than (sin x)² */
const isRaised = (base: Tree, exponent: Tree) =>
  base.kind === 'call' &&
  isRaisable(base.name) &&
  isNumber(exponent) &&
  exponent.exact.d === 1n &&
  exponent.exact.n > 0n

function printPower(base: Tree, exponent: Tree, small: boolean): Printed {
  const raised = print(exponent, true).text
  if (base.kind === 'call' && isRaised(base, exponent)) {
    return {
      text: `${nameOf(base.name)}^{${raised}}${argument(base.args[0]!, small)}`,
      binds: binding.power,
    }
  }
  const bare = base.kind === 'call' && !isTight(base.name)
  const low = print(base, small)
  const text = bare ? parenthesised(low.text) : wrap(low, binding.atom)
  return { text: `${text}^{${raised}}`, binds: binding.power }
}

/** A letter or a plain number needs no parentheses behind a function's name. */
const isSimple = (tree: Tree) =>
  tree.kind === 'name' ||
  tree.kind === 'constant' ||
  (isNumber(tree) &&
    printNumber(rationalText(tree.exact, tree.decimal), false).binds === binding.atom)

const argument = (tree: Tree, small: boolean) => {
  const { text } = print(tree, small)
  return isSimple(tree) ? ` ${text}` : parenthesised(text)
}

function printCall(name: FunctionName, args: readonly Tree[], small: boolean): Printed {
  const [first, second] = args
  switch (name) {
    case 'logBase':
      return {
        text: `\\log_{${print(first!, true).text}}${argument(second!, small)}`,
        binds: binding.atom,
      }
    default: {
      if (severalOrNull(name)?.between) {
        const [of, by] = args.map((a) => wrap(print(a, small), binding.power))
        return { text: `${of} \\b${name} ${by}`, binds: binding.sum }
      }
      if (args.length > 1) {
        const list = args.map((a) => print(a, small).text).join(', ')
        return { text: `${nameOf(name)}${parenthesised(list)}`, binds: binding.atom }
      }
      const { latex } = entryOf(name)
      if ('name' in latex) {
        return { text: `${latex.name}${argument(first!, small)}`, binds: binding.atom }
      }
      if ('behind' in latex) {
        const { text } = print(first!, small)
        const inside = isSimple(first!) ? text : parenthesised(text)
        return { text: inside + latex.behind, binds: binding.power }
      }
      const { before, after, small: raised = false, loose = false } = latex
      // Roots have room of their own; between bars the size stays.
      const inside = print(first!, raised || (small && !loose)).text
      return { text: before + inside + after, binds: raised ? binding.power : binding.atom }
    }
  }
}

export function conditionToLatex(condition: Condition): string {
  if (condition.kind === 'compare') {
    return condition.terms
      .map((term, i) => {
        const relation = condition.relations[i]
        const text = print(term, true).text
        return relation ? `${text} ${relations[relation]} ` : text
      })
      .join('')
  }
  const word = condition.kind === 'all' ? '\\text{ and }' : '\\text{ or }'
  return condition.of.map(conditionToLatex).join(word)
}

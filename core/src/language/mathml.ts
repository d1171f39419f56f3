import { type FunctionName, maybeEntry, severalOrNull } from '../functions'
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
  xml: string
  binds: number
}

const relations: Record<Relation, string> = {
  '<': '&lt;',
  '<=': '≤',
  '>': '&gt;',
  '>=': '≥',
  '=': '=',
  '!=': '≠',
}

const mn = (text: string) => `<mn>${text}</mn>`
const mi = (text: string) => `<mi>${text}</mi>`
const mo = (text: string) => `<mo>${text}</mo>`
const row = (...parts: string[]) =>
  parts.length === 1 ? parts[0]! : `<mrow>${parts.join('')}</mrow>`
const fenced = (open: string, inside: string, close: string) => row(mo(open), inside, mo(close))
const times = mo('\u2062')
const dot = mo('·')
const apply = mo('\u2061')

/**
 * A formula as presentation MathML (W3C MathML 3, chapter 3), whole with its math element, ready to
 * be pasted into a document: the same layout as toLatex.
 */
export const toMathml = (tree: Tree): string =>
  `<math xmlns="http://www.w3.org/1998/Math/MathML">${print(tree).xml}</math>`

const parenthesised = (xml: string) => fenced('(', xml, ')')
const wrap = ({ xml, binds }: Printed, least: number) => (binds < least ? parenthesised(xml) : xml)
/** A name such as n₂ or v_m with its subscript set low. */
function nameXml(name: string): string {
  const rest = [...name.slice(1).replace('_', '')].map((c) => {
    const lowered = '₀₁₂₃₄₅₆₇₈₉'.indexOf(c)
    return lowered >= 0 ? String(lowered) : c
  })
  if (rest.length === 0) return mi(name)
  const low = rest.join('')
  return `<msub>${mi(name[0]!)}${/^\d/.test(low) ? mn(low) : mi(low)}</msub>`
}

function print(tree: Tree): Printed {
  switch (tree.kind) {
    case 'number':
      return printNumber(rationalText(tree.exact, tree.decimal))
    case 'constant':
      return { xml: mi(tree.name === 'pi' ? 'π' : 'e'), binds: binding.atom }
    case 'name':
      return { xml: nameXml(tree.name), binds: binding.atom }
    case 'sum':
      return { xml: printSum(tree.terms), binds: binding.sum }
    case 'product':
      return printProduct(tree.factors)
    case 'quotient':
      return printQuotient(tree.above, tree.below)
    case 'power':
      return {
        xml: `<msup>${wrap(print(tree.base), binding.atom)}${print(tree.exponent).xml}</msup>`,
        binds: binding.power,
      }
    case 'call':
      return { xml: printCall(tree.name, tree.args), binds: binding.atom }
    case 'curve': {
      const name = nameXml(tree.name)
      const head = tree.primes > 0 ? `<msup>${name}${mo('′'.repeat(tree.primes))}</msup>` : name
      return { xml: row(head, apply, parenthesised(print(tree.at).xml)), binds: binding.atom }
    }
    case 'pieces': {
      const cell = (xml: string) => `<mtd columnalign="left">${xml}</mtd>`
      const rows = tree.pieces.map(({ body, when }) => {
        const condition = when
          ? row('<mtext>for&#xA0;</mtext>', printCondition(when))
          : '<mtext>otherwise</mtext>'
        return `<mtr>${cell(print(body).xml)}${cell(condition)}</mtr>`
      })
      return { xml: row(mo('{'), `<mtable>${rows.join('')}</mtable>`), binds: binding.pieces }
    }
  }
}

function printNumber(text: string): Printed {
  const negative = text.startsWith('-')
  const size = negative ? text.slice(1) : text
  const signed = (xml: string, binds: number): Printed =>
    negative ? { xml: row(mo('−'), xml), binds: binding.sum } : { xml, binds }
  const scientific = /^(.*)E(-?\d+)$/.exec(size)
  if (scientific) {
    const [, mantissa = '', exponent = ''] = scientific
    const power = exponent.startsWith('-') ? row(mo('−'), mn(exponent.slice(1))) : mn(exponent)
    const ten = `<msup>${mn('10')}${power}</msup>`
    return signed(mantissa === '1' ? ten : row(mn(mantissa), dot, ten), binding.product)
  }
  const [above = '', below] = size.split('/')
  if (below === undefined) return signed(mn(size), binding.atom)
  return signed(`<mfrac>${mn(decimalText(above))}${mn(below)}</mfrac>`, binding.power)
}

function printSum(terms: readonly Tree[]): string {
  return row(
    ...terms.flatMap((term, i) => {
      const negative = isNegative(term)
      const part = wrap(print(negative ? negate(term) : term), binding.product)
      if (i === 0) return negative ? [mo('−'), part] : [part]
      return [mo(negative ? '−' : '+'), part]
    }),
  )
}

function printProduct(factors: readonly Tree[]): Printed {
  const [first, ...rest] = factors
  if (first && isNumber(first) && first.exact.n < 0n) {
    const turned = negate(first)
    const body = isOne(turned) && rest.length > 0 ? rest : [turned, ...rest]
    const inner = body.length === 1 ? print(body[0]!) : printProduct(body)
    return { xml: row(mo('−'), wrap(inner, binding.product)), binds: binding.sum }
  }
  const parts = factors.flatMap((factor, i) => {
    const part = wrap(print(factor), binding.power)
    if (i === 0) return [part]
    // A figure behind a factor wants a visible sign: 2 · 3, not 23.
    return [/^(<mfrac>|<msup>|<mrow>)*<mn>/.test(part) ? dot : times, part]
  })
  return { xml: row(...parts), binds: binding.product }
}

function printQuotient(above: Tree, below: Tree): Printed {
  if (isNegative(above)) {
    return { xml: row(mo('−'), printQuotient(negate(above), below).xml), binds: binding.sum }
  }
  return { xml: `<mfrac>${print(above).xml}${print(below).xml}</mfrac>`, binds: binding.power }
}

function printCall(name: FunctionName, args: readonly Tree[]): string {
  const [first, second] = args
  const latex = maybeEntry(name)?.latex
  if (latex && 'mathml' in latex) return latex.mathml(print(first!).xml)
  if (latex && 'behind' in latex) return row(wrap(print(first!), binding.atom), mo(latex.behind))
  if (severalOrNull(name)?.between) {
    const [of, by] = args.map((a) => wrap(print(a), binding.power))
    return parenthesised(row(of!, mo(name), by!))
  }
  if (name === 'logBase') {
    return row(
      `<msub>${mi('log')}${print(first!).xml}</msub>`,
      apply,
      parenthesised(print(second!).xml),
    )
  }
  const list = args.map((a) => print(a).xml).join(mo(','))
  return row(mi(name), apply, parenthesised(args.length > 1 ? row(list) : list))
}

function printCondition(condition: Condition): string {
  if (condition.kind === 'compare') {
    return row(
      ...condition.terms.flatMap((term, i) => {
        const relation = condition.relations[i]
        return relation ? [print(term).xml, mo(relations[relation])] : [print(term).xml]
      }),
    )
  }
  const word = `<mtext>&#xA0;${condition.kind === 'all' ? 'and' : 'or'}&#xA0;</mtext>`
  return row(condition.of.map(printCondition).join(word))
}

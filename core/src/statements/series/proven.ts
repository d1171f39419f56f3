import { taylorRemainder } from '../../calculus/remainder'
import type { RealFunction } from '../../evaluate/compile'
import { formatPower, formatShort, formatTiny } from '../../vocabulary/numbers'
import type { LineContext, LineProblem, Readout } from '../contract'
import { curveText } from '../shared/slots'
import type { TaylorLine } from './line'
import { boundText, highestOrder, polynomialAt, type Term, termsOf } from './terms'

type Function = RealFunction

/** What is proven of the error: its bound over a span, and where it stays under what is allowed. */
export function provenOf(
  line: TaylorLine,
  x: number,
  degree: number,
  f: Function,
  terms: readonly Term[],
  context: LineContext,
):
  | { readouts: Readout[]; notes: string[]; conclusions: { text: string; at?: number }[] }
  | { problem: LineProblem } {
  const nothing = {
    readouts: [] as Readout[],
    notes: [] as string[],
    conclusions: [] as { text: string; at?: number }[],
  }
  if (line.span === undefined && line.under === undefined) return nothing
  const under = line.under === undefined ? null : context.number(line.under)
  if (under && !under.ok) return { problem: under.problem }
  if (under && !(under.value > 0)) {
    return {
      problem: {
        message: `an error stays under a number above 0, and not ${formatShort(under.value, 6)}`,
        fix: 'give 0.001',
      },
    }
  }
  const found = context.curve(line.curve)
  if (!found.ok) return { problem: found.problem }
  if (!found.curve.formula) {
    return { ...nothing, notes: [`${line.curve} has no formula, so no bound is proven.`] }
  }
  const key = `remainder ${line.order} ${x} ${degree}`
  const remainder = context.memo(found.curve, key, () => taylorRemainder(f, x, degree))
  const { letter } = context.variable
  const show = (v: number) => formatShort(v, 6)
  if (line.span === undefined) {
    const [from, to] = [
      Math.max(found.curve.from, found.curve.reach.from),
      Math.min(found.curve.to, found.curve.reach.to),
    ]
    const stretch = remainder.stretchUnder(under!.value, Math.min(from, x), Math.max(to, x))
    return { ...nothing, conclusions: [stretchTold(stretch, under!.value, letter, context)] }
  }
  const [from, to] = [context.number(line.span.from), context.number(line.span.to)]
  if (!from.ok) return { problem: from.problem }
  if (!to.ok) return { problem: to.problem }
  if (!(from.value < to.value)) {
    return {
      problem: {
        message: `the span runs from ${show(from.value)} to ${show(to.value)}`,
        fix: 'let it begin below its end',
      },
    }
  }
  const span = [from.value, to.value] as const
  const { bound, form } = remainder.boundOn(...span)
  const name = `|${curveText(line)} − P|`
  const where = `[${show(span[0])}, ${show(span[1])}]`
  const readout: Readout = Number.isFinite(bound)
    ? { id: 'bound', label: 'bound', text: boundText(bound), value: bound }
    : { id: 'bound', label: 'bound', text: 'none' }
  const reason =
    form === null
      ? `by enclosing ${curveText(line)} − P piece by piece`
      : `by what the derivative of order ${line.order + form} can be between there and ${letter} = ${show(x)}`
  const notes = Number.isFinite(bound)
    ? [`${name} is at most the bound on ${where}: ${reason}.`]
    : [`No bound is proven on ${where}: a derivative is missing or unbounded there.`]
  return {
    readouts: [readout],
    notes,
    conclusions: under ? enoughTold(under.value, span, x, f, line, terms, context) : [],
  }
}

function stretchTold(
  stretch: readonly [number, number] | null,
  under: number,
  letter: string,
  context: LineContext,
): { text: string; at?: number } {
  const allowed = under >= 1e-3 ? formatShort(under, 9) : formatPower(under, 3)
  if (!stretch)
    return { text: `It is not proven that the error stays under ${allowed} even at the place.` }
  const digits = Math.max(3, context.decimals)
  const step = 10 ** -digits
  // Towards the place, so that what is said stays true.
  const [a, b] = [
    Math.ceil(stretch[0] / step - 1e-9) * step,
    Math.floor(stretch[1] / step + 1e-9) * step,
  ]
  return {
    text: `|error| stays under ${allowed} for ${letter} from ${formatShort(a, digits)} to ${formatShort(b, digits)}: proven.`,
  }
}

/** Which order is enough over a span, and what shows that the one before is not. */
function enoughTold(
  under: number,
  [from, to]: readonly [number, number],
  x: number,
  f: Function,
  line: TaylorLine,
  _terms: readonly Term[],
  context: LineContext,
): { text: string; at?: number }[] {
  const found = context.curve(line.curve)
  if (!found.ok) return []
  const { curve } = found
  const allowed = under >= 1e-3 ? formatShort(under, 9) : formatPower(under, 3)
  const key = `enough ${line.order} ${x} ${from} ${to} ${under}`
  const answer = context.memo(curve, key, () => {
    for (let n = 0; n <= highestOrder; n++) {
      const { bound } = taylorRemainder(f, x, n).boundOn(from, to)
      if (bound <= under) return { n, bound }
    }
    return null
  })
  const where = `[${formatShort(from, 6)}, ${formatShort(to, 6)}]`
  if (!answer) {
    return [
      {
        text: `No order up to ${highestOrder} is proven to keep |error| under ${allowed} on ${where}.`,
      },
    ]
  }
  const { n, bound } = answer
  const enough = {
    text: `Order ${n} is enough on ${where}: |error| is at most ${boundText(bound)}.`,
  }
  if (n === 0) return [enough]
  const before = termsOf(curve, line.order, {
    x,
    at: null,
    letter: context.variable.letter,
    degree: n - 1,
    decimals: 3,
  })
  const worst = worstOf(f, before, x, from, to)
  return [
    enough,
    worst.error > under * (1 + 1e-9)
      ? {
          text: `Order ${n - 1} is not: at ${context.variable.letter} = ${formatShort(worst.at, 6)} |error| ≈ ${formatTiny(worst.error, Math.max(3, Math.ceil(-Math.log10(under)) + 1))}.`,
          at: worst.at,
        }
      : { text: `Whether order ${n - 1} is enough as well is not settled.` },
  ]
}

function worstOf(f: Function, terms: readonly Term[], x: number, from: number, to: number) {
  let worst = { at: from, error: 0 }
  for (let i = 0; i <= 200; i++) {
    const at = i === 200 ? to : from + ((to - from) * i) / 200
    const error = Math.abs(f.value(at) - polynomialAt(terms, at - x))
    if (error > worst.error) worst = { at, error }
  }
  return worst
}

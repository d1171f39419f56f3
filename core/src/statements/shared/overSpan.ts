import { placeIs } from './said'
import { sayNumber } from '../../vocabulary/numbers'
import { commonMembers, nameSchema, spanSchema, type SpanText } from '../../vocabulary/members'
import type { CurveResult, LineContext, LineProblem, Proposal, Request } from '../contract'
import { type CurveRef, curvesMeant, likelySpan, spanIn } from './slots'

/** Members that every line about a curve over a span has. */
export const overSpanFields = {
  ...commonMembers,
  curve: nameSchema,
  span: spanSchema,
}

/**
 * Lines over a span for the words behind the one that chose the kind, such as "of q′ over 1 to 4";
 * none where the kind was not asked for.
 */
export function offersOver<L>(
  rest: string | null,
  request: Request,
  highestOrder: number,
  make: (ref: CurveRef, span: SpanText, words: string) => L,
): Proposal<L>[] {
  if (rest === null || request.text === '') return []
  const { span, rest: words } = spanIn(rest)
  return curvesMeant(words, request)
    .refs.filter((ref) => ref.order <= highestOrder)
    .map((ref) => ({ line: make(ref, likelySpan(span, request, ref.curve), words) }))
}

/** A curve over a span whose ends are in order and inside the curve's own. */
export function lookOver(
  line: { curve: string; span: SpanText },
  context: LineContext,
):
  { ok: true; curve: CurveResult; from: number; to: number } | { ok: false; problem: LineProblem } {
  const found = context.curve(line.curve)
  if (!found.ok) return found
  const [from, to] = [context.number(line.span.from), context.number(line.span.to)]
  if (!from.ok) return from
  if (!to.ok) return to
  const { curve } = found
  const { letter } = context.variable
  const show = (x: number) => sayNumber(x, Math.max(3, context.decimals))
  const [a, b] = [from.value, to.value]
  if (a === b) {
    return {
      ok: false,
      problem: {
        message: `the span begins and ends at ${placeIs(letter, show(a))}`,
        fix: 'move one of its ends',
      },
    }
  }
  if (a > b) {
    return {
      ok: false,
      problem: {
        message: `the span runs from ${show(a)} down to ${show(b)}`,
        fix: 'swap its ends',
      },
    }
  }
  const { reach } = curve
  if (a < reach.from || b > reach.to) {
    return {
      ok: false,
      problem: {
        message: `the span ${show(a)} to ${show(b)} reaches beyond that of ${curve.name}, ${show(reach.from)} to ${show(reach.to)}`,
        fix: `use [${show(Math.max(a, reach.from))}, ${show(Math.min(b, reach.to))}], or widen the span of ${curve.name}`,
      },
    }
  }
  return { ok: true, curve, from: a, to: b }
}

/** The same for lines that prove something, for which a curve must have a formula. */
export function lookOverFormula(
  line: { curve: string; span: SpanText },
  context: LineContext,
): ReturnType<typeof lookOver> {
  const found = lookOver(line, context)
  if (!found.ok || found.curve.formula) return found
  return {
    ok: false,
    problem: {
      message: `${line.curve} has no formula, so nothing about it can be proven`,
      fix: 'fit a formula to it, and ask about that',
    },
  }
}

import { formatShort } from '../study/numbers'
import type { SpanText } from '../study/parts'
import type { CurveResult, LineContext, LineProblem } from './kind'

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
  const show = (x: number) => formatShort(x, Math.max(3, context.decimals))
  const [a, b] = [from.value, to.value]
  if (a === b) {
    return {
      ok: false,
      problem: {
        message: `the span begins and ends at ${letter} = ${show(a)}`,
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
  if (a < curve.from || b > curve.to) {
    return {
      ok: false,
      problem: {
        message: `the span ${show(a)} to ${show(b)} reaches beyond that of ${curve.name}, ${show(curve.from)} to ${show(curve.to)}`,
        fix: `use [${show(Math.max(a, curve.from))}, ${show(Math.min(b, curve.to))}], or widen the span of ${curve.name}`,
      },
    }
  }
  return { ok: true, curve, from: a, to: b }
}

import { namesIn } from '../../formula/tree'
import { spanMembers } from '../../statements'
import { numberToFormula } from '../../vocabulary/numbers'
import type { SpanText } from '../../vocabulary/members'
import { readNumber } from '../../vocabulary/values'
import type { Study } from '../schema'
import type { Edit, Moved } from './edit'
import { movePlace } from './places'

export const sameSpan = (a: SpanText, b: SpanText) => a.from === b.from && a.to === b.to

/**
 * Moves one end of a span in every line that hangs on it; an end that is a slider, or an expression
 * with one free slider, moves that slider. Ends may not meet or pass each other. The span comes back
 * as it is written then.
 */
export const moveSpanEnd =
  (span: SpanText, end: 'from' | 'to', x: number, decimals: number) =>
  (study: Study): Moved<SpanText> => {
    const text = span[end]
    const read = readNumber(text, study.sliders)
    const other = readNumber(span[end === 'from' ? 'to' : 'from'], study.sliders)
    if (!read.ok) return { study, now: span }
    const least = 10 ** -decimals
    const held = !other.ok
      ? x
      : end === 'from'
        ? Math.min(x, other.value - least)
        : Math.max(x, other.value + least)
    if (namesIn(read.tree).size > 0) {
      return { study: movePlace(text, held, decimals)(study).study, now: span }
    }
    const now = { ...span, [end]: numberToFormula(Number(held.toFixed(decimals))) }
    return { study: setSpan(span, now)(study), now }
  }

/** Gives every line on one span another one. */
export const setSpan =
  (from: SpanText, to: SpanText): Edit =>
  (study) => ({
    ...study,
    lines: study.lines.map((line) =>
      spanMembers(line)
        .filter(({ span }) => sameSpan(span, from))
        .reduce((now, { field }) => ({ ...now, [field]: to }), line),
    ),
  })

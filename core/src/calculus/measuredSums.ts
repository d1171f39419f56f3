import type { Strip } from './riemann'

export const measuredRules = ['left', 'right', 'midpoint', 'trapezoid', 'simpson'] as const
export type MeasuredRule = (typeof measuredRules)[number]

/** What is wrong with a list of readings, or null: at least two, finite, at places that rise. */
export function readingsProblem(xs: ArrayLike<number>, ys: ArrayLike<number>): string | null {
  if (xs.length !== ys.length) return `${xs.length} places have ${ys.length} readings`
  if (xs.length < 2) return 'strips need two readings or more'
  for (let i = 0; i < xs.length; i++) {
    if (!Number.isFinite(xs[i]) || !Number.isFinite(ys[i])) return `reading ${i + 1} is no number`
    if (i > 0 && !(xs[i]! > xs[i - 1]!)) {
      return `reading ${i + 1} at ${xs[i]} does not lie after ${xs[i - 1]}`
    }
  }
  return null
}

/** Why readings make no strips of a kind. */
export type NoStrips =
  /** So many strips between readings cannot be put together to so many. */
  | { why: 'count'; between: number; count: number }
  /** Midpoints and parabolas take strips in pairs, and there is an odd number. */
  | { why: 'odd'; between: number }
  /** The reading at a place is not in the middle of its strip. */
  | { why: 'uneven'; at: number; from: number; to: number }

/** A strip of readings; a slanted or curved top runs through three heights. */
export interface MeasuredStrip extends Strip {
  top?: readonly [left: number, middle: number, right: number]
}

/**
 * Strips over readings, whose widths may differ. `count` puts neighbouring strips together, where it
 * divides their number; null takes them as they lie. Midpoints are read in the middle of a strip, so
 * each is put together from an even number, the middle reading halfway; parabolas take two strips of
 * one width. Throws RangeError for readings that `readingsProblem` names.
 */
export function measuredStrips(
  xs: ArrayLike<number>,
  ys: ArrayLike<number>,
  rule: MeasuredRule,
  count: number | null = null,
): { ok: true; strips: MeasuredStrip[] } | ({ ok: false } & NoStrips) {
  const problem = readingsProblem(xs, ys)
  if (problem) throw new RangeError(problem)
  const between = xs.length - 1
  if (rule === 'midpoint' && count === null && between % 2 === 1) {
    return { ok: false, why: 'odd', between }
  }
  const strips = count ?? (rule === 'midpoint' ? between / 2 : between)
  const each = between / strips
  if (!Number.isInteger(each) || (rule === 'midpoint' && each % 2 === 1)) {
    return { ok: false, why: 'count', between, count: strips }
  }
  if (rule === 'simpson' && strips % 2 === 1) return { ok: false, why: 'odd', between: strips }
  const places = Array.from({ length: strips + 1 }, (_, i) => i * each)
  const uneven = rule === 'midpoint' || rule === 'simpson' ? unevenAt(xs, places, rule, each) : null
  if (uneven) return { ok: false, why: 'uneven', ...uneven }
  const made = places
    .slice(1)
    .map((to, i) => stripOf(xs, ys, rule, { from: places[i]!, to, i, each }))
  return { ok: true, strips: made }
}

/** The first reading that is to lie halfway and does not. */
function unevenAt(
  xs: ArrayLike<number>,
  places: readonly number[],
  rule: MeasuredRule,
  each: number,
): { at: number; from: number; to: number } | null {
  const pairs = rule === 'midpoint' ? 1 : 2
  for (let i = 0; i + pairs < places.length; i += pairs) {
    const [from, to] = [xs[places[i]!]!, xs[places[i + pairs]!]!]
    const at = xs[places[i]! + (each * pairs) / 2]!
    if (Math.abs(at - (from + (to - from) / 2)) > 1e-9 * (to - from)) return { at, from, to }
  }
  return null
}

function stripOf(
  xs: ArrayLike<number>,
  ys: ArrayLike<number>,
  rule: MeasuredRule,
  { from, to, i, each }: { from: number; to: number; i: number; each: number },
): MeasuredStrip {
  const [a, b] = [xs[from]!, xs[to]!]
  const [left, right] = [ys[from]!, ys[to]!]
  const strip = (sample: number, height: number, top?: MeasuredStrip['top']): MeasuredStrip => ({
    from: a,
    to: b,
    sample,
    height,
    area: height * (b - a),
    ...(top ? { top } : {}),
  })
  switch (rule) {
    case 'left':
      return strip(a, left)
    case 'right':
      return strip(b, right)
    case 'midpoint': {
      const middle = from + each / 2
      return strip(xs[middle]!, ys[middle]!)
    }
    case 'trapezoid': {
      const mean = (left + right) / 2
      return strip(a + (b - a) / 2, mean, [left, mean, right])
    }
    case 'simpson': {
      const first = i % 2 === 0
      const [p, q, r] = first ? [left, right, ys[to + each]!] : [ys[from - each]!, left, right]
      const mean = first ? (5 * p + 8 * q - r) / 12 : (5 * r + 8 * q - p) / 12
      // A quarter of the way through the parabola over both strips.
      const middle = first ? (3 * p + 6 * q - r) / 8 : (3 * r + 6 * q - p) / 8
      return strip(a + (b - a) / 2, mean, [left, middle, right])
    }
  }
}

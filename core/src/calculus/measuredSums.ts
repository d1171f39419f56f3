import { compensatedSum } from './quadrature'

export interface MeasuredSums {
  left: number
  right: number
  trapezoid: number
}

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

/**
 * Left, right and trapezoid sums over the strips between readings, whose widths may differ. Throws
 * RangeError for readings that `readingsProblem` names.
 */
export function measuredSums(xs: ArrayLike<number>, ys: ArrayLike<number>): MeasuredSums {
  const problem = readingsProblem(xs, ys)
  if (problem) throw new RangeError(problem)
  const strips = Array.from({ length: xs.length - 1 }, (_, i) => ({
    width: xs[i + 1]! - xs[i]!,
    left: ys[i]!,
    right: ys[i + 1]!,
  }))
  return {
    left: compensatedSum(strips.map((s) => s.width * s.left)),
    right: compensatedSum(strips.map((s) => s.width * s.right)),
    trapezoid: compensatedSum(strips.map((s) => (s.width * (s.left + s.right)) / 2)),
  }
}

import { formatShort } from '../../vocabulary/numbers'
import type { CurveResult, LineContext, LineProblem } from '../contract'

/** The readings of a span, which begins and ends at one; or why they make none. */
export function readingsWithin(
  { readings }: CurveResult,
  from: number,
  to: number,
  { variable, decimals }: LineContext,
): { ok: true; xs: number[]; ys: number[] } | { ok: false; problem: LineProblem } {
  const { xs, ys } = readings!
  const slack = 1e-9 * Math.max(1, Math.abs(from), Math.abs(to))
  const at = (x: number) => xs.findIndex((place) => Math.abs(place - x) <= slack)
  const [first, last] = [at(from), at(to)]
  const show = (x: number) => formatShort(x, Math.max(3, decimals))
  if (first < 0 || last < 0) {
    const x = first < 0 ? from : to
    const [before, after] = [xs.findLast((place) => place < x)!, xs.find((place) => place > x)!]
    const nearest = (end: number) =>
      xs.reduce((best, place) => (Math.abs(place - end) < Math.abs(best - end) ? place : best))
    return {
      ok: false,
      problem: {
        message: `nothing was read at ${variable.letter} = ${show(x)}: the readings beside it are at ${show(before)} and ${show(after)}`,
        fix: `use [${show(nearest(from))}, ${show(nearest(to))}]`,
      },
    }
  }
  return { ok: true, xs: xs.slice(first, last + 1), ys: ys.slice(first, last + 1) }
}

/** Whether what is asked lies between readings: a rate, or a height where nothing was read. */
export const isBetweenReadings = (
  { readings }: CurveResult,
  order: number,
  ...places: readonly number[]
): boolean => readings !== undefined && (order > 0 || places.some((x) => !readings.xs.includes(x)))

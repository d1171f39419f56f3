import { accumulate, type Accumulation } from '../../calculus/accumulate'
import { areaTree, type Given } from '../../calculus/areaTree'
import { compileTree, type RealFunction } from '../../evaluate/compile'
import type { Examination } from '../../features/examination'
import { formatShort } from '../../vocabulary/numbers'
import { listed, unitOfArea } from '../../vocabulary/units'
import type { CurveResult, LineContext } from '../contract'

/**
 * The area under a derivative of a curve as a curve of its own: from where it is counted, and what
 * it begins with there.
 */
export function accumulated(
  curve: CurveResult,
  order: number,
  name: string,
  { lower, start }: { lower: Given; start: Given },
  { variable: { letter, unit } }: LineContext,
): CurveResult {
  const { from, to } = curve
  const { f } = curve.derivative(order)
  const area = accumulate(f, lower.value, from, to)
  const show = (x: number) => formatShort(x, 6)
  const fix = 'begin on the other side of it, or choose another span'
  const told = (at: number | null, message: string) =>
    at === null ? [] : [{ message: `${message} ${letter} = ${show(at)}`, fix }]
  const problems = [
    ...told(area.divergesAt, `the area under ${curve.name} grows without bound at`),
    ...told(area.unsettledAt, `the area under ${curve.name} could not be settled at`),
  ]
  const tree = areaTree({ called: name, f, lower, start, from, to, area })
  const whole: RealFunction = {
    ...compileTree(tree, { variable: f.variable }),
    ...raised(area, start.value),
    withParameters: () => whole,
  }
  const derivative = (above: number) =>
    above === 0 ? { tree, f: whole } : curve.derivative(order + above - 1)
  return {
    name,
    unit: unitOfArea(curve.unit, unit),
    tree,
    f: whole,
    from,
    to,
    reach: { from, to },
    window: curve.window,
    stale: curve.stale,
    problems,
    hints: [],
    formula: true,
    accumulates: { curve: curve.name, order, lower: lower.value, f },
    derivative,
    drawn: (above) => derivative(Math.max(0, above)).f,
  }
}

/** An accumulation that begins with a value of its own. */
function raised(area: Accumulation, by: number): Accumulation {
  if (by === 0) return area
  const first = (all: number[]) => [all[0]! + by, ...all.slice(1)]
  return {
    ...area,
    value: (x) => area.value(x) + by,
    values(xs, out) {
      const ys = area.values(xs, out)
      for (let i = 0; i < ys.length; i++) ys[i]! += by
      return ys
    },
    derivatives: (x, order) => first(area.derivatives(x, order)),
    beside: (x, side, order) => first(area.beside(x, side, order)),
    enclose(lo, hi) {
      const [least, most] = area.enclose(lo, hi)
      // One rounding of the sum to either side.
      const slack = 2 ** -52 * (Math.abs(by) + Math.max(Math.abs(least), Math.abs(most)))
      return [least + by - slack, most + by + slack]
    },
  }
}

/** Where q jumps, A has a kink. */
export function jumpNotes(
  graph: string,
  area: string,
  { breaks }: Examination,
  { from, to }: { from: number; to: number },
  { variable }: LineContext,
): string[] {
  const places = breaks
    .filter(({ kind, x }) => kind === 'jump' && x > from && x < to)
    .map(({ x }) => formatShort(x, 6))
  if (places.length === 0) return []
  const at = listed(places, mostPlaces)
  const kinks = places.length > 1 ? 'has kinks' : 'has a kink'
  return [`At ${variable.letter} = ${at}, ${graph} jumps, so ${area} ${kinks} there.`]
}

const mostPlaces = 4

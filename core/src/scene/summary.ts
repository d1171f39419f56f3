import type { CurveResult, DrawnFunction } from '../statements/contract'
import type { Study } from '../study/schema'
import { formatShort } from '../vocabulary/numbers'
import { unitOfDerivative } from '../vocabulary/units'
import { placeBetween } from './fit'

/** One sentence on what a lane shows, for those who do not see it. */
export function summarise(
  title: string,
  curve: CurveResult,
  order: number,
  f: DrawnFunction,
  study: Study,
): string {
  const { variable, decimals } = study
  const show = (v: number) => formatShort(v, decimals)
  const unit = unitOfDerivative(curve.unit, variable.unit, order)
  const { from, to } = curve
  const xs = Float64Array.from({ length: 201 }, (_, i) => placeBetween(from, to, i / 200))
  const ys = f.values(xs)
  let [low, high] = [-1, -1]
  ys.forEach((y, i) => {
    if (!Number.isFinite(y)) return
    if (low < 0 || y < ys[low]!) low = i
    if (high < 0 || y > ys[high]!) high = i
  })
  const over = `${title} over ${variable.letter} from ${show(from)} to ${show(to)}${variable.unit ? ` ${variable.unit}` : ''}`
  if (low < 0) return `${over} has no values.`
  const part = (i: number) => `about ${show(ys[i]!)} near ${variable.letter} = ${show(xs[i]!)}`
  const middle =
    ys[low] === ys[high]
      ? `is level at ${show(ys[low]!)}`
      : `lies between ${part(low)} and ${part(high)}`
  return `${over} ${middle}${unit ? `, in ${unit}` : ''}.`
}

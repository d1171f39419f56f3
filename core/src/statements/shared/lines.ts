import { lineEquation } from '../../vocabulary/equation'
import { formatNumber } from '../../vocabulary/numbers'
import { withUnit } from '../../vocabulary/units'
import type { LineContext, Readout, StraightLine } from '../contract'

/** A straight line as a readout, with what its other forms are made of. */
export const lineReadout = (line: StraightLine, { variable, decimals }: LineContext): Readout => ({
  id: 'line',
  label: 'line',
  text: lineEquation(
    { slope: line.slope, intercept: line.value - line.slope * line.at },
    variable.letter,
    decimals,
  ),
  straight: line,
})

/** A number with its unit, as a person copies it. */
/** A readout of what is not known, but estimated. */
export const asEstimate = (readout: Readout): Readout => ({
  ...readout,
  text: readout.text.includes(' = ') ? readout.text.replace(' = ', ' ≈ ') : `≈ ${readout.text}`,
})

/** Readouts as they are, or as estimates; a distance along the axis is known all the same. */
export const estimatedWhere = (isEstimate: boolean, readouts: readonly Readout[]): Readout[] =>
  readouts.map((one) => (isEstimate && one.id !== 'run' ? asEstimate(one) : one))

export const numberReadout = (
  label: Readout['label'],
  value: number,
  unit: string,
  decimals: number,
): Readout => ({ id: label, label, text: withUnit(formatNumber(value, decimals), unit), value })

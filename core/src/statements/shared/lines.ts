import { lineEquation, type LineTexts } from '../../vocabulary/equation'
import { formatNumber, formatShort } from '../../vocabulary/numbers'
import { withUnit } from '../../vocabulary/units'
import type { LineContext, Readout } from '../contract'

/** A straight line as a readout, with what its other forms are made of. */
export const lineReadout = (straight: LineTexts, { variable }: LineContext): Readout => ({
  id: 'line',
  label: 'line',
  text: lineEquation(straight, variable.letter),
  straight,
})

/** The numbers of a straight line as they are read, rounded. */
export const roundedLine = (
  { at, value, slope }: { at: number; value: number; slope: number },
  decimals: number,
): LineTexts => ({
  at: formatShort(at, Math.max(decimals, 3)),
  value: formatNumber(value, decimals),
  slope: formatNumber(slope, decimals),
  intercept: formatNumber(value - slope * at, decimals),
})

/** A readout of what is not known, but estimated. */
export const asEstimate = (readout: Readout): Readout => ({
  ...readout,
  text: readout.text.includes(' = ') ? readout.text.replace(' = ', ' ≈ ') : `≈ ${readout.text}`,
})

/** Readouts as they are, or as estimates; a distance along the axis is known all the same. */
export const estimatedWhere = (isEstimate: boolean, readouts: readonly Readout[]): Readout[] =>
  readouts.map((one) => (isEstimate && one.id !== 'run' ? asEstimate(one) : one))

/** A number with its unit, as a person copies it. */
export const numberReadout = (
  label: Readout['label'],
  value: number,
  unit: string,
  decimals: number,
): Readout => ({ id: label, label, text: withUnit(formatNumber(value, decimals), unit), value })

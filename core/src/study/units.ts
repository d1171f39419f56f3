const raised = ['', '', '²', '³', '⁴', '⁵', '⁶', '⁷', '⁸', '⁹']

/**
 * The unit of a curve's derivative: ML/h against h is "ML/h per h", its second derivative
 * "ML/h per h²". Without a unit on the axis there is nothing to divide by.
 */
export function unitOfDerivative(unit: string, axisUnit: string, order: number): string {
  if (order === 0) return unit
  if (axisUnit === '') return unit === '' ? '' : `${unit} per unit`
  const per = `per ${axisUnit}${raised[order] ?? `^${order}`}`
  return unit === '' ? per : `${unit} ${per}`
}

/** A number with its unit behind a space; the unit is left out where there is none. */
export const withUnit = (text: string, unit: string) => (unit === '' ? text : `${text} ${unit}`)

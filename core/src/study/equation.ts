import { formatNumber } from './numbers'

/**
 * A straight line as people write it: y = −3.191t + 15.758, y = t + 2, y = 4, y = −t. Coefficients
 * are rounded first and judged after, so a slope that shows as 0.000 gives a level line.
 */
export function lineEquation(
  { slope, intercept }: { slope: number; intercept: number },
  letter: string,
  decimals: number,
): string {
  const steep = formatNumber(slope, decimals)
  const height = formatNumber(intercept, decimals)
  if (isZeroText(steep)) return `y = ${height}`
  const size = steep.replace('−', '')
  const sign = steep.startsWith('−') ? '−' : ''
  const term = `${sign}${isOneText(size) ? '' : size}${letter}`
  if (isZeroText(height)) return `y = ${term}`
  return height.startsWith('−') ? `y = ${term} − ${height.slice(1)}` : `y = ${term} + ${height}`
}

const isZeroText = (text: string) => !/[1-9∞]/.test(text)
const isOneText = (text: string) => /^1(\.0*)?$/.test(text)

import { formatNumber, formatShort } from './numbers'

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

/**
 * A straight line through a point: y − 2.356 = −3.191(t − 4.2), y = 2(t + 1), y + 1 = t. A level
 * line is y = 4 in every form.
 */
export function pointSlopeEquation(
  { at, value, slope }: { at: number; value: number; slope: number },
  letter: string,
  decimals: number,
): string {
  const [steep, height] = [formatNumber(slope, decimals), formatNumber(value, decimals)]
  if (isZeroText(steep)) return `y = ${height}`
  const left = isZeroText(height) ? 'y' : `y ${opposite(height)}`
  const place = formatShort(at, Math.max(decimals, 3))
  const size = steep.replace('−', '')
  const sign = steep.startsWith('−') ? '−' : ''
  if (isZeroText(place)) return `${left} = ${sign}${isOneText(size) ? '' : size}${letter}`
  const run = `${letter} ${opposite(place)}`
  if (isOneText(size)) return `${left} = ${sign ? `−(${run})` : run}`
  return `${left} = ${sign}${size}(${run})`
}

/** A straight line with its letters on one side, the first with a plus: 3.191t + y = 15.758. */
export function standardEquation(
  { slope, intercept }: { slope: number; intercept: number },
  letter: string,
  decimals: number,
): string {
  const steep = formatNumber(slope, decimals)
  const height = formatNumber(intercept, decimals)
  if (isZeroText(steep)) return `y = ${height}`
  const size = steep.replace('−', '')
  const term = `${isOneText(size) ? '' : size}${letter}`
  if (steep.startsWith('−')) return `${term} + y = ${height}`
  return `${term} − y = ${isZeroText(height) ? height : turned(height)}`
}

const turned = (text: string) => (text.startsWith('−') ? text.slice(1) : `−${text}`)
/** "− 2.5" for 2.5 and "+ 2.5" for −2.5. */
const opposite = (text: string) => (text.startsWith('−') ? `+ ${text.slice(1)}` : `− ${text}`)
const isZeroText = (text: string) => !/[1-9∞]/.test(text)
const isOneText = (text: string) => /^1(\.0*)?$/.test(text)

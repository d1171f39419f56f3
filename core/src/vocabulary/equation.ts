/** A straight line through a point, each number as it is read. */
export interface LineTexts {
  at: string
  value: string
  slope: string
  intercept: string
}

/**
 * A straight line as people write it: y = −3.191t + 15.758, y = 4x − 7, y = t + 2, y = 4, y = −t.
 * Coefficients are judged as they read, so a slope that shows as 0.000 gives a level line.
 */
export function lineEquation(
  { slope, intercept }: Pick<LineTexts, 'slope' | 'intercept'>,
  letter: string,
): string {
  if (isZeroText(slope)) return `y = ${intercept}`
  const term = termOf(slope, letter)
  if (isZeroText(intercept)) return `y = ${term}`
  return `y = ${term} ${added(intercept)}`
}

/**
 * A straight line through a point: y − 2.356 = −3.191(t − 4.2), y = 2(t + 1), y + 1 = t. A level
 * line is y = 4 in every form.
 */
export function pointSlopeEquation({ at, value, slope }: LineTexts, letter: string): string {
  if (isZeroText(slope)) return `y = ${value}`
  const left = isZeroText(value) ? 'y' : `y ${opposite(value)}`
  if (isZeroText(at)) return `${left} = ${termOf(slope, letter)}`
  const run = `${letter} ${opposite(at)}`
  const [sign, size] = signed(slope)
  if (isOneText(size)) return `${left} = ${sign ? `−(${run})` : run}`
  return `${left} = ${sign}${spaced(size)}(${run})`
}

/** A straight line with its letters on one side, the first with a plus: 3.191t + y = 15.758. */
export function standardEquation({ slope, intercept }: LineTexts, letter: string): string {
  if (isZeroText(slope)) return `y = ${intercept}`
  const [sign, size] = signed(slope)
  const term = termOf(size, letter)
  if (sign) return `${term} + y = ${intercept}`
  return `${term} − y = ${isZeroText(intercept) ? intercept : turned(intercept)}`
}

/** −3.191t, t, 2.4·10⁻⁸ t */
function termOf(slope: string, letter: string): string {
  const [sign, size] = signed(slope)
  return `${sign}${isOneText(size) ? '' : spaced(size)}${letter}`
}

const signed = (text: string): ['' | '−', string] =>
  text.startsWith('−') ? ['−', text.slice(1)] : ['', text]
/** A power of ten keeps apart from what it multiplies. */
const spaced = (size: string) => (/[⁰¹²³⁴⁵⁶⁷⁸⁹E]/.test(size) ? `${size} ` : size)
const turned = (text: string) => (text.startsWith('−') ? text.slice(1) : `−${text}`)
/** "− 2.5" for 2.5 and "+ 2.5" for −2.5. */
const opposite = (text: string) => (text.startsWith('−') ? `+ ${text.slice(1)}` : `− ${text}`)
const added = (text: string) => (text.startsWith('−') ? `− ${text.slice(1)}` : `+ ${text}`)
const isZeroText = (text: string) => !/[1-9∞]/.test(text)
const isOneText = (text: string) => /^1(\.0*)?$/.test(text)

/** More decimals than these are no decimals that anyone has typed. */
const mostDecimals = 12

/** A number as a fraction of whole numbers, where it is a decimal; null where it is none. */
function asDecimal(value: number): { whole: number; scale: number } | null {
  for (let k = 0, scale = 1; k <= mostDecimals; k++, scale *= 10) {
    const whole = Math.round(value * scale)
    if (whole / scale === value) return { whole, scale }
  }
  return null
}

/**
 * The places at the shares (i + position)/count of a span, each the double nearest to the exact one:
 * ends and position are taken as the decimals they were typed as, and whole numbers are divided once.
 * So the middle of [−1, 1] is 0 and a third of [0, 0.6] is 0.2. Where the ends are no short decimals,
 * or the numbers grow beyond what doubles hold exactly, the places are right to a few units in the
 * last place; the ends are always met.
 */
export function evenPlaces(
  from: number,
  to: number,
  count: number,
  position = 0,
): (i: number) => number {
  const [a, b, p] = [asDecimal(from), asDecimal(to), asDecimal(position)]
  const rough = (i: number) => {
    const share = (i + position) / count
    return share === 0 ? from : share === 1 ? to : from + (to - from) * share
  }
  if (!a || !b || !p) return rough
  const scale = Math.max(a.scale, b.scale)
  const [low, high] = [a.whole * (scale / a.scale), b.whole * (scale / b.scale)]
  const below = scale * count * p.scale
  const largest = (Math.abs(low) + Math.abs(high - low)) * (count + 1) * p.scale
  if (largest > Number.MAX_SAFE_INTEGER || below > Number.MAX_SAFE_INTEGER) return rough
  const start = low * count * p.scale
  return (i) => (start + (high - low) * (i * p.scale + p.whole)) / below
}

import type { Feature } from '../../features/examination'
import { formatCertain } from '../../vocabulary/numbers'
import type { SpanFacts } from '../shared/spanFacts'

/** A place and its value with the digits that are certain; those that are not carry ≈. */
export function certainly(
  { f }: SpanFacts,
  { enclosure, value, proven }: Feature,
  decimals: number,
) {
  const place = formatCertain(enclosure, decimals)
  const height = Number.isFinite(value)
    ? formatCertain(heights(f, enclosure, value), decimals)
    : null
  const mark = (text: string, certain: boolean) => (certain && proven ? '' : '≈ ') + text
  return {
    x: mark(place.text, place.certain),
    value: height ? mark(height.text, height.certain) : '—',
  }
}

function heights(
  f: SpanFacts['f'],
  [lo, hi]: readonly [number, number],
  value: number,
): [number, number] {
  const [least, greatest] = f.enclose(lo, hi)
  // Across a break the enclosure holds both sides; the value itself is what is shown then.
  return Number.isFinite(least) && Number.isFinite(greatest) && greatest - least < 1e-6
    ? [least, greatest]
    : [value, value]
}

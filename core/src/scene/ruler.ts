import type { Evaluation } from '../results/evaluation'
import { freeSlider, readNumber } from '../vocabulary/values'
import { fanOut } from './flags'
import { toPixelX } from './frame'
import type { Keeper } from './keeper'
import type { Bar, Flag } from './picture'
import { round } from './sampleCurve'

/** The flags of places and the bars of spans, where they stand on the ruler. */
export function placeOnRuler(
  { study, places, spans }: Evaluation,
  x: readonly [number, number],
  width: number,
  { keep }: Keeper,
): { flags: Flag[]; bars: Bar[] } {
  const sliderNames = study.sliders.map((s) => `${s.name}${s.place}`).join()
  const flags = keep('flags', [places, x, width, sliderNames], () => {
    const placed = places.map(({ text, value }): Flag => {
      // Which slider a place hangs on does not change with the value of the slider.
      const slider = keep(`flag.${text}`, [sliderNames], () => {
        const read = readNumber(text, study.sliders)
        return read.ok ? (freeSlider(read.tree, study.sliders)?.name ?? null) : null
      })
      return {
        text,
        value,
        at: round(toPixelX({ x, width }, value)),
        shift: 0,
        slider,
        fixed: slider === null && /^[\s\d.+\-−E]+$/.test(text),
      }
    })
    const shifts = fanOut(placed)
    return placed.map((flag, i) => (shifts[i] === 0 ? flag : { ...flag, shift: round(shifts[i]!) }))
  })
  const bars = keep('bars', [spans, x, width], () =>
    inRows(
      spans.map(({ text, from, to }) => ({
        span: text,
        from: { value: from, at: round(toPixelX({ x, width }, from)) },
        to: { value: to, at: round(toPixelX({ x, width }, to)) },
      })),
    ),
  )
  return { flags, bars }
}

const mostBarRows = 2

/** Puts each bar into the first row where it stands free, or the last one. */
function inRows(bars: Omit<Bar, 'row'>[]): Bar[] {
  const ends: number[] = []
  return bars.map((bar) => {
    const free = ends.findIndex((end) => bar.from.at > end + 8)
    const row = free >= 0 ? free : Math.min(ends.length, mostBarRows - 1)
    ends[row] = Math.max(ends[row] ?? -Infinity, bar.to.at)
    return { ...bar, row }
  })
}

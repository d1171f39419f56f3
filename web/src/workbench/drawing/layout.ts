import type { Lane } from '@yperkine/core'

export const headWidth = 84

const coarse = typeof matchMedia === 'function' && matchMedia('(pointer: coarse)').matches
/** Below the ticks and flags spans have rows of their own. */
export const barsTop = coarse ? 46 : 30
export const barHeight = coarse ? 44 : 14

/** How much larger words are set on a wall than on a desk: the last row reads them. */
export const wallType = () =>
  Math.max(1, Math.min(2.4, window.innerHeight / 560, window.innerWidth / 760))

/**
 * Fingers need larger targets: the ruler carries flags, bars and fields. Without fields, as on a
 * wall, it needs room by the size of its numbers alone.
 */
export const rulerHeight = (barRows: number, fieldless?: number) =>
  (fieldless !== undefined ? Math.round(42 * fieldless) : coarse ? 96 : 54) +
  barRows * (barHeight + 2)

/** As many decimals as a pixel of the axis is worth. */
export const pixelDecimals = (x: readonly [number, number], width: number) =>
  Math.max(0, Math.min(12, Math.ceil(-Math.log10((x[1] - x[0]) / Math.max(1, width)))))

/** How much room a lane gets beside the others: what someone has set, or more for the first. */
export const shareOf = (lane: Lane, index: number, count: number) =>
  lane.share ?? (index === 0 && count > 1 ? 1.5 : 1)

/** Divides the room among lanes by their shares; whole pixels keep hairlines sharp. */
export function shareHeight(lanes: readonly Lane[], room: number): Record<string, number> {
  const shares = lanes.map((lane, i) => shareOf(lane, i, lanes.length))
  const all = shares.reduce((a, b) => a + b, 0)
  let used = 0
  return Object.fromEntries(
    lanes.map(({ id }, i) => {
      const last = i === lanes.length - 1
      const height = last ? room - used : Math.floor((room * shares[i]!) / all)
      used += height
      return [id, height]
    }),
  )
}

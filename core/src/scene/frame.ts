/** A rectangle of the plane shown on a rectangle of pixels. */
export interface Frame {
  x: readonly [number, number]
  y: readonly [number, number]
  width: number
  height: number
}

/** Below this share of its own place a stretch has too few doubles to be told apart on a screen. */
const narrowest = 1e-12
/** Between these widths pixels per unit, and units per pixel, are numbers with room to spare. */
const [thinnest, widest] = [1e-300, 1e300]

/** Whether a stretch of an axis can be laid out on a screen. */
export function canBeDrawn([from, to]: readonly [number, number]): boolean {
  const width = to - from
  const place = Math.max(Math.abs(from), Math.abs(to))
  return width >= Math.max(thinnest, narrowest * place) && width <= widest
}

/** The nearest heights that can be drawn: those given, held within what numbers can hold, or wider. */
export function drawableHeights(low: number, high: number): [number, number] {
  const held = (y: number) => Math.max(-widest / 4, Math.min(widest / 4, y))
  const [a, b] = [held(low), held(high)]
  if (canBeDrawn([a, b])) return [a, b]
  const room = Math.max(thinnest, 2 * narrowest * Math.max(Math.abs(a), Math.abs(b)))
  return [a - room, b + room]
}

/** Pixels further out than this are told as this far: a path must hold its numbers. */
const farthest = 1e9
const heldPixel = (pixel: number) => Math.max(-farthest, Math.min(farthest, pixel))

/** Where a place lies, in pixels from the left; beyond ±10⁹ it is held there, NaN stays NaN. */
export const toPixelX = (frame: Pick<Frame, 'x' | 'width'>, x: number) =>
  heldPixel(((x - frame.x[0]) / (frame.x[1] - frame.x[0])) * frame.width)
/** The same for heights, in pixels from the top. */
export const toPixelY = (frame: Pick<Frame, 'y' | 'height'>, y: number) =>
  heldPixel(((frame.y[1] - y) / (frame.y[1] - frame.y[0])) * frame.height)

import { roundStep } from '@yperkine/core'

/** Round values so far apart at least draw the pointer, when it is so near, in pixels. */
const [apart, near] = [44, 5]

/** The round value beside the pointer, or the value under it where none is near. */
export function snapped(value: number, perPixel: number): number {
  const step = roundStep(apart * perPixel)
  const round = Number((Math.round(value / step) * step).toPrecision(12)) + 0
  return Math.abs(value - round) <= near * perPixel ? round : value
}

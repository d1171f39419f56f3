import type { RealFunction } from '../../evaluate/compile'

export type EnvelopePoint = readonly [x: number, y: number]

const count = 600

const placesOver = (from: number, to: number) =>
  Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count)

/**
 * The envelope of the normals of f: the centres of curvature, (x − f′(1 + f′²)/f″, f + (1 + f′²)/f″) (any
 * text on differential geometry; from memory). A place where f″ is 0 has none: NaN breaks the path there.
 */
export const normalEnvelope = (f: RealFunction, from: number, to: number): EnvelopePoint[] =>
  placesOver(from, to).map((x): EnvelopePoint => {
    const [y = NaN, slope = NaN, bend = NaN] = f.derivatives(x, 2)
    const lift = (1 + slope * slope) / bend
    return Number.isFinite(lift) ? [x - slope * lift, y + lift] : [NaN, NaN]
  })

/**
 * The envelope of the secants of a fixed width: of the lines y = m(s)·x + b(s) it is where m′x + b′ = 0,
 * with m = (f(s + w) − f(s))/w and b = f(s) − m·s.
 */
export const chordEnvelope = (
  f: RealFunction,
  from: number,
  to: number,
  width: number,
): EnvelopePoint[] =>
  placesOver(from, to).map((s): EnvelopePoint => {
    const [y = NaN, slope = NaN] = f.derivatives(s, 1)
    const [end = NaN, endSlope = NaN] = f.derivatives(s + width, 1)
    const m = (end - y) / width
    const turn = (endSlope - slope) / width
    const x = -(slope - m - turn * s) / turn
    return Number.isFinite(x) ? [x, m * (x - s) + y] : [NaN, NaN]
  })

import type { RealFunction } from '../evaluate/compile'
import type { Break, BreakKind } from '../features/examination'
import { limit } from '../features/limits/limit'
import { type Frame, toPixelX, toPixelY } from './frame'
import type { Ink, Item } from './items'
import { round } from './sampleCurve'

/** Half the width of a spot, in pixels. */
const reach = 4.5
/** Two heights that differ by less than this share are one. */
const alike = 1e-9

/** Breaks at which a curve has something to tell by a spot: a value of its own or a limit without one. */
const telling: ReadonlySet<BreakKind> = new Set(['jump', 'hole', 'displaced', 'domain-end'])
/** Where the curve itself has a kink its rate jumps. */
const tellingOfRate: ReadonlySet<BreakKind> = new Set([...telling, 'kink'])

/** A height, and whether it is the value there. */
interface Spot {
  y: number
  filled: boolean
}

const isAlike = (a: number, b: number) =>
  Math.abs(a - b) <= alike * Math.max(1, Math.abs(a), Math.abs(b))

/** What a curve tends to on one side; NaN where it tends to no height, or that is not settled. */
function tends(f: RealFunction, x: number, side: -1 | 1): number {
  const own = f.beside(x, side, 0)[0]!
  if (Number.isFinite(own)) return own
  const found = limit(f, x, side)
  return found.kind === 'value' ? found.value : NaN
}

/** The heights that tell which value counts at a place: limits open, the value filled. */
function spotsAt(f: RealFunction, x: number): Spot[] {
  const value = f.value(x)
  const sides = [tends(f, x, -1), tends(f, x, 1)]
  const limits = sides.filter(
    (y, i) => Number.isFinite(y) && !sides.slice(0, i).some((z) => isAlike(y, z)),
  )
  const counts = Number.isFinite(value)
  // Where the only limit is the value nothing is to be told.
  if (counts && limits.length === 1 && isAlike(limits[0]!, value)) return []
  const spots = limits.map((y): Spot => ({ y, filled: counts && isAlike(y, value) }))
  const isApart = counts && !spots.some(({ filled }) => filled)
  return isApart ? [...spots, { y: value, filled: true }] : spots
}

/** More breaks than this are a pattern, whose spots would hide it. */
const mostBreaks = 40

/** Where a curve breaks, the heights to be marked there, whatever frame is shown. */
export interface BreakHeights {
  x: number
  spots: readonly Spot[]
}

/**
 * The heights at the breaks of a curve: those it only tends to, and the value that counts. `order` is
 * that of the derivative which f is; a kink of the curve is a jump of its rate.
 */
export function breakHeights(
  f: RealFunction,
  order: number,
  breaks: readonly Break[],
): BreakHeights[] {
  const kinds = order === 0 ? telling : tellingOfRate
  return breaks
    .filter(({ kind }) => kinds.has(kind))
    .slice(0, mostBreaks)
    .map(({ x }) => ({ x, spots: spotsAt(f, x) }))
}

/** The same as spots of a lane: open where the curve only tends to a height, else filled. */
export const breakItems = (
  heights: readonly BreakHeights[],
  frame: Frame,
  ink: Ink,
  dimmed: boolean,
  of = '',
): Item[] =>
  heights.flatMap(({ x, spots }) =>
    x < frame.x[0] || x > frame.x[1]
      ? []
      : spots.flatMap(({ y, filled }, i): Item[] => {
          const [across, down] = [round(toPixelX(frame, x)), round(toPixelY(frame, y))]
          if (down < -reach || down > frame.height + reach) return []
          return [
            {
              kind: 'path',
              key: `break.${of}${x}.${i}`,
              layer: 'ground',
              d: circle(across, down),
              ink,
              width: 2,
              fill: filled ? 'own' : 'page',
              ...(dimmed ? { dimmed: true } : {}),
            },
          ]
        }),
  )

const circle = (x: number, y: number) =>
  `M${round(x - reach)} ${y}a${reach} ${reach} 0 1 0 ${2 * reach} 0a${reach} ${reach} 0 1 0 ${-2 * reach} 0Z`

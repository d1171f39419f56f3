import type { DrawnFunction, Mark } from '../statements/contract'
import { equalHeights } from '../study/framing'
import type { Study } from '../study/schema'
import { fitFeatures, fitHeights } from './fit'

/** A function with the stretch it is drawn over. */
export interface Drawn {
  f: DrawnFunction
  from: number
  to: number
  /** Whether it goes on to both sides, as nobody has asked for a span. */
  isOpen: boolean
}

/** Heights that a mark must reach: a point a line leads to, and the foot of an area. */
export const reachedBy = (mark: Mark): number[] =>
  mark.kind === 'joint'
    ? [mark.toY]
    : mark.kind === 'strips' || (mark.kind === 'shade' && !mark.against)
      ? [0]
      : mark.kind === 'body' && mark.free
        ? [mark.y]
        : []

const heightsOn = ({ f, isOpen }: Drawn, from: number, to: number, isRound: boolean) =>
  isOpen ? fitFeatures(f, from, to, isRound) : fitHeights(f, from, to)

/** The heights of a curve in a frame, with what marks reach and what lies over it. */
export function fittedHeights(
  own: Drawn,
  over: readonly Drawn[],
  [x0, x1]: readonly [number, number],
  reached: readonly number[],
  isRound: boolean,
): [number, number] {
  const inside = ({ from, to }: Drawn) => [Math.max(x0, from), Math.min(x1, to)] as const
  const seen = inside(own)
  const [least, most] =
    seen[0] < seen[1] ? heightsOn(own, ...seen, isRound) : fitHeights(own.f, own.from, own.to)
  const air = (Math.max(most, ...reached) - Math.min(least, ...reached)) * 0.06
  const heights: [number, number] = [
    Math.min(least, ...reached.map((y) => y - air)),
    Math.max(most, ...reached.map((y) => y + air)),
  ]
  return over.reduce<[number, number]>((all, o) => {
    const [a, b] = inside(o)
    if (!(a < b)) return all
    const [low, high] = heightsOn(o, a, b, isRound)
    return [Math.min(all[0], low), Math.max(all[1], high)]
  }, heights)
}

/** Room for the band and a little air above it, in pixels. */
const footRoom = 24

/** The band at the foot of a derivative's lane does not stand on its curve. */
function withFoot(
  [low, high]: readonly [number, number],
  order: number,
  height: number,
): readonly [number, number] {
  const foot = order === 1 || order === 2 ? footRoom / Math.max(1, height) : 0
  return foot > 0 && foot < 0.4 ? [low - ((high - low) * foot) / (1 - foot), high] : [low, high]
}

/**
 * The heights a lane shows. What someone has set is shown at once; what follows the curve waits
 * for a gesture to end.
 */
export function shownHeights(
  lane: Study['lanes'][number],
  held: readonly [number, number] | undefined,
  fitted: readonly [number, number],
  x: readonly [number, number],
  { width, height }: { width: number; height: number },
): readonly [number, number] {
  const heights = lane.frame ?? held ?? withFoot(fitted, lane.order, height)
  return lane.equalScale ? equalHeights(heights, x, width, height) : heights
}

import type { CurveRef } from '../../statements/shared/slots'
import type { Lane } from '../../vocabulary/members'

export const isSame = (a: CurveRef, b: CurveRef) => a.curve === b.curve && a.order === b.order

/** What a lane draws: its own curve, and those laid over it. */
export const drawnIn = ({ curve, order, overlays }: Lane): CurveRef[] => [
  { curve, order },
  ...overlays,
]

/** A lane without one of its curves; null where nothing is left of it. The next one takes its place. */
export function without(lane: Lane, gone: (drawn: CurveRef) => boolean): Lane | null {
  const [own, ...overlays] = drawnIn(lane).filter((drawn) => !gone(drawn))
  if (!own) return null
  // What someone has set for a curve's heights is no more than a guess for another.
  return isSame(own, lane) ? { ...lane, overlays } : { ...lane, ...own, overlays, frame: null }
}

/** Lanes without a curve, wherever it is drawn. */
export const lanesWithout = (lanes: readonly Lane[], curve: string): Lane[] =>
  lanes.flatMap((lane) => without(lane, (drawn) => drawn.curve === curve) ?? [])

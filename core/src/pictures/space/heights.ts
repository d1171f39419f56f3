import type { Evaluation } from '../../results/evaluation'
import { hasSpace } from '../../scene/space/spaceScene'

/** Of lanes and surfaces on one picture the surfaces take this share of the height. */
const spaceShare = 0.55
/** The view of the surfaces among the parts of a picture that can be chosen, beside the ids of lanes. */
export const spaceId = 'space'

/** How high the view of the surfaces is on a picture of a height, and how much it leaves to the lanes. */
export function heightsIn(
  evaluation: Evaluation,
  whole: number,
): { space?: number; lanes: number } {
  if (!hasSpace(evaluation)) return { lanes: whole }
  if (evaluation.study.lanes.length === 0) return { space: whole, lanes: 0 }
  const space = Math.round(whole * spaceShare)
  return { space, lanes: whole - space }
}

import type { Evaluation } from '../results/evaluation'
import type { CurveResult } from '../statements/contract'
import { whatMatters, type Window } from '../features/whatMatters'
import { fitFrame } from '../study/framing'
import type { Edit } from '../study/edits/edit'
import type { Study } from '../study/schema'
import { fitFeatures, fitHeights, fitSpan } from './fit'

/** A frame and the heights of lanes by their ids; null where they follow the curves. */
interface Framing {
  frame: Window | null
  heights: ReadonlyMap<string, Window>
}

/** Below this share of the span what matters is a part of it. */
const clearlyLess = 0.6

/**
 * Fits what matters; where that is shown already, the whole: all of each span, and all heights of
 * curves that are drawn everywhere.
 */
export function fitOrWhole(evaluation: Evaluation): Edit {
  return (study) => {
    const matters = mattering(study, evaluation)
    return isShown(matters, study)
      ? framed(whole(study, evaluation))(study)
      : framed(matters)(study)
  }
}

const framed =
  ({ frame, heights }: Framing): Edit =>
  (study) => {
    const fitted = fitFrame(study)
    const lanes = fitted.lanes.map((lane) => ({ ...lane, frame: heights.get(lane.id) ?? null }))
    return { ...fitted, frame, lanes }
  }

function isShown({ frame, heights }: Framing, { frame: shown, lanes }: Study): boolean {
  const isSame = (a: Window | null | undefined, b: Window | null) =>
    a && b ? a[0] === b[0] && a[1] === b[1] : !a && !b
  return isSame(frame, shown) && lanes.every((lane) => isSame(heights.get(lane.id), lane.frame))
}

const curvesOf = ({ curves }: Evaluation): CurveResult[] =>
  [...curves.values()].flatMap((found) => (found.ok ? [found.curve] : []))

/** What matters of every curve; of one over a span, what of that lies in it. */
function mattering(study: Study, evaluation: Evaluation): Framing {
  const curves = curvesOf(evaluation)
  const parts = curves.map((curve) => curve.window ?? partThatMatters(curve))
  const followed: Framing = { frame: null, heights: new Map() }
  if (parts.every((part, i) => part === null || curves[i]!.window)) return followed
  const shown = parts.map((part, i) => part ?? fitSpan(curves[i]!.from, curves[i]!.to))
  const frame: Window = [
    Math.min(...shown.map(([from]) => from)),
    Math.max(...shown.map(([, to]) => to)),
  ]
  return { frame, heights: heightsOf(study, evaluation, frame, fitFeatures) }
}

/** The part of a span on which there is something to see, where that is clearly less than all. */
function partThatMatters({ formula, f, from, to }: CurveResult): Window | null {
  if (!formula) return null
  const [low, high] = whatMatters(f)
  const part: Window = [Math.max(low, from), Math.min(high, to)]
  return part[0] < part[1] && part[1] - part[0] < clearlyLess * (to - from) ? part : null
}

/** Every span with all its heights. */
function whole(study: Study, evaluation: Evaluation): Framing {
  const open = curvesOf(evaluation).flatMap(({ window }) => (window ? [window] : []))
  if (open.length === 0) return { frame: null, heights: new Map() }
  const frame: Window = [Math.min(...open.map(([a]) => a)), Math.max(...open.map(([, b]) => b))]
  const heights = heightsOf(study, evaluation, frame, fitHeights)
  return { frame: null, heights }
}

function heightsOf(
  study: Study,
  { curves }: Evaluation,
  [x0, x1]: Window,
  fit: typeof fitHeights,
): Map<string, Window> {
  return new Map(
    study.lanes.flatMap((lane): [string, Window][] => {
      const all = [{ curve: lane.curve, order: lane.order }, ...lane.overlays]
      const heights = all.flatMap(({ curve: name, order }) => {
        const found = curves.get(name)
        if (!found?.ok) return []
        const { reach } = found.curve
        const [a, b] = [Math.max(x0, reach.from), Math.min(x1, reach.to)]
        return a < b ? [fit(found.curve.drawn(order), a, b)] : []
      })
      if (heights.length === 0) return []
      const low = Math.min(...heights.map(([least]) => least))
      const high = Math.max(...heights.map(([, most]) => most))
      return [[lane.id, [low, high]]]
    }),
  )
}

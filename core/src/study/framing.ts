import type { Edit } from './edits/edit'
import type { Lane } from '../vocabulary/members'

type Stretch = readonly [number, number]

/** A frame may not get so narrow that doubles run out, nor wider than any use. */
const mostZoom = 1e-12
const widest = 1e12

const isUsable = ([from, to]: Stretch) =>
  Number.isFinite(from) &&
  Number.isFinite(to) &&
  to - from > mostZoom * Math.max(Math.abs(from), Math.abs(to), 1e-3) &&
  to - from < widest

/** A stretch made narrower (factor below 1) or wider around a point that stays where it is. */
export const zoomed = ([from, to]: Stretch, around: number, factor: number): [number, number] => [
  around + (from - around) * factor,
  around + (to - around) * factor,
]

export const panned = ([from, to]: Stretch, by: number): [number, number] => [from + by, to + by]

/** Sets the visible stretch of the axis; one that cannot be shown changes nothing. */
export const setFrame =
  (frame: Stretch): Edit =>
  (study) =>
    isUsable(frame) ? { ...study, frame: [frame[0], frame[1]] } : study

/** Sets the heights a lane shows; null lets them follow the curve again. */
export const setLaneFrame =
  (id: string, frame: Stretch | null): Edit =>
  (study) => {
    if (frame && !isUsable(frame)) return study
    return changeLane(id, { frame: frame && [frame[0], frame[1]] })(study)
  }

export const changeLane =
  (
    id: string,
    change: Partial<Pick<Lane, 'frame' | 'equalScale' | 'share' | 'covered' | 'asks' | 'inset'>>,
  ): Edit =>
  (study) => ({
    ...study,
    lanes: study.lanes.map((lane) => (lane.id === id ? { ...lane, ...change } : lane)),
  })

/** Everything on the span in view: the axis follows the curves again, and so does each lane. */
export const fitFrame: Edit = (study) => ({
  ...study,
  frame: null,
  lanes: study.lanes.map((lane) => ({ ...lane, frame: null })),
})

/** Shows a stretch of the axis, with every lane following its curve there. */
export const goTo =
  (frame: Stretch): Edit =>
  (study) => ({
    ...setFrame(frame)(study),
    lanes: study.lanes.map((lane) => ({ ...lane, frame: null })),
  })

/** Lets the axis show the curve's span where it misses it, and its lane follow the curve. */
export const bringIntoFrame =
  (id: string, span: Stretch): Edit =>
  (study) => {
    const { frame } = study
    const misses = frame !== null && (frame[1] < span[0] || frame[0] > span[1])
    return changeLane(id, { frame: null })(misses ? { ...study, frame: null } : study)
  }

/** The heights for which a unit is as long upwards as across, around the middle of those given. */
export function equalHeights(heights: Stretch, x: Stretch, width: number, height: number): Stretch {
  const tall = ((x[1] - x[0]) / width) * height
  const middle = (heights[0] + heights[1]) / 2
  return [middle - tall / 2, middle + tall / 2]
}

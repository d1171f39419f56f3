import { keepAnswered } from '../answers'
import type { Lane } from '../../vocabulary/members'
import type { Edit } from './edit'
import { freshId } from './lines'
import { curveMakers } from './names'

/** A lane that follows its curve and has its usual height. */
export const newLane = (id: string, curve: string, order: number): Lane => ({
  kind: 'lane',
  id,
  curve,
  order,
  overlays: [],
  covered: false,
  frame: null,
  equalScale: false,
  share: null,
})

/** Opens or closes the lane of a derivative; lanes of one curve stay in the order of derivatives. */
export const toggleLane =
  (curve: string, order: number): Edit =>
  (study) => {
    const open = study.lanes.find((l) => l.curve === curve && l.order === order)
    if (open) {
      // The last lane stays: an empty workbench shows nothing that could be opened again.
      return study.lanes.length === 1
        ? study
        : keepAnswered({ ...study, lanes: study.lanes.filter((l) => l !== open) })
    }
    const lane = newLane(freshId(study, 'lane'), curve, order)
    const names = curveMakers(study).map((l) => l.name)
    const lanes = [...study.lanes, lane].sort(
      (a, b) => names.indexOf(a.curve) - names.indexOf(b.curve) || a.order - b.order,
    )
    return { ...study, lanes }
  }

/** Draws a curve or a derivative in another lane as well, or takes it out again. */
export const toggleOverlay =
  (laneId: string, curve: string, order: number): Edit =>
  (study) => ({
    ...study,
    lanes: study.lanes.map((lane) => {
      if (lane.id !== laneId || (lane.curve === curve && lane.order === order)) return lane
      const others = lane.overlays.filter((o) => o.curve !== curve || o.order !== order)
      const overlays =
        others.length < lane.overlays.length ? others : [...lane.overlays, { curve, order }]
      return { ...lane, overlays: overlays.slice(-10) }
    }),
  })

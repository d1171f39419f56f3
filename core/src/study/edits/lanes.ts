import { kindOf } from '../../statements'
import type { CurveRef } from '../../statements/shared/slots'
import { keepAnswered } from '../answers'
import type { Study } from '../schema'
import type { Lane } from '../../vocabulary/members'
import type { Edit } from './edit'
import { drawnIn, isSame, without } from './laneCurves'
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

/** The lane on whose axes a curve belongs: that of another one of the same order and unit. */
function laneToJoin(study: Study, { curve, order }: CurveRef): Lane | undefined {
  const lineOf = (name: string) => curveMakers(study).find((l) => l.name === name)
  const unitOf = (name: string) => {
    const line = lineOf(name)
    return line && kindOf(line).curve?.joins && 'unit' in line ? line.unit : undefined
  }
  const unit = order < 0 ? undefined : unitOf(curve)
  if (unit === undefined) return undefined
  return study.lanes.find(
    (lane) => !lane.covered && lane.order === order && unitOf(lane.curve) === unit,
  )
}

/** Draws a curve or a derivative: on the axes of others like it, or in a lane of its own. */
export const openLane =
  (curve: string, order: number): Edit =>
  (study) => {
    const lane = laneToJoin(study, { curve, order })
    return lane ? toggleOverlay(lane.id, curve, order)(study) : withOwnLane(curve, order)(study)
  }

function withOwnLane(curve: string, order: number): Edit {
  return (study) => {
    const lane = newLane(freshId(study, 'lane'), curve, order)
    const names = curveMakers(study).map((l) => l.name)
    const lanes = [...study.lanes, lane].sort(
      (a, b) => names.indexOf(a.curve) - names.indexOf(b.curve) || a.order - b.order,
    )
    return { ...study, lanes }
  }
}

/** Draws a curve or a derivative on the axes of a lane, and no longer where it was laid over another. */
export const drawHere =
  (laneId: string, curve: string, order: number): Edit =>
  (study) => {
    const lane = study.lanes.find((l) => l.id === laneId)
    if (!lane || drawnIn(lane).some((drawn) => isSame(drawn, { curve, order }))) return study
    const lanes = study.lanes.map((l) => ({
      ...l,
      overlays: l.overlays.filter((o) => !isSame(o, { curve, order })),
    }))
    return toggleOverlay(laneId, curve, order)({ ...study, lanes })
  }

/** Gives a curve or a derivative a lane of its own, and takes it off the axes of others. */
export const ownLane =
  (curve: string, order: number): Edit =>
  (study) => {
    const wanted = { curve, order }
    if (study.lanes.some((lane) => isSame(lane, wanted) && lane.overlays.length === 0)) return study
    const lanes = study.lanes.flatMap(
      (lane) => without(lane, (drawn) => isSame(drawn, wanted)) ?? [],
    )
    return keepAnswered(withOwnLane(curve, order)({ ...study, lanes }))
  }

/**
 * Shows a curve or a derivative, or takes it out of every lane; lanes of one curve stay in the order
 * of derivatives.
 */
export const toggleLane =
  (curve: string, order: number): Edit =>
  (study) => {
    const wanted = { curve, order }
    if (!study.lanes.some((lane) => drawnIn(lane).some((drawn) => isSame(drawn, wanted)))) {
      return openLane(curve, order)(study)
    }
    const lanes = study.lanes.flatMap(
      (lane) => without(lane, (drawn) => isSame(drawn, wanted)) ?? [],
    )
    // The last lane stays: an empty workbench shows nothing that could be opened again.
    return lanes.length === 0 ? study : keepAnswered({ ...study, lanes })
  }

/** By lane, the curves whose ladder it carries: each stands where its curve is drawn first. */
export function laddersOf(study: Study): ReadonlyMap<string, readonly string[]> {
  const ladders = new Map<string, string[]>()
  for (const { name } of curveMakers(study)) {
    const home =
      study.lanes.find((lane) => lane.curve === name) ??
      study.lanes.find((lane) => lane.overlays.some((o) => o.curve === name)) ??
      study.lanes[0]
    if (home) ladders.set(home.id, [...(ladders.get(home.id) ?? []), name])
  }
  return ladders
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

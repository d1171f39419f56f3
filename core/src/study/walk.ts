import { readNumber } from '../vocabulary/values'
import type { Edit } from './edits/edit'
import { changeSlider } from './edits/sliders'
import { setFrame } from './framing'
import type { Study } from './schema'

/** A slider that is led through ever smaller distances from a place, while a line tells of it. */
export interface Walk {
  /** The line whose walk it is. */
  line: string
  slider: string
  /** The place the distances are measured from, as typed. */
  from: string
  distances: readonly number[]
  /** The frame closes in as well. */
  framed: boolean
}

/** Where a walk has come to, and how long it still rests there, in seconds. */
export interface WalkCourse {
  walk: Walk
  at: number
  resting: number
}

const restSeconds = 0.9
/** A frame so many distances wide shows both ends. */
const frameWidths = 6

/** A walk at its first distance; null for one without any, or whose slider is not there. */
export const startWalk = (walk: Walk, { sliders }: Study): WalkCourse | null =>
  walk.distances.length > 0 && sliders.some((s) => s.name === walk.slider)
    ? { walk, at: 0, resting: restSeconds }
    : null

/** The walk after some seconds more: it takes one distance at a time. Null when it has ended. */
export function advanceWalk(course: WalkCourse, seconds: number): WalkCourse | null {
  const resting = course.resting - seconds
  if (resting > 0) return { ...course, resting }
  const at = course.at + 1
  return at < course.walk.distances.length ? { ...course, at, resting: restSeconds } : null
}

/** Puts the slider, and for a framed walk the frame, where the walk has come to. */
export const takeWalk =
  ({ walk, at }: WalkCourse): Edit =>
  (study) => {
    const distance = walk.distances[at]!
    const slider = study.sliders.find((s) => s.name === walk.slider)
    if (!slider) return study
    const moved = changeSlider(walk.slider, {
      value: distance,
      from: Math.min(slider.from, distance),
      to: Math.max(slider.to, distance),
    })(study)
    const place = readNumber(walk.from, study.sliders)
    if (!walk.framed || !place.ok) return moved
    const half = Math.max(frameWidths * distance, 1e-9 * Math.max(1, Math.abs(place.value)))
    return setFrame([place.value - half / 2, place.value + half])(moved)
  }

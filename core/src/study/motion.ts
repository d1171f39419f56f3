import { addSlider, placeSlider } from './edits/sliders'
import type { Edit } from './edits/edit'
import { freshName } from './edits/names'
import { renamePlace } from './edits/lines'
import { type Slider, usualMotion } from '../vocabulary/members'
import type { Study } from './schema'
import { readNumber, shareOfSlider, sliderValueAt, snapToStep } from '../vocabulary/values'

/** Where a moving slider is: between its bounds as a share, and which way it goes. */
export interface Course {
  share: number
  direction: 1 | -1
  /** A course that runs once has come to its end. */
  ended: boolean
  /** Seconds it still rests at a place worth a look. */
  resting: number
}

/** A course that begins where the slider stands; at its far end a run begins anew. */
export function startCourse(slider: Slider): Course {
  const { value, motion } = slider
  const share = shareOfSlider(slider, value)
  const atEnd = share >= 1 && motion.manner !== 'there and back'
  return { share: atEnd ? 0 : share, direction: share >= 1 ? -1 : 1, ended: false, resting: 0 }
}

/** The course after some seconds more. Any length of time is taken, also several passes at once. */
export function advance(course: Course, { motion }: Slider, seconds: number): Course {
  if (course.ended) return course
  if (course.resting > 0) return { ...course, resting: Math.max(0, course.resting - seconds) }
  const way = seconds / passSeconds(motion)
  switch (motion.manner) {
    case 'once':
    case 'in equal steps': {
      const share = course.share + way
      return share >= 1 ? { share: 1, direction: 1, ended: true, resting: 0 } : { ...course, share }
    }
    case 'round again':
      return { ...course, share: (course.share + way) % 1 }
    case 'there and back': {
      // Unfolded, there and back is a straight way of length 2 that begins again.
      const unfolded = course.direction === 1 ? course.share : 2 - course.share
      const next = (unfolded + way) % 2
      return next <= 1
        ? { share: next, direction: 1, ended: false, resting: 0 }
        : { share: 2 - next, direction: -1, ended: false, resting: 0 }
    }
  }
}

/** How long one pass takes: a sweep rests after each of its steps. */
const passSeconds = ({ manner, pace, stops, rest }: Slider['motion']) =>
  manner === 'in equal steps' ? stops * rest : pace

/**
 * The value a slider shows on its course: the nearest one on its grid of steps, or in a sweep the
 * last of its equal steps.
 */
export function valueOn(course: Course, slider: Slider): number {
  const { manner, stops } = slider.motion
  const width = slider.to - slider.from
  if (manner !== 'in equal steps') return snapToStep(slider, sliderValueAt(slider, course.share))
  const step = Math.floor(course.share * stops + 1e-9)
  return step >= stops ? slider.to : Number((slider.from + (step * width) / stops).toPrecision(12))
}

/** How long a course rests at a place worth a look, in seconds. */
const lookSeconds = 1.2

/**
 * The course stopped at the first of some places it has passed since, to rest there; the course
 * itself where it has passed none, or where its slider does not pause.
 */
export function restAt(
  before: Course,
  after: Course,
  slider: Slider,
  places: readonly number[],
): Course {
  if (!slider.motion.pauses || before.resting > 0 || after.ended) return after
  const forward = after.share > before.share
  const shares = places.map((x) => shareOfSlider(slider, x)).filter((s) => s >= 0 && s <= 1)
  const passed = shares.filter((s) =>
    forward ? s > before.share && s <= after.share : s < before.share && s >= after.share,
  )
  // A turn at the end, or a new round, is no way past what lies between.
  if (passed.length === 0 || after.direction !== before.direction) return after
  const first = forward ? Math.min(...passed) : Math.max(...passed)
  return { ...after, share: first, resting: lookSeconds }
}

/** The sliders that the transport moves: those chosen, or else the first. */
export function movingSliders(study: Study): Slider[] {
  const chosen = study.sliders.filter((s) => s.motion.moves)
  return chosen.length > 0 ? chosen : study.sliders.slice(0, 1)
}

/** Lets one slider go over its whole way in equal steps, and nothing else move. */
export const sweepSlider =
  (name: string, stops: number, rest: number): Edit =>
  (study) => ({
    ...study,
    sliders: study.sliders.map((s) => ({
      ...s,
      ...(s.name === name ? { value: s.from } : {}),
      motion:
        s.name === name
          ? { ...s.motion, moves: true, manner: 'in equal steps' as const, stops, rest }
          : { ...s.motion, moves: false },
    })),
  })

/** Lets the transport move a slider or not; what it has moved so far goes on moving. */
export const chooseMoving =
  (name: string, moves: boolean): Edit =>
  (study) => {
    const moving = new Set(movingSliders(study).map((s) => s.name))
    if (moves) moving.add(name)
    else moving.delete(name)
    return {
      ...study,
      sliders: study.sliders.map((s) => ({
        ...s,
        motion: { ...s.motion, moves: moving.has(s.name) },
      })),
    }
  }

/**
 * Gives a typed place, such as 2, a slider of its own that begins there, so that it can move; every
 * line that hung on the number hangs on the slider. A text that is no number changes nothing.
 */
export const letPlaceMove =
  (place: string): Edit =>
  (study) => {
    const read = readNumber(place, study.sliders)
    if (!read.ok) return study
    const { value } = read
    const slider = placeSlider(study, freshName(study, 'a'))
    const placed = {
      ...slider,
      value,
      from: Math.min(slider.from, value),
      to: Math.max(slider.to, value),
      motion: { ...usualMotion, moves: true },
    }
    return renamePlace(place, placed.name)(addSlider(placed)(study))
  }

/** "a moves there and back · 8 s a pass", for each slider that moves. */
export function motionSentence(study: Study): string {
  return movingSliders(study)
    .map(({ name, motion }) => {
      const manner =
        motion.manner === 'once'
          ? 'goes once'
          : motion.manner === 'round again'
            ? 'goes round again'
            : 'moves there and back'
      if (motion.manner === 'in equal steps') {
        return `${name} goes in ${motion.stops} equal steps · ${motion.rest} s at each`
      }
      return `${name} ${manner} · ${motion.pace} s a pass`
    })
    .join(', ')
}

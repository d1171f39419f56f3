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
  /** How far it has gone since it began, in passes. */
  passes: number
}

/** A course that begins where the slider stands; at its far end a run begins anew. */
export function startCourse(slider: Slider): Course {
  const { value, motion } = slider
  const share = shareOfSlider(slider, value)
  const atEnd = share >= 1 && motion.manner !== 'there and back'
  const direction = share >= 1 && !atEnd ? -1 : 1
  return { share: atEnd ? 0 : share, direction, ended: false, resting: 0, passes: 0 }
}

/**
 * The course after some seconds more. Any length of time is taken, also several passes at once. Where
 * others wait for it, a course that would go on for ever ends after one round.
 */
export function advance(
  course: Course,
  { motion }: Slider,
  seconds: number,
  awaited = false,
): Course {
  if (course.ended) return course
  if (course.resting > 0) return { ...course, resting: Math.max(0, course.resting - seconds) }
  const round = motion.manner === 'there and back' ? 2 : 1
  const most = awaited ? Math.max(0, round - course.passes) : Infinity
  const way = Math.min(most, wayIn(course.passes, motion, seconds))
  const passes = course.passes + way
  const ended = awaited && way === most
  switch (motion.manner) {
    case 'once':
    case 'in equal steps': {
      const share = course.share + way
      return share >= 1 - 1e-12
        ? { share: 1, direction: 1, ended: true, resting: 0, passes }
        : { ...course, share, passes }
    }
    case 'round again': {
      const share = course.share + way
      // One round that began at the beginning ends at the end.
      const isWhole = ended && share === 1
      return { ...course, share: isWhole ? 1 : share % 1, passes, ended }
    }
    case 'there and back': {
      // Unfolded, there and back is a straight way of length 2 that begins again.
      const unfolded = course.direction === 1 ? course.share : 2 - course.share
      const next = (unfolded + way) % 2
      return next <= 1
        ? { share: next, direction: 1, ended, resting: 0, passes }
        : { share: 2 - next, direction: -1, ended, resting: 0, passes }
    }
  }
}

/** How many passes are made in some seconds; the first may be slower. */
function wayIn(passes: number, motion: Slider['motion'], seconds: number): number {
  const usual = passSeconds(motion)
  const { firstPass } = motion
  if (firstPass === undefined || passes >= 1) return seconds / usual
  const left = (1 - passes) * firstPass
  return seconds <= left ? seconds / firstPass : 1 - passes + (seconds - left) / usual
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

const turnOf = ({ motion }: Slider) => motion.turn ?? 1

/**
 * The courses some seconds later: those of the first turn that has not ended go on, the others wait.
 * The result has the same names.
 */
export function advanceAll(
  courses: ReadonlyMap<string, Course>,
  sliders: readonly Slider[],
  seconds: number,
): Map<string, Course> {
  const under = sliders.filter((s) => courses.has(s.name))
  const open = under.filter((s) => !courses.get(s.name)!.ended)
  const turn = Math.min(...open.map(turnOf))
  const last = Math.max(...under.map(turnOf))
  return new Map(
    under.map((slider) => {
      const course = courses.get(slider.name)!
      const own = turnOf(slider)
      return [slider.name, own === turn ? advance(course, slider, seconds, own < last) : course]
    }),
  )
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

/** "first a moves there and back · 8 s a pass, then n goes once · 4 s a pass", for all that moves. */
export function motionSentence(study: Study): string {
  const moving = movingSliders(study)
  const turns = [...new Set(moving.map(turnOf))].sort((a, b) => a - b)
  const said = turns.map((turn) =>
    moving
      .filter((s) => turnOf(s) === turn)
      .map(saidOf)
      .join(', '),
  )
  return said.length > 1 ? `first ${said.join(', then ')}` : (said[0] ?? '')
}

function saidOf({ name, motion }: Slider): string {
  const { manner, stops, rest, pace, firstPass, stop } = motion
  const until = stop === undefined ? '' : ` · until ${stop}`
  if (manner === 'in equal steps') {
    return `${name} goes in ${stops} equal steps · ${rest} s at each${until}`
  }
  const way = { once: 'goes once', 'round again': 'goes round again' } as const
  const goes = manner === 'there and back' ? 'moves there and back' : way[manner]
  const first = firstPass === undefined ? '' : `${firstPass} s the first pass, then `
  return `${name} ${goes} · ${first}${pace} s a pass${until}`
}

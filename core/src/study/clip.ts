import { shareOfSlider, sliderValueAt, snapToStep } from '../vocabulary/values'
import { shownStudy } from './overlay'
import type { Study } from './schema'

/** What moves in a clip, how long and how smoothly. */
export interface ClipOptions {
  /** A slider over its whole way, or the steps of the lesson one after the other. */
  moves: { slider: string } | 'steps'
  seconds: number
  /** Frames a second. */
  perSecond: number
  /** There and back, so that the end meets the beginning where it is shown again and again. */
  thereAndBack: boolean
}

/** More frames than these no clip has. */
export const mostFrames = 1500

/** The states of a study that a clip shows, by number from 0 on. */
export interface Clip {
  count: number
  at(frame: number): Study
}

/** Of the time of a step, and in seconds, this much is the way to it. */
const [glideShare, glideSeconds] = [0.5, 0.8]

/**
 * The frames of a clip, evenly in time: a slider goes from one end of its track to the other on its own
 * steps, or the steps of the lesson follow each other, each reached from the one before by gliding.
 * Throws RangeError for a slider or steps that the study does not have, and for a time that makes no
 * frames or more than `mostFrames`.
 */
export function clipOf(study: Study, options: ClipOptions): Clip {
  const { moves, seconds, perSecond, thereAndBack } = options
  const count = Math.round(seconds * perSecond)
  if (!(count >= 1 && count <= mostFrames)) {
    throw new RangeError(`a clip has 1 to ${mostFrames} frames, and not ${count}`)
  }
  if (moves === 'steps') return stepsClip(study, options, count)
  const slider = study.sliders.find(({ name }) => name === moves.slider)
  if (!slider) throw new RangeError(`this study has no slider ${moves.slider}`)
  return {
    count,
    at: (frame) => {
      const value = snapToStep(slider, sliderValueAt(slider, shareAt(frame, count, thereAndBack)))
      return shownStudy(study, { live: { [slider.name]: value } })
    },
  }
}

/** How far along the track a frame is; there and back the last frame comes before the first one again. */
function shareAt(frame: number, count: number, thereAndBack: boolean): number {
  if (thereAndBack) return 1 - Math.abs(1 - (2 * frame) / count)
  return count === 1 ? 0 : frame / (count - 1)
}

function stepsClip(study: Study, { seconds, thereAndBack }: ClipOptions, count: number): Clip {
  const forth = study.steps.map(({ id }) => id)
  if (forth.length === 0) throw new RangeError('this study has no steps')
  const order = thereAndBack ? [...forth, ...forth.slice(1, -1).reverse()] : forth
  const each = seconds / order.length
  const glide = Math.min(glideSeconds, each * glideShare) / each
  return {
    count,
    at: (frame) => {
      const along = (frame / count) * order.length
      const i = Math.min(order.length - 1, Math.floor(along))
      const step = order[i]!
      const before =
        i > 0 ? order[i - 1] : thereAndBack && order.length > 1 ? order.at(-1) : undefined
      const way = Math.min(1, (along - i) / glide)
      if (before === undefined || way >= 1) return shownStudy(study, { step })
      const [from, to] = [before, step].map((id) => shownStudy(study, { step: id }).sliders)
      const eased = way * way * (3 - 2 * way)
      const live = Object.fromEntries(
        to!.map((slider, k) => {
          const [a, b] = [from![k]!, slider].map((s) => shareOfSlider(slider, s.value))
          const value = sliderValueAt(slider, a! + (b! - a!) * eased)
          return [
            slider.name,
            slider.value === from![k]!.value ? slider.value : snapToStep(slider, value),
          ]
        }),
      )
      return shownStudy(study, { step, live })
    },
  }
}

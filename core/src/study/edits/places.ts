import { namesIn } from '../../formula/tree'
import { decimalsOfStep, numberToFormula } from '../../vocabulary/numbers'
import type { Slider } from '../../vocabulary/members'
import type { Study } from '../schema'
import { freeSlider, readNumber } from '../../vocabulary/values'
import type { Edit, Moved } from './edit'
import { changeSlider, setSlider } from './sliders'
import { renamePlace, solveFor } from './lines'

/**
 * Moves a place to a value on the axis. A slider moves by its steps; a typed number is replaced,
 * with the given decimals, in every line that hangs on it, and the new text comes back, so that a
 * pointer keeps holding it; in an expression the one free slider moves. Where nothing can move the
 * study stays itself.
 */
export const movePlace =
  (text: string, x: number, decimals: number) =>
  (study: Study): Moved<string> => {
    const stays = (moved: Study) => ({ study: moved, now: text })
    if (study.sliders.some((s) => s.name === text)) return stays(setSlider(text, x)(study))
    const read = readNumber(text, study.sliders)
    if (!read.ok) return stays(study)
    if (namesIn(read.tree).size === 0) {
      const now = numberToFormula(Number(x.toFixed(decimals)))
      return { study: renamePlace(text, now)(study), now }
    }
    const free = freeSlider(read.tree, study.sliders)
    return stays(free ? setSlider(free.name, solveFor(text, free, x, study))(study) : study)
  }

/**
 * Moves a place by steps of its slider (of 0.1 where it is a typed number), or to the end of its
 * bounds. Less than one step goes off the grid, so that a tenth of a step can be reached.
 */
export const nudgePlace =
  (text: string, steps: number | 'from' | 'to'): Edit =>
  (study) => {
    const slider = sliderOfPlace(text, study)
    if (slider) {
      if (typeof steps === 'string') return setSlider(slider.name, slider[steps])(study)
      const value = slider.value + steps * slider.step
      if (Math.abs(steps) >= 1) return setSlider(slider.name, value)(study)
      const digits = decimalsOfStep(slider.step) + 2
      const held = Math.min(slider.to, Math.max(slider.from, Number(value.toFixed(digits))))
      return changeSlider(slider.name, { value: held })(study)
    }
    const read = readNumber(text, study.sliders)
    if (!read.ok || typeof steps === 'string') return study
    return movePlace(text, read.value + steps * 0.1, 6)(study).study
  }

/** The slider that a place text moves, or null. */
export function sliderOfPlace(text: string, study: Study): Slider | null {
  const own = study.sliders.find((s) => s.name === text)
  if (own) return own
  const read = readNumber(text, study.sliders)
  return read.ok ? freeSlider(read.tree, study.sliders) : null
}

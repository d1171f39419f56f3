import { namesIn } from '../../formula/tree'
import { decimalsOfStep, numberToFormula } from '../../vocabulary/numbers'
import type { Slider } from '../../vocabulary/members'
import type { Study } from '../schema'
import { freeSlider, readNumber } from '../../vocabulary/values'
import type { Edit } from './edit'
import { changeSlider, setSlider } from './sliders'
import { renamePlace, solveFor } from './lines'

/**
 * Moves a place to a value on the axis. A slider moves by its steps; a typed number is replaced,
 * with the given decimals, in every line that hangs on it; in an expression the one free slider
 * moves. Returns the study itself where nothing can move.
 */
export const movePlace =
  (text: string, x: number, decimals: number): Edit =>
  (study) => {
    if (study.sliders.some((s) => s.name === text)) return setSlider(text, x)(study)
    const read = readNumber(text, study.sliders)
    if (!read.ok) return study
    if (namesIn(read.tree).size === 0) {
      return renamePlace(text, numberToFormula(Number(x.toFixed(decimals))))(study)
    }
    const free = freeSlider(read.tree, study.sliders)
    return free ? setSlider(free.name, solveFor(text, free, x, study))(study) : study
  }

/** The text of a place after a move, so that the pointer keeps holding it. */
export function movedPlaceText(text: string, x: number, decimals: number): string {
  return /^[\s\d.+\-−E]+$/.test(text) ? numberToFormula(Number(x.toFixed(decimals))) : text
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
    return movePlace(text, read.value + steps * 0.1, 6)(study)
  }

/** The slider that a place text moves, or null. */
export function sliderOfPlace(text: string, study: Study): Slider | null {
  const own = study.sliders.find((s) => s.name === text)
  if (own) return own
  const read = readNumber(text, study.sliders)
  return read.ok ? freeSlider(read.tree, study.sliders) : null
}

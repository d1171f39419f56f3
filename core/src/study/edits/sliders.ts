import { decimalsOfStep, formatTiny } from '../../vocabulary/numbers'
import { type Slider, usualMotion } from '../../vocabulary/members'
import type { Study } from '../schema'
import { readNumber, snapToStep } from '../../vocabulary/values'
import { curveLines, freshName, spelledFor } from './names'
import type { Edit } from './edit'
import { changeLine, forgetLastGood } from './lines'

/** A slider that is a place: in the middle of the first curve's span, step 0.1. */
export function placeSlider(study: Study, name: string, at?: number): Slider {
  const span = curveLines(study)[0]?.span ?? { from: '-10', to: '10' }
  const [from, to] = [readNumber(span.from, study.sliders), readNumber(span.to, study.sliders)]
  const low = from.ok ? from.value : -10
  const high = to.ok && to.value > low ? to.value : low + 20
  // A step of 0.1 is too coarse on a span shorter than 1.
  const step = Math.min(0.1, 10 ** Math.floor(Math.log10((high - low) / 10)))
  const value = (low + high) / 2
  const slider: Slider = {
    name,
    value,
    from: low,
    to: high,
    step,
    place: true,
    scale: 'even',
    motion: usualMotion,
  }
  return { ...slider, value: snapToStep(slider, at ?? slider.value) }
}

export const addSlider =
  (slider: Slider): Edit =>
  (study) => ({
    ...spelledFor(slider.name, study),
    sliders: [...study.sliders, slider],
  })

/** A slider that is no place: 1, between -10 and 10. */
export const plainSlider = (name: string): Slider => ({
  name,
  value: 1,
  from: -10,
  to: 10,
  step: 0.1,
  place: false,
  scale: 'even',
  motion: usualMotion,
})

/**
 * Leads a member of a line by a slider over whole numbers: by the one that stands there already, with these
 * bounds, or by a new one called by a letter that is free.
 */
export const ledBySlider =
  (id: string, field: string, letter: string, bounds: Pick<Slider, 'from' | 'to' | 'step'>): Edit =>
  (study) => {
    const line = study.lines.find((l) => l.id === id) as Record<string, unknown> | undefined
    const held = study.sliders.find((s) => s.name === line?.[field])
    if (held) {
      const led = { ...held, ...bounds, value: bounds.from }
      return { ...study, sliders: study.sliders.map((s) => (s === held ? led : s)) }
    }
    const name = freshName(study, letter)
    const added = addSlider({ ...plainSlider(name), ...bounds, value: bounds.from })(study)
    return changeLine(id, { [field]: name })(added)
  }

/** A value for a name that a formula uses. */
export const giveValue =
  (name: string): Edit =>
  (study) =>
    forgetLastGood(addSlider(plainSlider(name))(study))

/** Sets a slider to the nearest value it can take. */
export const setSlider =
  (name: string, value: number): Edit =>
  (study) => {
    const slider = study.sliders.find((s) => s.name === name)
    const next = slider && snapToStep(slider, value)
    if (!slider || Object.is(next, slider.value)) return study
    return {
      ...study,
      sliders: study.sliders.map((s) => (s === slider ? { ...s, value: next! } : s)),
    }
  }

/** Sets a slider to exactly a value, widening its bounds where they do not reach. */
export const enterSlider =
  (name: string, value: number): Edit =>
  (study) => ({
    ...study,
    sliders: study.sliders.map((s) =>
      s.name === name
        ? { ...s, value, from: Math.min(s.from, value), to: Math.max(s.to, value) }
        : s,
    ),
  })

export const changeSlider =
  (name: string, change: Partial<Slider>): Edit =>
  (study) => ({
    ...study,
    sliders: study.sliders.map((s) => (s.name === name ? { ...s, ...change } : s)),
  })

/** How a slider's value is written: with the decimals of its step. */
export const sliderText = (slider: Slider) =>
  formatTiny(slider.value, Math.max(decimalsOfStep(slider.step), 3))

/** Changes bounds or step of a slider and keeps its value inside; impossible ones change nothing. */
export const boundSlider =
  (name: string, change: Partial<Pick<Slider, 'from' | 'to' | 'step'>>): Edit =>
  (study) => {
    const slider = study.sliders.find((s) => s.name === name)
    if (!slider) return study
    const next = { ...slider, ...change }
    const usable = [next.from, next.to, next.step].every(Number.isFinite) && next.step > 0
    if (!usable || next.from >= next.to) return study
    return changeSlider(name, {
      ...change,
      value: Math.min(next.to, Math.max(next.from, next.value)),
    })(study)
  }

import { pointOf } from '../../statements'
import { readNumber } from '../../vocabulary/values'
import type { Study } from '../schema'
import type { Edit } from './edit'
import { movePlace, nudgePlace, sliderOfPlace } from './places'
import { changeLine, solveFor } from './lines'
import { setSlider } from './sliders'

const pointIn = (study: Study, id: string) => {
  const line = study.lines.find((l) => l.id === id)
  return line ? pointOf(line) : null
}

/** The digits that a typed coordinate keeps. */
const digits = 12

/**
 * Moves a marker to a point: along its curve by its place, or in the plane, where the sliders in its
 * coordinates move and typed numbers are rewritten. On a grid it stops at multiples of it.
 */
export const movePoint =
  (id: string, x: number, y: number): Edit =>
  (study) => {
    const point = pointIn(study, id)
    if (!point) return study
    const { grid, place, placeMember, onRuler, height, heightMember } = point
    const onGrid = (value: number) =>
      grid === null ? value : Number((Math.round(value / grid) * grid).toPrecision(digits))
    const moved = onRuler
      ? movePlace(place, onGrid(x), 3)(study).study
      : moveNumber(study, id, placeMember, place, onGrid(x))
    return height === null ? moved : moveNumber(moved, id, heightMember, height, onGrid(y))
  }

function moveNumber(study: Study, id: string, member: string, text: string, y: number): Study {
  const slider = sliderOfPlace(text, study)
  if (slider) return setSlider(slider.name, solveFor(text, slider, y, study))(study)
  const isNumber = readNumber(text).ok
  return isNumber ? changeLine(id, { [member]: String(Number(y.toPrecision(6))) })(study) : study
}

/** Moves a marker by steps of what moves it, across or upwards; on a grid from one of its lines to the next. */
export const nudgePoint =
  (id: string, way: 'x' | 'y', steps: number | 'from' | 'to'): Edit =>
  (study) => {
    const point = pointIn(study, id)
    if (!point) return study
    const text = way === 'x' ? point.place : point.height
    if (text === null) return study
    const now = readNumber(text, study.sliders)
    if (point.grid !== null && typeof steps === 'number' && now.ok) {
      const next =
        now.value + Math.sign(steps) * Math.max(1, Math.abs(Math.round(steps))) * point.grid
      const held = readNumber(way === 'x' ? (point.height ?? '0') : point.place, study.sliders)
      const other = held.ok ? held.value : 0
      return way === 'x' ? movePoint(id, next, other)(study) : movePoint(id, other, next)(study)
    }
    if (way === 'x' || sliderOfPlace(text, study)) return nudgePlace(text, steps)(study)
    const isMove = now.ok && typeof steps === 'number'
    return isMove ? moveNumber(study, id, point.heightMember, text, now.value + steps * 0.1) : study
  }

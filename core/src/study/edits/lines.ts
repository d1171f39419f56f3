import { readFormula } from '../../calculus/readFormula'
import {
  isCurveMaker,
  isFormulaLine,
  isSurfaceMaker,
  placeMembers,
  type Statement,
} from '../../statements'
import { keepAnswered } from '../answers'
import type { LineLook, Slider } from '../../vocabulary/members'
import type { Study } from '../schema'
import { readNumber } from '../../vocabulary/values'
import { type Edit, replaceLine } from './edit'
import { lanesWithout } from './laneCurves'
import { readingFor } from './names'

/** A new formula for a curve. An unreadable one is kept as typed beside the last readable one. */
export const changeFormula =
  (id: string, formula: string): Edit =>
  (study) =>
    replaceLine(study, id, (line) => {
      if (!isFormulaLine(line) && !isSurfaceMaker(line)) return line
      const { lastGood, ...rest } = line
      const reading = readingFor(study, line)
      if (readFormula(formula, reading).ok) return { ...rest, formula }
      const good = readFormula(line.formula, reading).ok ? line.formula : lastGood
      return { ...rest, formula, ...(good === undefined ? {} : { lastGood: good }) }
    })

/** Changes members of a line, as its slots do. */
export const changeLine =
  (id: string, change: Record<string, unknown>): Edit =>
  (study) =>
    replaceLine(study, id, (line) => ({ ...line, ...change }))

export const changeLook =
  (id: string, change: (look: LineLook) => LineLook): Edit =>
  (study) =>
    replaceLine(study, id, (line) => ({ ...line, look: change(line.look ?? {}) }))

export const removeLine =
  (id: string): Edit =>
  (study) => {
    const line = study.lines.find((l) => l.id === id)
    const lines = study.lines.filter((l) => l.id !== id)
    if (!line || !isCurveMaker(line)) return { ...study, lines }
    const lanes = lanesWithout(study.lanes, line.name)
    return keepAnswered({ ...study, lines, lanes })
  }

/** Puts a line at another place of the working, counted from 0. */
export const moveLine =
  (id: string, to: number): Edit =>
  (study) => {
    const line = study.lines.find((l) => l.id === id)
    if (!line) return study
    const others = study.lines.filter((l) => l !== line)
    const at = Math.max(0, Math.min(others.length, to))
    return { ...study, lines: [...others.slice(0, at), line, ...others.slice(at)] }
  }

/** The next id that no line or lane of the study has. */
export function freshId(study: Study, prefix: string): string {
  const lanes = [...study.lanes, ...study.steps.flatMap((step) => step.lanes)]
  const taken = new Set([...study.lines, ...lanes].map(({ id }) => id))
  let n = 1
  while (taken.has(`${prefix}${n}`)) n += 1
  return `${prefix}${n}`
}

/** A formula that has become readable needs no stand-in any more. */
export function forgetLastGood(study: Study): Study {
  return {
    ...study,
    lines: study.lines.map((line) => {
      const isTyped = isFormulaLine(line) || isSurfaceMaker(line)
      if (!isTyped || line.lastGood === undefined) return line
      const { lastGood: _, ...rest } = line
      return readFormula(line.formula, readingFor(study, line)).ok ? rest : line
    }),
  }
}

export const placesOfLine = (line: Statement): string[] => placeMembers(line).map((m) => m.text)

/** Puts one place text for another in every line that hangs on it. */
export const renamePlace =
  (from: string, to: string): Edit =>
  (study) => {
    const swap = (place: string) => (place.trim() === from ? to : place)
    return {
      ...study,
      lines: study.lines.map((line) => {
        const held = placeMembers(line).filter(({ text }) => text.trim() === from)
        return held.reduce((now, { field, text }) => ({ ...now, [field]: swap(text) }), line)
      }),
    }
  }

/** The slider value for which a place expression reaches x: secant steps, exact where it is linear. */
export function solveFor(text: string, slider: Slider, x: number, study: Study): number {
  const at = (value: number) => {
    const sliders = study.sliders.map((s) => (s.name === slider.name ? { ...s, value } : s))
    const read = readNumber(text, sliders)
    return read.ok ? read.value - x : NaN
  }
  let [p, q] = [slider.value, slider.value + (slider.to - slider.from) / 100]
  for (let i = 0; i < 20; i++) {
    const [fp, fq] = [at(p), at(q)]
    if (fq === 0) return q
    if (!(Math.abs(fq - fp) > 0)) return fp === 0 ? p : slider.value
    ;[p, q] = [q, q - (fq * (q - p)) / (fq - fp)]
    if (!Number.isFinite(q)) return slider.value
    if (Math.abs(q - p) < slider.step / 1e6) break
  }
  return q
}

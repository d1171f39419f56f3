import type { Reading } from '../../calculus/readFormula'
import { tokenize } from '../../language/tokens'
import { isProductBeside } from '../../language/tokens/vocabulary'
import {
  allNames,
  type CurveMaker,
  type FormulaLine,
  isCurveMaker,
  isFormulaLine,
  isSurfaceMaker,
  renameLine,
  type Statement,
  surfaceOf,
} from '../../statements'
import { nameSchema, sliderNameSchema } from '../../vocabulary/members'
import type { Study } from '../schema'
import type { Edit } from './edit'

/** Every line whose curve is given by a formula. */
export const curveLines = (study: Study): FormulaLine[] => study.lines.filter(isFormulaLine)

/** Every line that brings a curve, by formula, readings or area. */
export const curveMakers = (study: Study): CurveMaker[] => study.lines.filter(isCurveMaker)

/** How formulas of this study are read. */
export const readingOf = (study: Study): Reading => ({
  variable: study.variable.letter,
  names: study.sliders.map((s) => s.name),
  curves: curveMakers(study).map((l) => l.name),
})

/** How the formula of a line is read: a surface has two letters of its own. */
export function readingFor(study: Study, line: Statement): Reading {
  const reading = readingOf(study)
  const letters = surfaceOf(line)?.letters
  if (!letters) return reading
  const [variable, second] = letters
  const names = (reading.names ?? []).filter((n) => n !== variable && n !== second)
  return { ...reading, variable, names: [...names, second] }
}

/** The letters that surfaces have for their variables. */
const lettersIn = (study: Study): string[] =>
  study.lines.flatMap((line) => surfaceOf(line)?.letters ?? [])

const placeLetters = 'abcdkmnpqrsuvw'

/** The first letter nothing else uses, a where it is free. */
export function freshName(study: Study, preferred: string): string {
  const taken = new Set([
    study.variable.letter,
    ...study.sliders.map((s) => s.name),
    ...allNames(study.lines),
    ...lettersIn(study),
  ])
  if (!taken.has(preferred)) return preferred
  const free = [...placeLetters].find((c) => !taken.has(c))
  if (free) return free
  let n = 1
  const lowered = (k: number) => [...String(k)].map((d) => '₀₁₂₃₄₅₆₇₈₉'[Number(d)]).join('')
  while (taken.has(`a${lowered(n)}`)) n += 1
  return `a${lowered(n)}`
}

/**
 * Beside something called a, "atan x" is a · tan x, and beside a g, "tg x" is t · g. What was typed
 * before there was such a thing keeps its meaning: it is written out as arctan and tan.
 */
export function spelledFor(name: string, study: Study): Study {
  if (name !== 'a' && name !== 'g') return study
  const reading = readingOf(study)
  const spelled = (text: string): string => {
    const { tokens } = tokenize(text, reading)
    let result = ''
    let at = 0
    for (const token of tokens) {
      if (token.kind !== 'function' || !isProductBeside(name, token.spelled)) continue
      result += text.slice(at, token.from) + token.name
      at = token.to
    }
    return result + text.slice(at)
  }
  return { ...study, lines: study.lines.map((line) => renameLine(line, spelled)) }
}

/** Replaces names in a text by their new ones, token by token. */
function renameIn(text: string, study: Study, renamed: ReadonlyMap<string, string>): string {
  const reading = readingOf(study)
  const { tokens } = tokenize(text, reading)
  let result = ''
  let at = 0
  for (const token of tokens) {
    if (token.kind !== 'name' && token.kind !== 'curve') continue
    const next = renamed.get(token.name)
    if (next === undefined) continue
    result += text.slice(at, token.from) + next
    at = token.to
  }
  return result + text.slice(at)
}

/** Gives a curve or the variable another letter, everywhere it is used. */
export const renameSymbol =
  (from: string, to: string): Edit =>
  (study) => {
    if (from === to) return study
    const words = new Map([[from, to]])
    const curveNow = (curve: string) => (curve === from ? to : curve)
    const renamed = (lane: Study['lanes'][number]) => ({
      ...lane,
      curve: curveNow(lane.curve),
      overlays: lane.overlays.map((o) => ({ ...o, curve: curveNow(o.curve) })),
    })
    const before = spelledFor(to, study)
    const names = (text: string) => (text === from ? to : renameIn(text, study, words))
    return {
      ...study,
      variable: study.variable.letter === from ? { ...study.variable, letter: to } : study.variable,
      lines: before.lines.map((line) => {
        const next = renameLine(line, names)
        // The letters of a surface are its own: its formula keeps them.
        if (!isSurfaceMaker(line) || !surfaceOf(line)!.letters.includes(from)) return next
        const { formula, lastGood } = line
        return { ...next, formula, ...(lastGood === undefined ? {} : { lastGood }) }
      }),
      lanes: study.lanes.map(renamed),
      steps: study.steps.map((step) => ({ ...step, lanes: step.lanes.map(renamed) })),
    }
  }

/** Why a curve or the variable cannot be given a letter, or null where it can. */
export function symbolProblem(study: Study, from: string, to: string): string | null {
  if (from === to) return null
  const isSlider = study.sliders.some((slider) => slider.name === from)
  if (!(isSlider ? sliderNameSchema : nameSchema).safeParse(to).success) {
    return isSlider
      ? 'a name is a letter other than e, such as a or n₂, or a word that means nothing else'
      : 'a name is one letter other than e, such as q or n₂'
  }
  const taken = [
    study.variable.letter,
    ...study.sliders.map((s) => s.name),
    ...allNames(study.lines),
    ...(from === study.variable.letter ? [] : lettersIn(study)),
  ]
  return taken.includes(to) ? `${to} is taken` : null
}

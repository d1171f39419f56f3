import { parseFormula } from '../language/parse'
import { tokenize } from '../language/tokens'
import { namesIn } from '../formula/tree'
import {
  type CurveMaker,
  type FormulaLine,
  isCurveMaker,
  isFormulaLine,
  placeMembers,
  renameLine,
  spanMembers,
  type Statement,
} from '../statements'
import { keepAnswered } from './answers'
import { decimalsOfStep, formatTiny, numberToFormula } from '../vocabulary/numbers'
import {
  type Display,
  type Lane,
  type LineLook,
  nameSchema,
  type Slider,
  type SpanText,
  usualMotion,
  type Variable,
} from '../vocabulary/members'
import type { Study } from './schema'
import { freeSlider, readNumber, snapToStep } from '../vocabulary/values'

/** Every change of a study is one of these: a pure function from a study to the next one. */
export type Edit = (study: Study) => Study

const replaceLine = (study: Study, id: string, change: (line: Statement) => Statement): Study => ({
  ...study,
  lines: study.lines.map((line) => (line.id === id ? change(line) : line)),
})

/** Every line whose curve is given by a formula. */
export const curveLines = (study: Study): FormulaLine[] => study.lines.filter(isFormulaLine)

/** Every line that brings a curve, by formula, readings or area. */
export const curveMakers = (study: Study): CurveMaker[] => study.lines.filter(isCurveMaker)

/** How formulas of this study are read. */
export function readingOf(study: Study) {
  return {
    variable: study.variable.letter,
    names: study.sliders.map((s) => s.name),
    curves: Object.fromEntries(
      curveMakers(study).map((l) => [
        l.name,
        { kind: 'name', name: study.variable.letter } as const,
      ]),
    ),
  }
}

/** A new formula for a curve. An unreadable one is kept as typed beside the last readable one. */
export const changeFormula =
  (id: string, formula: string): Edit =>
  (study) =>
    replaceLine(study, id, (line) => {
      if (!isFormulaLine(line)) return line
      const { lastGood, ...rest } = line
      const reading = readingOf(study)
      if (parseFormula(formula, reading).ok) return { ...rest, formula }
      const good = parseFormula(line.formula, reading).ok ? line.formula : lastGood
      return { ...rest, formula, ...(good === undefined ? {} : { lastGood: good }) }
    })

/** Changes members of a line, as its slots do. */
export const changeLine =
  (id: string, change: Record<string, unknown>): Edit =>
  (study) =>
    replaceLine(study, id, (line) => ({ ...line, ...change }) as Statement)

const changeLook =
  (id: string, change: (look: LineLook) => LineLook): Edit =>
  (study) =>
    replaceLine(study, id, (line) => ({ ...line, look: change(line.look ?? {}) }) as Statement)

/** Puts a label of a line's points so far from its point, in pixels, or back where there is room. */
export const moveLabel = (id: string, label: string, offset: readonly [number, number] | null) =>
  changeLook(id, (look) => {
    const moved = { ...look.moved }
    if (offset) moved[label] = [offset[0], offset[1]]
    else delete moved[label]
    return { ...look, moved }
  })

/** Shows or hides a label of a line's points. */
export const showLabel = (id: string, label: string, shown: boolean) =>
  changeLook(id, (look) => {
    const without = (look.without ?? []).filter((l) => l !== label)
    return { ...look, without: shown ? without : [...without, label] }
  })

/** All labels of a line's points where there is room for them. */
export const resetLabels = (id: string) =>
  changeLook(id, ({ moved: _, without: __, ...look }) => look)

export const removeLine =
  (id: string): Edit =>
  (study) => {
    const line = study.lines.find((l) => l.id === id)
    const lines = study.lines.filter((l) => l.id !== id)
    if (!line || !isCurveMaker(line)) return { ...study, lines }
    const lanes = study.lanes
      .filter((lane) => lane.curve !== line.name)
      .map((lane) => ({ ...lane, overlays: lane.overlays.filter((o) => o.curve !== line.name) }))
    return keepAnswered({ ...study, lines, lanes })
  }

/** The next id that no line or lane of the study has. */
export function freshId(study: Study, prefix: string): string {
  const taken = new Set([...study.lines.map((l) => l.id), ...study.lanes.map((l) => l.id)])
  let n = 1
  while (taken.has(`${prefix}${n}`)) n += 1
  return `${prefix}${n}`
}

const placeLetters = 'abcdkmnpqrsuvw'

/** The first letter nothing else uses, a where it is free. */
export function freshName(study: Study, preferred: string): string {
  const taken = new Set([
    study.variable.letter,
    ...study.sliders.map((s) => s.name),
    ...curveMakers(study).map((l) => l.name),
  ])
  if (!taken.has(preferred)) return preferred
  const free = [...placeLetters].find((c) => !taken.has(c))
  if (free) return free
  let n = 1
  const lowered = (k: number) => [...String(k)].map((d) => '₀₁₂₃₄₅₆₇₈₉'[Number(d)]).join('')
  while (taken.has(`a${lowered(n)}`)) n += 1
  return `a${lowered(n)}`
}

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

/**
 * Beside something called a, "atan x" is a · tan x. What was typed before there was such a thing
 * keeps its meaning: it is written out as arctan.
 */
export function spelledFor(name: string, study: Study): Study {
  if (name !== 'a') return study
  const { variable, names, curves } = readingOf(study)
  const spelled = (text: string): string => {
    const { tokens } = tokenize(text, { variable, names, curves: Object.keys(curves) })
    let result = ''
    let at = 0
    for (const token of tokens) {
      if (token.kind !== 'function' || !/^a(?:sin|cos|tan)$/.test(token.spelled)) continue
      result += `${text.slice(at, token.from)}arc${token.spelled.slice(1)}`
      at = token.to
    }
    return result + text.slice(at)
  }
  return { ...study, lines: study.lines.map((line) => renameLine(line, spelled)) }
}

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

/** A value for a name that a formula uses. */
export const giveValue =
  (name: string): Edit =>
  (study) =>
    forgetLastGood(addSlider(plainSlider(name))(study))

/** A formula that has become readable needs no stand-in any more. */
function forgetLastGood(study: Study): Study {
  const reading = readingOf(study)
  return {
    ...study,
    lines: study.lines.map((line) => {
      if (!isFormulaLine(line) || line.lastGood === undefined) return line
      const { lastGood: _, ...rest } = line
      return parseFormula(line.formula, reading).ok ? rest : line
    }),
  }
}

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

export const placesOfLine = (line: Statement): string[] => placeMembers(line).map((m) => m.text)

export const sameSpan = (a: SpanText, b: SpanText) => a.from === b.from && a.to === b.to

/**
 * Moves one end of a span in every line that hangs on it; an end that is a slider, or an expression
 * with one free slider, moves that slider. Ends may not meet or pass each other.
 */
export const moveSpanEnd =
  (span: SpanText, end: 'from' | 'to', x: number, decimals: number): Edit =>
  (study) => {
    const text = span[end]
    const read = readNumber(text, study.sliders)
    const other = readNumber(span[end === 'from' ? 'to' : 'from'], study.sliders)
    if (!read.ok) return study
    const least = 10 ** -decimals
    const held = !other.ok
      ? x
      : end === 'from'
        ? Math.min(x, other.value - least)
        : Math.max(x, other.value + least)
    if (namesIn(read.tree).size > 0) return movePlace(text, held, decimals)(study)
    return setSpan(span, { ...span, [end]: numberToFormula(Number(held.toFixed(decimals))) })(study)
  }

/** Gives every line on one span another one. */
export const setSpan =
  (from: SpanText, to: SpanText): Edit =>
  (study) => ({
    ...study,
    lines: study.lines.map((line) =>
      spanMembers(line)
        .filter(({ span }) => sameSpan(span, from))
        .reduce((now, { field }) => ({ ...now, [field]: to }), line),
    ),
  })

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
function solveFor(text: string, slider: Slider, x: number, study: Study): number {
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

/** A lane that follows its curve and has its usual height. */
export const newLane = (id: string, curve: string, order: number): Lane => ({
  kind: 'lane',
  id,
  curve,
  order,
  overlays: [],
  covered: false,
  frame: null,
  equalScale: false,
  share: null,
})

/** Opens or closes the lane of a derivative; lanes of one curve stay in the order of derivatives. */
export const toggleLane =
  (curve: string, order: number): Edit =>
  (study) => {
    const open = study.lanes.find((l) => l.curve === curve && l.order === order)
    if (open) {
      // The last lane stays: an empty workbench shows nothing that could be opened again.
      return study.lanes.length === 1
        ? study
        : keepAnswered({ ...study, lanes: study.lanes.filter((l) => l !== open) })
    }
    const lane = newLane(freshId(study, 'lane'), curve, order)
    const names = curveMakers(study).map((l) => l.name)
    const lanes = [...study.lanes, lane].sort(
      (a, b) => names.indexOf(a.curve) - names.indexOf(b.curve) || a.order - b.order,
    )
    return { ...study, lanes }
  }

/** Draws a curve or a derivative in another lane as well, or takes it out again. */
export const toggleOverlay =
  (laneId: string, curve: string, order: number): Edit =>
  (study) => ({
    ...study,
    lanes: study.lanes.map((lane) => {
      if (lane.id !== laneId || (lane.curve === curve && lane.order === order)) return lane
      const others = lane.overlays.filter((o) => o.curve !== curve || o.order !== order)
      const overlays =
        others.length < lane.overlays.length ? others : [...lane.overlays, { curve, order }]
      return { ...lane, overlays: overlays.slice(-10) }
    }),
  })

export const changeStudy =
  (change: Partial<Pick<Study, 'title' | 'about' | 'decimals'>>): Edit =>
  (study) => ({ ...study, ...change })

/** Replaces names in a text by their new ones, token by token. */
function renameIn(text: string, study: Study, renamed: ReadonlyMap<string, string>): string {
  const { variable, names, curves } = readingOf(study)
  const { tokens } = tokenize(text, { variable, names, curves: Object.keys(curves) })
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
    const renamed = new Map([[from, to]])
    const before = spelledFor(to, study)
    const names = (text: string) => (text === from ? to : renameIn(text, study, renamed))
    return {
      ...study,
      variable: study.variable.letter === from ? { ...study.variable, letter: to } : study.variable,
      lines: before.lines.map((line) => renameLine(line, names)),
      lanes: study.lanes.map((l) => ({
        ...l,
        curve: l.curve === from ? to : l.curve,
        overlays: l.overlays.map((o) => ({ ...o, curve: o.curve === from ? to : o.curve })),
      })),
    }
  }

export const changeVariable =
  (change: Partial<Omit<Variable, 'letter'>>): Edit =>
  (study) => ({ ...study, variable: { ...study.variable, ...change } })

/** How a slider's value is written: with the decimals of its step. */
export const sliderText = (slider: Slider) =>
  formatTiny(slider.value, Math.max(decimalsOfStep(slider.step), 3))

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

/** Why a curve or the variable cannot be given a letter, or null where it can. */
export function symbolProblem(study: Study, from: string, to: string): string | null {
  if (from === to) return null
  if (!nameSchema.safeParse(to).success) return 'a name is one letter other than e, such as q or n₂'
  const taken = [
    study.variable.letter,
    ...study.sliders.map((s) => s.name),
    ...curveMakers(study).map((l) => l.name),
  ]
  return taken.includes(to) ? `${to} is taken` : null
}

export const changeDisplay =
  (change: Partial<Display>): Edit =>
  (study) => ({ ...study, display: { ...study.display, ...change } })

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

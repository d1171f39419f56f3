import { parseFormula } from '../calculus/parseFormula'
import { namesIn } from '../formula/tree'
import { toPlain } from '../language/print'
import type { Interval } from '../arithmetic/intervals'
import { cutSides, surfaceDefinition } from '../statements/surface/said'
import { usualSide } from '../statements/surface/surface'
import { stationaryPoints } from '../surfaces/stationary'
import { compileSurface, type RealSurface, type Rectangle } from '../surfaces/surface'
import { noAnswers, type SpanText, usualDisplay, usualSpace } from '../vocabulary/members'
import { numberToFormula } from '../vocabulary/numbers'
import { readNumber } from '../vocabulary/values'
import type { Created } from './created'
import { plainSlider } from './edits/sliders'
import { presentFormat } from './schema'
import { surfaceTitle } from './titles'

/**
 * A new study from a typed surface: z = x² + y², f(x, y) = …, with or without its rectangle. null for
 * what is no surface, such as z = 3, and z = x² without a second letter.
 */
export function createSurface(text: string, withValues: readonly string[]): Created | null {
  const typed = surfaceDefinition(text)
  if (!typed) return null
  const { letters, name, isSaid } = typed
  const { formula, sides } = cutSides(typed.body, letters)
  const [first, second] = letters
  const own = withValues.filter((n) => !letters.includes(n))
  const parsed = parseFormula(formula, { variable: first, names: [...own, second] })
  const usesBoth = parsed.ok && namesIn(parsed.tree).has(second)
  if (!isSaid && !usesBoth && !new RegExp(`(?<!\\p{L})${second}(?!\\p{L})`, 'u').test(formula)) {
    return null
  }
  if (!parsed.ok) {
    const shift = text.indexOf(formula)
    const moved = parsed.problems.map((p) => ({ ...p, from: p.from + shift, to: p.to + shift }))
    return { ok: false, problems: moved }
  }
  const sliders = own.map(plainSlider)
  const values = Object.fromEntries(sliders.map((s) => [s.name, s.value]))
  const f = compileSurface(parsed.tree, letters, values)
  const [firstSpan, secondSpan] = sides ?? likelySides(f)
  const ends = [firstSpan, secondSpan].flatMap(({ from, to }) => [from, to])
  const wrong = ends.map((end) => readNumber(end, sliders)).find((end) => !end.ok)
  if (wrong && !wrong.ok) {
    const { message, missing } = wrong
    const where = { from: 0, to: text.length }
    return { ok: false, problems: [{ message, ...(missing ? { missing } : {}), ...where }] }
  }
  const line = {
    ...{ kind: 'surface' as const, id: 'line1', surface: name, first, second, formula },
    ...{ firstSpan, secondSpan },
  }
  return {
    ok: true,
    hints: parsed.hints,
    study: {
      ...{ format: presentFormat, parts: [], steps: [], about: '', decimals: 3, sliders },
      title: surfaceTitle(line, toPlain(parsed.tree)),
      variable: { letter: first, name: '', unit: '' },
      ...{ lines: [line], lanes: [], frame: null, display: usualDisplay, answers: noAnswers },
      space: usualSpace,
    },
  }
}

/** Half sides that are tried where nobody says a rectangle. */
const [widest, ...narrower] = [5, 3, 2, 1]
/** So many steps look for what there is to see. */
const mostSteps = 400
const looks = 21

/** The rectangle that a surface opens on: around its critical points, and where it has values. */
function likelySides(f: RealSurface): [SpanText, SpanText] {
  const around = (r: number): [SpanText, SpanText] => {
    const side = { from: numberToFormula(-r), to: numberToFormula(r) }
    return [side, side]
  }
  const half = [widest, ...narrower].find((r) => shareOf(f, squareOf(r)) > 0.5)
  if (half !== undefined && half < widest) return around(half)
  const search = stationaryPoints(f, squareOf(widest))
  for (let i = 0; i < mostSteps; i++) {
    const step = search.next()
    if (!step.done) continue
    const farthest = Math.max(
      0,
      ...step.value.points.flatMap(({ x, y }) => [Math.abs(x), Math.abs(y)]),
    )
    if (step.value.points.length < 2 || !step.value.complete) break
    return around(Math.min(widest, Math.max(2, Math.ceil(farthest * 3.2) / 2)))
  }
  return [usualSide, usualSide]
}

const squareOf = (r: number): Rectangle => {
  const side: Interval = { lo: -r, hi: r }
  return { x: side, y: side }
}

/** On which share of a grid there are values. */
function shareOf(f: RealSurface, { x }: Rectangle): number {
  let there = 0
  for (let i = 0; i < looks; i++) {
    for (let j = 0; j < looks; j++) {
      const at = (k: number) => x.lo + ((x.hi - x.lo) * (k + 0.5)) / looks
      if (Number.isFinite(f.value(at(i), at(j)))) there += 1
    }
  }
  return there / looks ** 2
}

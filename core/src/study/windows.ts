import { compile } from '../algebra/compile'
import { expandCurves, findCycle } from '../algebra/curves'
import { readFormula } from '../calculus/readFormula'
import type { RealFunction } from '../evaluate/compile'
import { cutToDomain, roundStep, whatMatters, type Window } from '../features/whatMatters'
import { curvesIn, namesIn, type Tree } from '../formula/tree'
import { type FormulaLine, isFormulaLine, kindOf, spanMembers, type Statement } from '../statements'
import { usualWindow } from '../statements/curve'
import type { SpanText } from '../vocabulary/members'
import { numberToFormula } from '../vocabulary/numbers'
import { curveLines, readingOf } from './edits/names'
import { sameSpan } from './edits/spans'
import { type Edit, replaceLine } from './edits/edit'
import type { Study } from './schema'

type OpenLine = FormulaLine & { window: Window }

/** Whether a curve is drawn wherever one looks, as nobody has asked for a span. */
export const isOpen = (line: Statement): line is OpenLine =>
  isFormulaLine(line) && 'window' in line && line.window !== null && line.window !== undefined

/** What a frame opens on for a function, and the part of it on which it has values. */
export function windowFor(f: RealFunction): { window: Window; span: SpanText } {
  const window = whatMatters(f)
  return { window, span: spanText(cutToDomain(f, ...window)) }
}

const spanText = ([from, to]: Window): SpanText => ({
  from: numberToFormula(from),
  to: numberToFormula(to),
})

/** The curve of a line with the sliders as they stand, or null where it has none of formulas alone. */
function functionOf(study: Study, line: OpenLine): RealFunction | null {
  const reading = readingOf(study)
  const trees: Record<string, Tree> = {}
  for (const { name, formula } of curveLines(study)) {
    const read = readFormula(formula, reading)
    if (read.ok) trees[name] = read.tree
  }
  const own = trees[line.name]
  if (!own || !rests(line.name, trees)) return null
  const { letter } = study.variable
  const tree = expandCurves(own, trees, letter)
  const parameters = Object.fromEntries(study.sliders.map((s) => [s.name, s.value]))
  const known = [...namesIn(tree)].every((name) => name === letter || name in parameters)
  return known ? compile(tree, { variable: letter, parameters }) : null
}

/** Whether a curve rests on formulas that are there, and on no circle of them. */
function rests(name: string, trees: Readonly<Record<string, Tree>>): boolean {
  const seen = new Set<string>()
  const visit = (at: string): boolean => {
    if (seen.has(at)) return true
    seen.add(at)
    const tree = trees[at]
    return tree !== undefined && [...curvesIn(tree)].every(visit)
  }
  return visit(name) && [...seen].every((one) => findCycle(one, trees) === null)
}

/**
 * Gives a curve that is drawn everywhere the window and the span of its present formula, and lines about
 * it whose span is still the old one, which nobody has set by hand, the new one.
 */
export const withWindow =
  (id: string): Edit =>
  (study) => {
    const line = study.lines.find((l) => l.id === id)
    const f = line && isOpen(line) ? functionOf(study, line) : null
    if (!f || !line || !isOpen(line)) return study
    const { window, span } = windowFor(f)
    const changed = replaceLine(study, id, (now) => ({ ...now, window, span }))
    return spansFollow(line, span)(changed)
  }

const spansFollow =
  ({ name, span: old }: OpenLine, span: SpanText): Edit =>
  (study) => ({
    ...study,
    lines: study.lines.map((line) =>
      'curve' in line && line.curve === name
        ? spanMembers(line)
            .filter((member) => sameSpan(member.span, old))
            .reduce((now, { field }) => ({ ...now, [field]: span }), line)
        : line,
    ),
  })

/** Takes the span of a curve away, so that it is drawn wherever one looks. */
export const drawnEverywhere =
  (id: string): Edit =>
  (study) =>
    withWindow(id)(
      replaceLine(study, id, (line) =>
        kindOf(line).uses.window ? { ...line, window: usualWindow } : line,
      ),
    )

/** A frame is taken for a span on bounds this fine, as a share of its width. */
const fineness = 1 / 60

/**
 * The span that new lines about a curve take which is drawn everywhere: the frame as it is shown, on
 * round bounds, as far as the curve has values.
 */
export function spanInFrame(study: Study, line: OpenLine): SpanText {
  const { frame } = study
  if (!frame) return line.span
  const step = roundStep((frame[1] - frame[0]) * fineness)
  const tidy = (x: number) => Number((Math.round(x / step) * step).toPrecision(12)) + 0
  const shown: Window = [tidy(frame[0]), tidy(frame[1])]
  const f = functionOf(study, line)
  return spanText(f ? cutToDomain(f, ...shown) : shown)
}

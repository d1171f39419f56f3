import { compile } from '../algebra/compile'
import { type Definition, parseDefinition } from '../language/definition'
import { parseFormula } from '../calculus/parseFormula'
import type { Hint, Problem } from '../language/problems'
import { toPlain } from '../language/print'
import type { Tree } from '../formula/tree'
import { namesIn } from '../formula/tree'
import { lanesOpened } from '../statements'
import { curveLine } from '../statements/curve'
import { cutGiven, givenLine } from '../statements/given'
import { blankTitle, formulaTitle } from './titles'
import { newLane } from './edits/lanes'
import { plainSlider } from './edits/sliders'
import { noAnswers, usualDisplay, usualSpace } from '../vocabulary/members'
import type { Created } from './created'
import { createSurface } from './createSurface'
import { presentFormat, type Study } from './schema'
import { windowFor } from './windows'
import { cutSpan, readNumber } from '../vocabulary/values'

interface Reading {
  name: string
  /** Of which derivative the formula is. */
  order: number
  letter: string
  tree: Tree
  formula: string
  hints: Hint[]
}

/**
 * A new study from a typed function: f(x) unless a left side such as q(t) = says otherwise. A
 * formula without x and with one unknown letter has that letter for its variable. Names given in
 * `withValues` become sliders. A span may stand behind it: "for 0 ≤ t ≤ 10".
 */
export function createStudy(text: string, withValues: readonly string[] = []): Created {
  const surface = createSurface(text, withValues)
  if (surface) return surface
  const isGiven = (parseDefinition(text)?.order ?? 0) > 0
  const { formula: typed, span, known } = isGiven ? cutGiven(text) : { ...cutSpan(text), known: [] }
  const read = readFunction(typed, withValues)
  if ('problems' in read) return { ok: false, problems: read.problems }
  const { name, order, letter, tree, formula, hints } = read
  const sliders = withValues.filter((n) => n !== letter).map(plainSlider)
  const f = compile(tree, {
    variable: letter,
    parameters: Object.fromEntries(sliders.map((s) => [s.name, s.value])),
  })
  const ends = span ? [readNumber(span.from, sliders), readNumber(span.to, sliders)] : []
  const bad = ends.find((end) => !end.ok)
  if (bad && !bad.ok) {
    const { message, missing } = bad
    const where = { from: typed.length, to: text.length }
    return { ok: false, problems: [{ message, ...(missing ? { missing } : {}), ...where }] }
  }
  const [least, most] = ends.flatMap((end) => (end.ok ? [end.value] : []))
  if (span && least! >= most!) {
    const message = `the span runs from ${span.from} to ${span.to}`
    const fix = 'let it end above where it begins'
    return { ok: false, problems: [{ message, fix, from: typed.length, to: text.length }] }
  }
  const where = span ? { span } : windowFor(f)
  const line =
    order > 0
      ? { ...givenLine({ name, order, body: formula }, where.span, known), id: 'line1' }
      : curveLine('line1', name, formula, where)
  const study: Study = {
    format: presentFormat,
    parts: [],
    steps: [],
    title: formulaTitle(name, order, letter, toPlain(tree)),
    about: '',
    variable: { letter, name: '', unit: '' },
    decimals: 3,
    sliders,
    lines: [line],
    lanes: lanesOpened(line).map((above, i) => newLane(`lane${i + 1}`, name, above)),
    frame: null,
    display: usualDisplay,
    answers: noAnswers,
    space: usualSpace,
  }
  return { ok: true, study, hints }
}

/** An empty start for "New study": an inviting curve to change. */
export function blankStudy(): Study {
  const created = createStudy('f(x) = 3 sin(x) + x/2')
  if (!created.ok) throw new TypeError('the opening formula must be readable')
  return { ...created.study, title: blankTitle }
}

function readFunction(
  text: string,
  withValues: readonly string[],
): Reading | { problems: Problem[] } {
  const typed = parseDefinition(text)
  const formula = (typed ? typed.body : text).trim()
  const name = typed?.name ?? 'f'
  const order = typed?.order ?? 0
  if (order > 2) {
    const message = `${name} may be given by its first or second derivative`
    return { problems: [{ message, from: 0, to: text.length }] }
  }
  const shift = typed ? text.length - typed.body.trimStart().length : text.search(/\S|$/)
  const letter = typed?.variable ?? (name === 'x' ? 't' : 'x')
  const parsed = parseFormula(formula, { variable: letter, names: withValues })
  if (parsed.ok)
    return { name, order, letter, tree: parsed.tree, formula, hints: shifted(parsed.hints, shift) }
  const missing = new Set(parsed.problems.flatMap((p) => (p.missing ? [p.missing] : [])))
  if (!typed?.variable && missing.size === 1 && parsed.problems.every((p) => p.missing)) {
    const [other] = missing
    const again = parseFormula(formula, { variable: other!, names: withValues })
    if (again.ok && other !== name && !namesIn(again.tree).has(letter)) {
      return {
        name,
        order,
        letter: other!,
        tree: again.tree,
        formula,
        hints: shifted(again.hints, shift),
      }
    }
  }
  return { problems: orSurface(shifted(parsed.problems, shift), text, typed, letter) }
}

/** Where y alone lacks a value beside x, a surface is in one press what may have been meant. */
function orSurface(
  problems: Problem[],
  text: string,
  typed: Definition | null,
  letter: string,
): Problem[] {
  const lacks = problems.every(({ missing }) => missing === 'y')
  if (!lacks || letter !== 'x' || (typed?.order ?? 0) > 0) return problems
  const left = typed?.variable ? `${typed.name}(x, y) = ` : 'z = '
  const body = (typed ? typed.body : text).trim()
  const [first] = problems
  return [{ ...first!, from: 0, to: text.length, replacement: `${left}${body}` }]
}

const shifted = <T extends { from: number; to: number }>(all: readonly T[], by: number): T[] =>
  all.map((one) => ({ ...one, from: one.from + by, to: one.to + by }))

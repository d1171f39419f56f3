import { parseDefinition } from '../language/definition'
import { readFormula } from '../calculus/readFormula'
import {
  allNames,
  isCurveMaker,
  isFormulaLine,
  isSurfaceMaker,
  kindOf,
  type Statement,
  statementSchema,
  type SurfaceMaker,
} from '../statements'
import { cutSides, surfaceDefinition } from '../statements/surface/said'
import type { SlotKind } from '../statements/contract'
import { curveText, parseCurveRef } from '../statements/shared/slots'
import { titled } from './titles'
import { changeFormula, changeLine } from './edits/lines'
import { curveLines, curveMakers, readingOf, renameSymbol, symbolProblem } from './edits/names'
import type { Edit } from './edits/edit'
import { setSlider } from './edits/sliders'
import { setSpan } from './edits/spans'
import { formatShort } from '../vocabulary/numbers'
import { nameSchema, type SpanText } from '../vocabulary/members'
import type { Study } from './schema'
import { boundIn, cutSpan, parseSpan, readNumber } from '../vocabulary/values'
import { drawnEverywhere, isOpen, withWindow } from './windows'

export type SlotEdit = { ok: true; edit: Edit } | { ok: false; message: string }

const no = (message: string): SlotEdit => ({ ok: false, message })
const yes = (edit: Edit): SlotEdit => ({ ok: true, edit })

/**
 * What putting a typed text into a slot does to the study, or why the slot cannot take it. A
 * formula is always taken: one that cannot be read is kept as typed and says so in its line.
 */
export function editSlot(
  study: Study,
  line: Statement,
  { slot, field }: { slot: SlotKind; field: string },
  text: string,
): SlotEdit {
  switch (slot) {
    case 'formula':
      return editFormula(study, line, text)
    case 'domain':
      return editSpan(study, line, text)
    case 'span':
      return (kindOf(line).uses.sides as readonly string[] | undefined)?.includes(field)
        ? editSide(study, line, field, text)
        : editSpan(study, line, text)
    case 'place':
    case 'number':
      return editPlace(study, line, field, text)
    case 'target':
      return editTarget(study, line, field, text)
    case 'words':
      return fits(line, { [field]: text })
    case 'choice':
      return editChoice(study, line, field, text)
    case 'curve':
      return field === 'name' ? editName(study, line, text) : editCurve(study, line, text)
  }
}

/** A change that the line's own schema takes. */
function fits(line: Statement, change: Record<string, unknown>): SlotEdit {
  const [member] = Object.values(change)
  return statementSchema.safeParse({ ...line, ...change }).success
    ? yes(changeLine(line.id, change))
    : no(`${String(member)} does not fit here`)
}

/** A choice; one that is a number goes to the slider that stands in its member, where one does. */
function editChoice(study: Study, line: Statement, field: string, text: string): SlotEdit {
  const chosen = kindOf(line).choose?.(line, field, text)
  if (!chosen) return fits(line, { [field]: text })
  const { change, slide } = chosen
  const held = slide && (line as unknown as Record<string, unknown>)[slide.member]
  const slider = study.sliders.find((s) => s.name === held)
  if (!slide || !slider) return fits(line, change)
  const { [slide.member]: _, ...others } = change as Record<string, unknown>
  const edit = changeLine(line.id, others)
  return yes((now) => setSlider(slider.name, slide.value)(edit(now)))
}

/** Another letter for a curve that has no formula slot. */
function editName(study: Study, line: Statement, text: string): SlotEdit {
  if (!isCurveMaker(line)) return no('only a curve has a name')
  const name = text.replace(/\(.*$/, '').trim()
  const problem = symbolProblem(study, line.name, name)
  return problem ? no(problem) : yes(renameSymbol(line.name, name))
}

/** A level, an expression or another curve. */
function editTarget(study: Study, line: Statement, field: string, text: string): SlotEdit {
  const target = text.replace(/^\s*=/, '').trim()
  if (target === '') return no('write a number, or the name of another curve')
  const ref = parseCurveRef(target)
  if (ref && curveMakers(study).some((l) => l.name === ref.curve)) {
    return yes(changeLine(line.id, { [field]: target }))
  }
  const parsed = readFormula(target, readingOf(study))
  const fault = parsed.ok ? undefined : parsed.problems.find((p) => !p.missing)
  if (fault) return no(fault.fix ? `${fault.message} · ${fault.fix}` : fault.message)
  return yes(changeLine(line.id, { [field]: target }))
}

/** Another formula for a curve, with the span and the title that follow it. */
export const retype = (id: string, formula: string): Edit =>
  titled((study) => withWindow(id)(changeFormula(id, formula)(study)))

function editFormula(study: Study, line: Statement, text: string): SlotEdit {
  if (isSurfaceMaker(line)) return editSurface(study, line, text)
  if (!isFormulaLine(line)) return no('only a curve has a formula')
  const { formula: said, span } = cutSpan(text)
  if (span) {
    const spanned = editSpan(study, line, `${span.from} to ${span.to}`)
    const rest = spanned.ok ? editFormula(study, line, said) : spanned
    return spanned.ok && rest.ok ? yes((now) => spanned.edit(rest.edit(now))) : rest
  }
  const typed = parseDefinition(text)
  const order = 'order' in line ? line.order : 0
  if (typed && typed.order !== order) {
    const named = curveText({ curve: line.name, order })
    return no(`this line gives ${named}: say “let ${text.trim()}” to add another`)
  }
  const formula = (typed ? typed.body : text).trim()
  const edits: Edit[] = []
  const { letter } = study.variable
  const taken = new Set([
    ...study.sliders.map((s) => s.name),
    ...curveLines(study).flatMap((l) => (l.id === line.id ? [] : [l.name])),
  ])
  if (typed && typed.name !== line.name) {
    if (taken.has(typed.name) || typed.name === (typed.variable ?? letter)) {
      return no(`${typed.name} is taken: choose another letter for the curve`)
    }
    if (!nameSchema.safeParse(typed.name).success) return no(`${typed.name} cannot be a name`)
    edits.push(renameSymbol(line.name, typed.name))
  }
  if (typed?.variable && typed.variable !== letter) {
    if (taken.has(typed.variable)) {
      return no(`${typed.variable} is taken: choose another letter for the variable`)
    }
    edits.push(renameSymbol(letter, typed.variable))
  }
  edits.push(changeFormula(line.id, formula), withWindow(line.id))
  return yes(titled((before) => edits.reduce((now, edit) => edit(now), before)))
}

/** Another formula for a surface; with its left side it may take other letters, with its tail another rectangle. */
function editSurface(study: Study, line: SurfaceMaker, text: string): SlotEdit {
  const typed = surfaceDefinition(text)
  const letters = typed?.letters ?? ([line.first, line.second] as const)
  const name = typed?.name ?? line.surface
  const { formula, sides } = cutSides(typed?.body ?? text, letters)
  if (formula.trim() === '') return no('a surface needs a formula, such as x² + y²')
  const taken = new Set([
    ...study.sliders.map((s) => s.name),
    ...allNames(study.lines.filter((l) => l.id !== line.id)),
  ])
  const wrong = [name, ...letters].find((one) => !nameSchema.safeParse(one).success)
  if (wrong !== undefined) return no(`${wrong} cannot be a name`)
  if (taken.has(name) || letters.includes(name)) {
    return no(`${name} is taken: choose another letter for the surface`)
  }
  const change = {
    ...{ first: letters[0], second: letters[1] },
    ...(sides ? { firstSpan: sides[0], secondSpan: sides[1] } : {}),
  }
  return yes(
    titled((before) => {
      const named = renameSymbol(line.surface, name)(before)
      return changeFormula(line.id, formula)(changeLine(line.id, change)(named))
    }),
  )
}

/** One side of the rectangle of a surface. */
function editSide(study: Study, line: Statement, field: string, text: string): SlotEdit {
  const said = parseSpan(text) ?? boundIn(text)?.span ?? null
  const own = (line as unknown as Record<string, unknown>)[field] as SpanText
  if (!said) return no('write the side as −3 to 3')
  const span = { ...own, ...said }
  const problem = spanProblem(study, span)
  return problem === null ? yes(changeLine(line.id, { [field]: span })) : no(problem)
}

function editSpan(study: Study, line: Statement, text: string): SlotEdit {
  if (!('span' in line) || !line.span) return no('this line has no span')
  const own = line.span
  if (text.trim() === '' && kindOf(line).uses.window) return yes(drawnEverywhere(line.id))
  const bound = boundIn(text)
  const said = parseSpan(text) ?? (bound?.rest === '' ? bound.span : null)
  const span = said && { ...own, ...said }
  const { letter } = study.variable
  if (!span) return no(`write the span as 0 ≤ ${letter} ≤ 10, or as 0 to 10`)
  const problem = spanProblem(study, span)
  if (problem !== null) return no(problem)
  if (!kindOf(line).uses.domain) return yes(setSpan(own, span))
  return yes(changeLine(line.id, { span, ...(isOpen(line) ? { window: null } : {}) }))
}

/** Why two ends make no span, or null where they do. */
function spanProblem({ sliders }: Study, span: SpanText): string | null {
  const [from, to] = [readNumber(span.from, sliders), readNumber(span.to, sliders)]
  if (!from.ok) return from.message
  if (!to.ok) return to.message
  const show = (x: number) => formatShort(x, 6)
  if (from.value === to.value) {
    return `both ends are ${show(from.value)}: a span needs two different ends`
  }
  return from.value > to.value
    ? `this span ends at ${show(to.value)}, below its beginning ${show(from.value)}: swap the ends`
    : null
}

function editPlace(study: Study, line: Statement, field: string, text: string): SlotEdit {
  const { letter } = study.variable
  const place = text.replace(new RegExp(`^\\s*${letter}\\s*(?:=|→|->)`), '').trim()
  if (place === '') return no('a place is a number or a slider, such as 2 or a')
  if (kindOf(line).reachesEnds && /^[-−+]?\s*(?:∞|inf|infinity)$/i.test(place)) {
    return yes(changeLine(line.id, { [field]: place.replace(/inf(?:inity)?/i, '∞') }))
  }
  const parsed = readFormula(place, readingOf(study))
  // A name without a value is kept: the line offers to give it one.
  const fault = parsed.ok ? undefined : parsed.problems.find((p) => !p.missing)
  if (fault) return no(fault.fix ? `${fault.message} · ${fault.fix}` : fault.message)
  return yes(changeLine(line.id, { [field]: place }))
}

function editCurve(study: Study, line: Statement, text: string): SlotEdit {
  const ref = parseCurveRef(text.replace(/\(.*$/, ''))
  if (!ref || !curveMakers(study).some((l) => l.name === ref.curve)) {
    const names = curveMakers(study).map((l) => l.name)
    return no(`there is no curve ${text.trim()}: there is ${names.join(', ')}`)
  }
  const changed = { ...line, ...ref }
  // Derivatives of a curve without a formula are slopes of its straight lines, or its integrand's.
  if (!statementSchema.safeParse(changed).success) {
    return no(`this line cannot be about ${text.trim()}: it takes another order of derivative`)
  }
  return yes(changeLine(line.id, { ...ref }))
}

import {
  allKinds,
  type CurveMaker,
  isCurveMaker,
  isMeasured,
  kindOf,
  lanesOpened,
  renameLine,
  type Statement,
  surfaceOf,
} from '../statements'
import type { LaneOf, NewSlider, Proposal, Request, SurfaceSaid } from '../statements/contract'
import { type CurveRef, parseCurveRef, sentenceText } from '../statements/shared/slots'
import { addSlider, placeSlider, plainSlider } from '../study/edits/sliders'
import { curveMakers, freshName, spelledFor } from '../study/edits/names'
import type { Edit } from '../study/edits/edit'
import { freshId, placesOfLine } from '../study/edits/lines'
import { drawnIn, isSame } from '../study/edits/laneCurves'
import { openLane, toggleOverlay } from '../study/edits/lanes'
import type { SpanText } from '../vocabulary/members'
import { createEvaluator } from '../results/evaluate'
import { asDefined } from './definitions'
import { plainRequest } from './leadIn'
import { nothingOffered } from './nothingOffered'
import { inPart, lastPart } from '../study/parts'
import type { Study } from '../study/schema'
import { isOpen, spanInFrame, withWindow } from '../study/windows'
import { readNumber } from '../vocabulary/values'
import type { Offer } from './offer'
import { sliderAsked } from './sliders'

const mostOffers = 8

const requestFor = (
  text: string,
  study: Study,
  place: string | null,
  span: SpanText | null = null,
): Request => ({
  text: plainRequest(asDefined(text), study.variable.letter, curveMakers(study)),
  typed: text.trim(),
  variable: study.variable,
  curves: curveMakers(study).map((line) => ({
    name: line.name,
    ...ownSpan(line, study),
    everywhere: isOpen(line),
  })),
  measured: curveMakers(study).flatMap((l) => (isMeasured(l) ? [l.name] : [])),
  surfaces: study.lines.flatMap((line) => surfaceSaid(line, study) ?? []),
  sliders: study.sliders.filter((s) => s.place).map((s) => s.name),
  otherSliders: study.sliders.filter((s) => !s.place).map((s) => s.name),
  place,
  span,
  ref: null,
})

function surfaceSaid(line: Statement, { sliders }: Study): SurfaceSaid | null {
  const made = surfaceOf(line)
  if (!made) return null
  const ends = made.sides.map(({ from, to }) =>
    [from, to]
      .map((text) => readNumber(text, sliders))
      .flatMap((end) => (end.ok ? [end.value] : [])),
  )
  const [x, y] = ends as [number[], number[]]
  const isKnown = x.length === 2 && y.length === 2
  return {
    ...made,
    ends: isKnown
      ? [
          [x[0]!, x[1]!],
          [y[0]!, y[1]!],
        ]
      : null,
  }
}

/** The span of a curve as text: its own, that of its readings, or that of the curve under it. */
function ownSpan(line: CurveMaker, study: Study): SpanText {
  const spanOf = (name: string): SpanText => {
    const under = curveMakers(study).find((l) => l.name === name && l !== line)
    return under ? ownSpan(under, study) : { from: '0', to: '1' }
  }
  if (isOpen(line)) return spanInFrame(study, line)
  return kindOf(line).curve!.span(line, spanOf)
}

/** The lines that each of some requests in the lines' own words could mean, likeliest first. */
export function linesFor(
  texts: readonly string[],
  study: Study,
  place: string | null,
  span: SpanText | null = null,
  /** As it was typed, where that is more than the words it comes to. */
  typed: string | null = null,
): Offer[] {
  const request = requestFor('', study, place, span)
  const asked = texts.map((text) => ({ ...request, text, typed: typed ?? text }))
  return toOffers(
    asked.flatMap((one) => allKinds.flatMap((kind) => kind.offers(one))),
    study,
  )
}

/** The lines that could be meant by what was typed as it stands, likeliest first. */
export function directOffers(
  text: string,
  study: Study,
  place: string | null,
  span: SpanText | null = null,
): Offer[] {
  const request = requestFor(text, study, place, span)
  return linesFor([request.text], study, place, span, request.typed)
}

/** Why nothing is offered for what was typed, and what could be typed instead. */
export function whyNothing(text: string, study: Study): string {
  const slider = sliderAsked(text, study)
  return slider && 'problem' in slider
    ? slider.problem
    : nothingOffered(requestFor(text, study, null))
}

function toOffers(proposals: Proposal<Statement>[], study: Study): Offer[] {
  const evaluate = createEvaluator({ results: false })
  const seen = new Set<string>()
  return proposals
    .map(({ line, newSliders }): Offer => {
      const add = addLine(line, newSliders)
      const next = add(study)
      const { id } = next.lines.at(-1)!
      // What the frame opens on is only looked for when the line is added.
      const edit: Edit = (now) => {
        const added = add(now)
        return withWindow(added.lines.at(-1)!.id)(added)
      }
      return { sentence: sentenceText(evaluate(next).sentences.get(id)!), edit }
    })
    .filter(({ sentence }) => !seen.has(sentence) && seen.add(sentence))
    .slice(0, mostOffers)
}

/** The lines that can hang on a place of a curve, for someone who points at it. */
export function offersAtPoint(ref: CurveRef, place: string, study: Study): Offer[] {
  const request = { ...requestFor('', study, place), ref }
  const proposals = allKinds.flatMap((kind) => kind.offers(request))
  return toOffers(
    proposals.filter(({ line }) => placesOfLine(line).includes(place)),
    study,
  )
}

/** The lines that can hang on a span, for someone who has drawn one on the ruler. */
export function offersOverSpan(span: SpanText, study: Study): Offer[] {
  const words = ['secant', 'average rate', 'where', 'table', 'area', 'turning points', 'features']
  return words.flatMap((word) => {
    const request = requestFor(word, study, null, span)
    return toOffers(
      allKinds.flatMap((kind) => kind.offers(request)),
      study,
    ).slice(0, 1)
  })
}

/** A line that another one offers, as a sentence and an edit. */
export const lineOffer = (line: Statement, study: Study): Offer => toOffers([{ line }], study)[0]!

/**
 * Adds a line, and first the sliders it hangs on that do not exist yet; a slider whose letter is
 * taken gets another one, in the line as well. A new curve opens its lane, and a line whose marks
 * stand on a derivative that is not shown does not open one.
 */
export const addLine =
  (line: Statement, newSliders: readonly NewSlider[] = []): Edit =>
  (study) => {
    let next = study
    let added = line
    for (const { name, place, ...rest } of newSliders) {
      const fresh = freshName(next, name)
      const base = place ? placeSlider(next, fresh) : plainSlider(fresh)
      next = addSlider({ ...base, ...rest })(next)
      if (fresh !== name) added = renameWord(added, name, fresh)
    }
    if (isCurveMaker(added)) next = spelledFor(added.name, next)
    next = { ...next, lines: [...next.lines, placed(added, next)] }
    const other = kindOf(added).whenAdded?.(added)
    if (other?.other !== undefined) return drawnTogether(other.lane, other.other)(next)
    if (other) return shownIn(other.lane)(next)
    if (!isCurveMaker(added)) return next
    return opened(added, next)
  }

/** A line as it is put to the end: of the part that the working ends with, if it does with one. */
const placed = (line: Statement, study: Study): Statement =>
  inPart({ ...line, id: freshId(study, 'line') }, lastPart(study))

/** With the lanes that open with a curve. */
const opened = (line: CurveMaker, study: Study): Study =>
  lanesOpened(line).reduce((now, order) => openLane(line.name, order)(now), study)

/** Opens the lane on which a line is seen, where nothing shows it yet. */
const shownIn =
  ({ curve, order }: LaneOf): Edit =>
  (study) => {
    const isShown = study.lanes.some((lane) =>
      drawnIn(lane).some((drawn) => isSame(drawn, { curve, order })),
    )
    return isShown || !curveMakers(study).some((l) => l.name === curve)
      ? study
      : openLane(curve, order)(study)
  }

/** Draws the curve that another one meets on the lane of that one, so that they are seen to meet. */
const drawnTogether =
  ({ curve, order }: LaneOf, target: string): Edit =>
  (study) => {
    const other = parseCurveRef(target)
    const lane = study.lanes.find((l) => l.curve === curve && l.order === order)
    if (!lane || !other || !curveMakers(study).some((c) => c.name === other.curve)) return study
    const shown = [{ curve: lane.curve, order: lane.order }, ...lane.overlays]
    return shown.some((one) => one.curve === other.curve && one.order === other.order)
      ? study
      : toggleOverlay(lane.id, other.curve, other.order)(study)
  }

/** Puts another letter for one in the places, spans and numbers of a line; its curve keeps its own. */
function renameWord(line: Statement, from: string, to: string): Statement {
  const word = new RegExp(`(?<![A-Za-z])${from}(?![A-Za-z])`, 'g')
  const renamed = renameLine(line, (text) => text.replace(word, to))
  return 'curve' in line ? ({ ...renamed, curve: line.curve } as Statement) : renamed
}

import { allKinds, kindOf, type Statement } from '../statements'
import type { Proposal, Request } from '../statements/kind'
import { type CurveRef, sentenceText } from '../statements/slots'
import { addSlider, curveLines, type Edit, freshId, freshName, newLane, placeSlider } from './edits'
import { createEvaluator } from './evaluate'
import type { Study } from './schema'

/** A sentence that "Say what to add" proposes, and the edit that adds it. */
export interface Offer {
  sentence: string
  edit: Edit
}

const mostOffers = 8

const requestFor = (text: string, study: Study, place: string | null): Request => ({
  text: text.trim(),
  variable: study.variable,
  curves: curveLines(study).map((l) => ({ name: l.name, ...l.span })),
  sliders: study.sliders.filter((s) => s.place).map((s) => s.name),
  place,
  ref: null,
})

/** The lines that could be meant by what was typed, likeliest first. */
export function offersFor(text: string, study: Study, selectedPlace: string | null): Offer[] {
  const request = requestFor(text, study, selectedPlace)
  return toOffers(
    allKinds.flatMap((kind) => kind.offers(request)),
    study,
  )
}

function toOffers(proposals: Proposal<Statement>[], study: Study): Offer[] {
  const evaluate = createEvaluator()
  const seen = new Set<string>()
  return proposals
    .map(({ line, newPlace }): Offer => {
      const edit = addLine(line, newPlace)
      const next = edit(study)
      const added = next.lines.at(-1)!
      return { sentence: sentenceText(evaluate(next).sentences.get(added.id)!), edit }
    })
    .filter(({ sentence }) => !seen.has(sentence) && seen.add(sentence))
    .slice(0, mostOffers)
}

/** The lines that can hang on a place of a curve, for someone who points at it. */
export function offersAtPoint(ref: CurveRef, place: string, study: Study): Offer[] {
  const request = { ...requestFor('', study, place), ref }
  const proposals = allKinds.flatMap((kind) => kind.offers(request))
  return toOffers(
    proposals.filter(({ line }) => kindOf(line).places(line).includes(place)),
    study,
  )
}

/** Adds a line, and first the place it hangs on where that is new. A new curve opens its lane. */
export const addLine =
  (line: Statement, newPlace?: string): Edit =>
  (study) => {
    let next = study
    let added = line
    if (newPlace !== undefined) {
      const name = freshName(study, newPlace)
      next = addSlider(placeSlider(study, name))(next)
      if ('place' in added && added.place === newPlace) added = { ...added, place: name }
    }
    next = { ...next, lines: [...next.lines, { ...added, id: freshId(next, 'line') }] }
    if (added.kind !== 'curve') return next
    const lane = newLane(freshId(next, 'lane'), added.name, 0)
    return { ...next, lanes: [...next.lanes, lane] }
  }

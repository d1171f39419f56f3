import { allKinds, type Statement } from '../statements'
import { sentenceText } from '../statements/slots'
import { addSlider, curveLines, type Edit, freshId, freshName, placeSlider } from './edits'
import { createEvaluator } from './evaluate'
import type { Study } from './schema'

/** A sentence that "Say what to add" proposes, and the edit that adds it. */
export interface Offer {
  sentence: string
  edit: Edit
}

const mostOffers = 8

/** The lines that could be meant by what was typed, likeliest first. */
export function offersFor(text: string, study: Study, selectedPlace: string | null): Offer[] {
  const request = {
    text: text.trim(),
    variable: study.variable,
    curves: curveLines(study).map((l) => ({ name: l.name, ...l.span })),
    sliders: study.sliders.filter((s) => s.place).map((s) => s.name),
    place: selectedPlace,
  }
  const evaluate = createEvaluator()
  const seen = new Set<string>()
  return allKinds
    .flatMap((kind) => kind.offers(request))
    .map(({ line, newPlace }): Offer => {
      const edit = addLine(line, newPlace)
      const next = edit(study)
      const added = next.lines.at(-1)!
      return { sentence: sentenceText(evaluate(next).sentences.get(added.id)!), edit }
    })
    .filter(({ sentence }) => !seen.has(sentence) && seen.add(sentence))
    .slice(0, mostOffers)
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
    const lane = {
      id: freshId(next, 'lane'),
      curve: added.name,
      order: 0,
      frame: null,
      equalScale: false,
    }
    return { ...next, lanes: [...next.lanes, lane] }
  }

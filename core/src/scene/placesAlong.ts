import type { Evaluation, PlaceResult } from '../results/evaluation'
import { curvesOfLine, isCurveMaker } from '../statements'
import { placesOfLine } from '../study/edits/lines'

/** The letter that a curve runs along: that of the study, but for some sections of a surface. */
export function letterAlong({ curves, study }: Evaluation, name: string): string {
  const found = curves.get(name)
  return (found?.ok ? found.curve.along : undefined) ?? study.variable.letter
}

/**
 * The places that mean something on a lane: those of lines about curves along the same letter as its
 * own. A place on which no line hangs is one of the study's variable.
 */
export function placesAlong(evaluation: Evaluation, curve: string): readonly PlaceResult[] {
  const { curves, study, places } = evaluation
  if (![...curves.values()].some((c) => c.ok && c.curve.along !== undefined)) return places
  const own = letterAlong(evaluation, curve)
  return places.filter(({ text }) => {
    const lines = study.lines.filter((line) => placesOfLine(line).some((t) => t.trim() === text))
    const letters = lines.flatMap((line) =>
      (isCurveMaker(line) ? [line.name] : curvesOfLine(line)).map((c) =>
        letterAlong(evaluation, c),
      ),
    )
    return letters.length > 0 ? letters.includes(own) : own === study.variable.letter
  })
}

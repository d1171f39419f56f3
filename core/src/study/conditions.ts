import { readFormula } from '../calculus/readFormula'
import {
  conditionsIn,
  type Condition,
  type ConditionProblem,
  type Piece,
  readCondition,
} from '../statements/condition'
import { withPowerOfTen } from '../vocabulary/values'
import { curveMakers, readingOf } from './edits/names'
import { partIsOn } from './parts'
import type { Study } from './schema'

/** What cannot be read in a condition as it is typed; offsets are 0-based into the text. */
export function conditionProblems(text: string, study: Study): ConditionProblem[] {
  const read = readCondition(text)
  if (!read.ok) return [...read.problems]
  const curves = new Set(curveMakers(study).map(({ name }) => name))
  const isPart = partIsOn(study.parts)
  const inPiece = ({ text: piece, from }: Piece, message: string, fix?: string) => ({
    ...{ message, from, to: from + piece.length },
    ...(fix === undefined ? {} : { fix }),
  })
  const formula = (piece: Piece): ConditionProblem[] => {
    const parsed = readFormula(withPowerOfTen(piece.text), readingOf(study))
    if (parsed.ok) return []
    return parsed.problems.slice(0, 1).map(({ message, fix, from, to }) => ({
      ...{ message, from: piece.from + from, to: piece.from + to },
      ...(fix === undefined ? {} : { fix }),
    }))
  }
  const curve = (piece: Piece) =>
    curves.has(piece.text) ? [] : [inPiece(piece, `nothing is called ${piece.text}`)]
  const problemsOf = (one: Condition): ConditionProblem[] => {
    switch (one.kind) {
      case 'compare':
        return one.sides.flatMap(formula)
      case 'shape':
        return [...curve(one.curve), ...formula(one.place)]
      case 'near':
        return [
          ...curve(one.curve),
          ...formula(one.place),
          ...(one.within ? formula(one.within) : []),
        ]
      case 'part':
        return isPart(one.letter, one.id) === null
          ? [inPiece(one.at, `there is no part ${one.letter}`, 'drop it')]
          : []
      default:
        return []
    }
  }
  return conditionsIn(read.condition).flatMap(problemsOf)
}

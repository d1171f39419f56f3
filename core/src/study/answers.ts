import { mostDrawnPoints, type SignGuess } from '../vocabulary/members'
import type { Edit } from './edits/edit'
import type { Study } from './schema'

type Points = readonly (readonly [x: number, y: number])[]

const without = <T>(all: Readonly<Record<string, T>>, key: string): Record<string, T> =>
  Object.fromEntries(Object.entries(all).filter(([k]) => k !== key))

/** Every second point where there are more than a study keeps; a drawing has far more than it needs. */
const thinned = (points: Points): Points =>
  points.length <= mostDrawnPoints ? points : thinned(points.filter((_, i) => i % 2 === 0))

/** Keeps the graph that was drawn on a covered lane, or takes it away. */
export const setGuess =
  (lane: string, points: Points | null): Edit =>
  (study) => {
    const rest = without(study.answers.guesses, lane)
    const guesses = points
      ? { ...rest, [lane]: thinned(points).map(([x, y]): [number, number] => [x, y]) }
      : rest
    return { ...study, answers: { ...study.answers, guesses } }
  }

/** Keeps the signs that were marked on a covered lane, or takes them away. */
export const setSignGuess =
  (lane: string, guess: SignGuess | null): Edit =>
  (study) => {
    const rest = without(study.answers.signs, lane)
    const signs = guess
      ? { ...rest, [lane]: { ...guess, cuts: [...guess.cuts], signs: [...guess.signs] } }
      : rest
    return { ...study, answers: { ...study.answers, signs } }
  }

/** Answers to lanes that are gone go with them. */
export function keepAnswered(study: Study): Study {
  const open = new Set(study.lanes.map((l) => l.id))
  const { guesses, signs } = study.answers
  const ids = [...Object.keys(guesses), ...Object.keys(signs)]
  if (ids.every((id) => open.has(id))) return study
  const kept = <T>(all: Record<string, T>) =>
    Object.fromEntries(Object.entries(all).filter(([id]) => open.has(id)))
  return { ...study, answers: { guesses: kept(guesses), signs: kept(signs) } }
}

import { type Attempt, mostAttempts, mostDrawnPoints, type SignGuess } from '../vocabulary/members'
import type { Edit } from './edits/edit'
import { changeLane } from './framing'
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

/**
 * Puts what was answered on a lane aside and covers the lane again, for another try; the oldest go
 * where there are more than a study keeps.
 */
export const tryAgain =
  (lane: string): Edit =>
  (study) => {
    const { guesses, signs, earlier } = study.answers
    const [guess, marked] = [guesses[lane], signs[lane]]
    if (!guess && !marked) return study
    const attempt: Attempt = {
      lane,
      ...(guess && { guess }),
      ...(marked && { signs: marked }),
    }
    const answers = {
      ...study.answers,
      guesses: without(guesses, lane),
      signs: without(signs, lane),
      earlier: [...earlier, attempt].slice(-mostAttempts),
    }
    return changeLane(lane, { covered: true })({ ...study, answers })
  }

/** Forgets all that was answered on a lane, earlier tries as well. */
export const clearAnswers =
  (lane: string): Edit =>
  (study) => {
    const { guesses, signs, earlier } = study.answers
    const answers = {
      ...study.answers,
      guesses: without(guesses, lane),
      signs: without(signs, lane),
      earlier: earlier.filter((one) => one.lane !== lane),
    }
    return { ...study, answers }
  }

/** Answers to lanes that are gone go with them. */
export function keepAnswered(study: Study): Study {
  const open = new Set(study.lanes.map((l) => l.id))
  const { guesses, signs, earlier } = study.answers
  const ids = [
    ...[...Object.keys(guesses), ...Object.keys(signs)],
    ...earlier.map(({ lane }) => lane),
  ]
  if (ids.every((id) => open.has(id))) return study
  const kept = <T>(all: Record<string, T>) =>
    Object.fromEntries(Object.entries(all).filter(([id]) => open.has(id)))
  const answers = {
    ...study.answers,
    ...{ guesses: kept(guesses), signs: kept(signs) },
    earlier: earlier.filter(({ lane }) => open.has(lane)),
  }
  return { ...study, answers }
}

import type { Answers } from '../vocabulary/members'
import type { Study } from './schema'
import { inStep } from './steps'

/** What is laid over a saved study while it is shown; all of it is data. */
export interface Overlay {
  /** The step that is shown, by its id; one that there is not shows the study itself. */
  step?: string | null
  /** Values of sliders on their way, by name: they enter neither history nor what is saved. */
  live?: Readonly<Record<string, number>>
  /** What a learner has answered, in place of what is saved. */
  answers?: Answers | null
}

/**
 * A study as it is shown: the only place where something is laid over what is saved. The same study
 * where nothing is; names that no slider has are left out.
 */
export function shownStudy(
  saved: Study,
  { step = null, live = {}, answers = null }: Overlay,
): Study {
  const study = inStep(saved, step)
  const moves = study.sliders.some(({ name, value }) => name in live && live[name] !== value)
  const answered = answers !== null && answers !== study.answers
  if (!moves && !answered) return study
  return {
    ...study,
    ...(moves
      ? { sliders: study.sliders.map((s) => (s.name in live ? { ...s, value: live[s.name]! } : s)) }
      : {}),
    ...(answered ? { answers } : {}),
  }
}

import type { Study } from './schema'

/** A state of a study, and the step in which it was changed next. */
interface Moment {
  study: Study
  step: string | null
}

/** A study with the states before and after it, and the step that is open. */
export interface History {
  past: readonly Moment[]
  present: Study
  step: string | null
  future: readonly Moment[]
  /** What made the present: edits of one running gesture share it and undo as one. */
  gesture: string | null
}

const longest = 200

export const startHistory = (study: Study): History => ({
  past: [],
  present: study,
  step: null,
  future: [],
  gesture: null,
})

/** Takes in the next state; with the gesture of the last one it replaces that. */
export function record(history: History, next: Study, gesture: string | null = null): History {
  if (next === history.present) return history
  const joins = gesture !== null && gesture === history.gesture
  const { step, present } = history
  const past = joins ? history.past : [...history.past, { study: present, step }].slice(-longest)
  return { past, present: next, step: openIn(next, step), future: [], gesture }
}

/** A step that a study has not is not open. */
const openIn = ({ steps }: Study, step: string | null) =>
  steps.some(({ id }) => id === step) ? step : null

/** Opens a step, or with null none: nothing of the study changes by that. */
export const openStep = (history: History, step: string | null): History => {
  const now = openIn(history.present, step)
  return now === history.step ? history : { ...history, step: now, gesture: null }
}

/** After the end of a gesture the next edit is one of its own, whatever it is called. */
export const endGesture = (history: History): History =>
  history.gesture === null ? history : { ...history, gesture: null }

/** Goes back by one edit, to the step in which it was made. */
export function undo(history: History): History {
  const before = history.past.at(-1)
  if (!before) return history
  const { study, step } = before
  return {
    past: history.past.slice(0, -1),
    present: study,
    step: openIn(study, step),
    future: [{ study: history.present, step }, ...history.future],
    gesture: null,
  }
}

export function redo(history: History): History {
  const [after, ...future] = history.future
  if (!after) return history
  const { study, step } = after
  return {
    past: [...history.past, { study: history.present, step }],
    present: study,
    step: openIn(study, step),
    future,
    gesture: null,
  }
}

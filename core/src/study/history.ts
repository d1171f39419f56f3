import type { Study } from './schema'

/** A study with the states before and after it. */
export interface History {
  past: readonly Study[]
  present: Study
  future: readonly Study[]
  /** What made the present: edits of one running gesture share it and undo as one. */
  gesture: string | null
}

const longest = 200

export const startHistory = (study: Study): History => ({
  past: [],
  present: study,
  future: [],
  gesture: null,
})

/** Takes in the next state; with the gesture of the last one it replaces that. */
export function record(history: History, next: Study, gesture: string | null = null): History {
  if (next === history.present) return history
  const joins = gesture !== null && gesture === history.gesture
  const past = joins ? history.past : [...history.past, history.present].slice(-longest)
  return { past, present: next, future: [], gesture }
}

/** After the end of a gesture the next edit is one of its own, whatever it is called. */
export const endGesture = (history: History): History =>
  history.gesture === null ? history : { ...history, gesture: null }

export function undo(history: History): History {
  const before = history.past.at(-1)
  if (!before) return history
  return {
    past: history.past.slice(0, -1),
    present: before,
    future: [history.present, ...history.future],
    gesture: null,
  }
}

export function redo(history: History): History {
  const [after, ...future] = history.future
  if (!after) return history
  return { past: [...history.past, history.present], present: after, future, gesture: null }
}

import type { Drawing } from './drawing'
import type { GetWorkbench, SetWorkbench, Workbench } from './state'

/** What comes back from elsewhere: the worker, and the server that keeps the study. */
export function elsewhere(
  set: SetWorkbench,
  get: GetWorkbench,
  { evaluate, sceneFor, show }: Drawing,
): Pick<Workbench, 'applyLong' | 'settle' | 'setFinding' | 'setStatus' | 'setTheirs' | 'setGone'> {
  return {
    applyLong(line, pending, outcome) {
      if (!evaluate.apply(pending, outcome)) return
      show(get().history)
      const still = get().evaluation.lines.get(line)
      // Work that has no end would be asked for again and again.
      if (still?.pending) {
        const problems = [{ message: 'this could not be settled' }]
        get().settle(still, { ...still, pending: false, problems })
      }
    },
    settle(pending, settled) {
      if (evaluate.settle(pending, settled)) show(get().history)
    },
    setFinding(curve, found) {
      const { evaluation, size, held, history } = get()
      const examined = new Map(get().examined)
      if (found) examined.set(curve, found)
      else examined.delete(curve)
      const hurried = history.gesture !== null
      set({ examined, scene: sceneFor(evaluation, size, held, { hurried, examined }) })
    },
    setStatus: (status, fault) => set({ status, fault }),
    setTheirs: (theirs) => set({ theirs }),
    setGone: () => set({ gone: true }),
  }
}

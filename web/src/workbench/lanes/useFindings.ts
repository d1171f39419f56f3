import { useEffect, useEffectEvent } from 'react'
import { useWorkerQuestion } from '../../work/useWorkerQuestion'
import { useWorkbench, useWorkbenchStore } from '../store'

/** Has a curve examined in the worker whenever it has changed; what was found goes to the store. */
export function useFindings(curve: string) {
  const store = useWorkbenchStore()
  // A curve keeps its identity while a place moves, so a drag asks nothing.
  const subject = useWorkbench((s) => s.evaluation.curves.get(curve))
  const { ask } = useWorkerQuestion<'examination', unknown>('examination', {
    answer: ({ found }, asked) => store.getState().setFinding(curve, asked, found),
    // A curve that cannot be examined has no finding; its lane says what is wrong with it.
    fault: () => store.getState().setFinding(curve, null, null),
  })
  const onCurve = useEffectEvent(() => {
    // Without a formula nothing can be proven, and nothing is claimed.
    if (!subject?.ok || !subject.curve.formula) {
      if (store.getState().examined.has(curve)) store.getState().setFinding(curve, null, null)
      return
    }
    ask({ study: JSON.stringify(store.getState().evaluation.study), curve }, subject)
  })
  useEffect(() => onCurve(), [subject, curve])
}

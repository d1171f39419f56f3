import type { Examination } from '@yperkine/core'
import { useEffect, useRef } from 'react'
import { askExamination } from '../work/channel'
import { type Latest, latestWins } from '../work/latest'
import { useWorkbench, useWorkbenchStore } from './store'

interface Question {
  study: string
  /** The curve as it was when it was asked about. */
  subject: unknown
}

/** Has a curve examined in the worker whenever it has changed; what was found goes to the store. */
export function useFindings(curve: string) {
  const store = useWorkbenchStore()
  // A curve keeps its identity while a place moves, so a drag asks nothing.
  const subject = useWorkbench((s) => s.evaluation.curves.get(curve))
  const queue = useRef<Latest<Question, { found: Examination }> | null>(null)

  useEffect(() => {
    const made = latestWins<Question, { found: Examination }>(({ study }) =>
      askExamination({ study, curve }),
    )
    made.onResult = ({ found }, { subject: asked }) =>
      store.getState().setFinding(curve, asked, found)
    // A curve that cannot be examined has no finding; its lane says what is wrong with it.
    made.onFault = () => store.getState().setFinding(curve, null, null)
    queue.current = made
    return () => made.stop()
  }, [curve, store])

  useEffect(() => {
    // Without a formula nothing can be proven, and nothing is claimed.
    if (!subject?.ok || !subject.curve.formula) {
      if (store.getState().examined.has(curve)) store.getState().setFinding(curve, null, null)
      return
    }
    const study = JSON.stringify(store.getState().evaluation.study)
    queue.current?.ask({ study, subject })
  }, [subject, store, curve])
}

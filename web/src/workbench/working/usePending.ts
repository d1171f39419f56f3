import type { LineResult } from '@yperkine/core'
import { useEffect, useEffectEvent } from 'react'
import { trace } from '../../parts/trace'
import { useWorkerQuestion } from '../../work/useWorkerQuestion'
import { useWorkbench, useWorkbenchStore } from '../store'

/** Has a line worked out in the worker whenever its own work takes too long for the page. */
export function usePending(id: string) {
  const store = useWorkbenchStore()
  const pending = useWorkbench((s) => {
    const result = s.evaluation.lines.get(id)
    return result?.pending ? result : null
  })
  const { progress, stopped, ask, stop } = useWorkerQuestion<'line', LineResult>('line', {
    answer: ({ outcome }, asked) => store.getState().applyLong(id, asked, outcome),
    fault(fault, asked) {
      trace(`${id} could not be worked out`, fault)
      const message = `this could not be worked out: ${String(fault)}`
      const failed = { readouts: [], marks: [], problems: [{ message }], hints: [] }
      store.getState().settle(asked, failed)
    },
  })
  const goOn = () => {
    const study = JSON.stringify(store.getState().evaluation.study)
    if (pending) ask({ study, line: id }, pending)
  }
  const onPending = useEffectEvent(() => {
    if (pending) goOn()
    // A line that settles on the page needs no answer any more.
    else stop()
  })
  useEffect(() => onPending(), [pending])
  return {
    progress,
    stopped,
    isPending: pending !== null,
    stop: () => stop({ bySomeone: true }),
    goOn,
  }
}

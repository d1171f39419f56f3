import type { Range } from '@yperkine/core'
import { useEffect, useEffectEvent, useState } from 'react'
import { useWorkerQuestion } from '../../work/useWorkerQuestion'
import { useWorkbench, useWorkbenchStore } from '../store'

/** Least and greatest value of a lane's curve on its span, looked for in the worker. */
export function useRange(curve: string, order: number) {
  const store = useWorkbenchStore()
  // A curve keeps its identity while a place moves, so a drag asks nothing.
  const subject = useWorkbench((s) => s.evaluation.curves.get(curve))
  const [found, setFound] = useState<{ range: Range; subject: unknown } | null>(null)
  const { progress, stopped, ask, stop } = useWorkerQuestion<'range', unknown>('range', {
    answer: ({ found: range }, asked) => setFound({ range, subject: asked }),
    fault: () => setFound(null),
  })
  const onCurve = useEffectEvent(() => {
    if (!subject?.ok) return
    ask({ study: JSON.stringify(store.getState().evaluation.study), curve, order }, subject)
  })
  useEffect(() => onCurve(), [subject, curve, order])
  return {
    found: found?.range ?? null,
    /** The curve has changed since this was found. */
    stale: found !== null && found.subject !== subject,
    progress,
    stopped,
    stop: () => stop({ bySomeone: true }),
  }
}

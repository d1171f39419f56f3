import type { LineResult } from '@yperkine/core'
import { useEffect, useRef } from 'react'
import { askLine } from '../work/channel'
import { type Latest, latestWins } from '../work/latest'
import { useWorkbench, useWorkbenchStore } from './store'

interface Question {
  study: string
  pending: LineResult
}

/** Has a line worked out in the worker whenever its own work takes too long for the page. */
export function usePending(id: string) {
  const store = useWorkbenchStore()
  const pending = useWorkbench((s) => {
    const result = s.evaluation.lines.get(id)
    return result?.pending ? result : null
  })
  const queue = useRef<Latest<Question, { found: LineResult }> | null>(null)
  useEffect(() => {
    const made = latestWins<Question, { found: LineResult }>(({ study }) =>
      askLine({ study, line: id }),
    )
    made.onResult = ({ found }, { pending: asked }) => store.getState().settle(asked, found)
    made.onFault = (fault, { pending: asked }) => {
      const message = `this could not be worked out: ${String(fault)}`
      const failed = { readouts: [], marks: [], problems: [{ message }], hints: [] }
      store.getState().settle(asked, failed)
    }
    queue.current = made
    return () => made.stop()
  }, [id, store])
  useEffect(() => {
    if (!pending) return
    queue.current?.ask({ study: JSON.stringify(store.getState().evaluation.study), pending })
  }, [pending, store])
}

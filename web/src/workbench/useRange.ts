import type { RangeFound } from '@yperkine/core'
import { useEffect, useRef, useState } from 'react'
import { askRange } from '../work/channel'
import { type Latest, latestWins } from '../work/latest'
import { useWorkbench, useWorkbenchStore } from './store'

/** Progress is worth a word only when it takes a while. */
const progressAfter = 300

export interface RangeState {
  found: RangeFound | null
  /** The curve has changed since this was found. */
  stale: boolean
  /** The share that is done, once it takes long. */
  progress: number | null
  stopped: boolean
}

interface Question {
  study: string
  asked: number
}

/** Least and greatest value of a lane's curve on its span, looked for in the worker. */
export function useRange(curve: string, order: number): RangeState & { stop: () => void } {
  const store = useWorkbenchStore()
  // A curve keeps its identity while a place moves, so a drag asks nothing.
  const subject = useWorkbench((s) => s.evaluation.curves.get(curve))
  const [state, setState] = useState<RangeState>({
    found: null,
    stale: false,
    progress: null,
    stopped: false,
  })
  const queue = useRef<Latest<Question, { found: RangeFound }> | null>(null)

  const current = useRef<Question | null>(null)

  useEffect(() => {
    const change = (next: Partial<RangeState>) => setState((now) => ({ ...now, ...next }))
    const made = latestWins<Question, { found: RangeFound }>((question) => {
      const { study, asked } = question
      return askRange({ study, curve, order }, (share) => {
        // Word of a question that is stopped or answered may still be on its way.
        if (current.current !== question) return
        if (performance.now() - asked > progressAfter) change({ progress: share })
      })
    })
    made.onResult = ({ found }) => {
      current.current = null
      setState({ found, stale: false, progress: null, stopped: false })
    }
    made.onFault = () => change({ found: null, progress: null })
    queue.current = made
    return () => made.stop()
  }, [curve, order])

  useEffect(() => {
    if (!subject?.ok) return
    setState((now) => ({ ...now, stale: true, stopped: false }))
    const question = {
      study: JSON.stringify(store.getState().evaluation.study),
      asked: performance.now(),
    }
    current.current = question
    queue.current?.ask(question)
  }, [subject, store, curve, order])

  const stop = () => {
    current.current = null
    queue.current?.stop()
    setState((now) => ({ ...now, progress: null, stopped: true }))
  }
  return { ...state, stop }
}

import type { LineResult } from '@yperkine/core'
import { useEffect, useEffectEvent, useRef, useState } from 'react'
import { trace } from '../parts/trace'
import { askLine } from '../work/channel'
import { type Latest, latestWins } from '../work/latest'
import { useWorkbench, useWorkbenchStore } from './store'

/** Progress is worth a word only when it takes a while, in milliseconds. */
const progressAfter = 300

interface Question {
  study: string
  pending: LineResult
  asked: number
}

interface PendingState {
  /** The share that is done, once it takes long. */
  progress: number | null
  /** Someone has stopped it; it can go on. */
  stopped: boolean
}
const quiet: PendingState = { progress: null, stopped: false }

/** Has a line worked out in the worker whenever its own work takes too long for the page. */
export function usePending(id: string) {
  const store = useWorkbenchStore()
  const pending = useWorkbench((s) => {
    const result = s.evaluation.lines.get(id)
    return result?.pending ? result : null
  })
  const [state, setState] = useState<PendingState>(quiet)
  const queue = useRef<Latest<Question, { outcome: unknown }> | null>(null)
  const current = useRef<Question | null>(null)

  useEffect(() => {
    const made = latestWins<Question, { outcome: unknown }>((question) =>
      askLine({ study: question.study, line: id }, (progress) => {
        // Word of a question that is stopped or answered may still be on its way.
        if (current.current !== question) return
        if (performance.now() - question.asked > progressAfter) {
          setState({ progress, stopped: false })
        }
      }),
    )
    const done = () => {
      current.current = null
      setState(quiet)
    }
    made.onResult = ({ outcome }, { pending: asked }) => {
      done()
      store.getState().applyLong(id, asked, outcome)
    }
    made.onFault = (fault, { pending: asked }) => {
      done()
      trace(`${id} could not be worked out`, fault)
      const message = `this could not be worked out: ${String(fault)}`
      const failed = { readouts: [], marks: [], problems: [{ message }], hints: [] }
      store.getState().settle(asked, failed)
    }
    queue.current = made
    return () => made.stop()
  }, [id, store])

  const ask = (result: LineResult) => {
    const study = JSON.stringify(store.getState().evaluation.study)
    const question = { study, pending: result, asked: performance.now() }
    current.current = question
    queue.current?.ask(question)
    setState(quiet)
  }
  const onPending = useEffectEvent((result: LineResult | null) => {
    if (result) ask(result)
    // A line that settles on the page needs no answer any more.
    else if (current.current) {
      current.current = null
      queue.current?.stop()
    }
  })
  useEffect(() => onPending(pending), [pending])

  const stop = () => {
    current.current = null
    queue.current?.stop()
    setState({ progress: null, stopped: true })
  }
  const goOn = () => {
    if (pending) ask(pending)
  }
  return { ...state, isPending: pending !== null, stop, goOn }
}

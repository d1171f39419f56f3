import { useEffect, useEffectEvent, useRef, useState } from 'react'
import { type Answer, type Asked, askWorker, type Job } from './channel'
import { type Latest, latestWins } from './latest'

/** Progress is worth a word only when it takes a while, in milliseconds. */
const progressAfter = 300

interface Question<A extends Asked, S> {
  job: Job<A>
  /** What was asked about, as it was then. */
  subject: S
  asked: number
}

interface State {
  /** The share that is done, once it takes long. */
  progress: number | null
  /** Someone has stopped it. */
  stopped: boolean
}
const quiet: State = { progress: null, stopped: false }

/**
 * Questions to the worker, of which the latest wins: an answer that comes too late, or to a question
 * that was stopped, is not heard. A part that has gone asks nothing any more.
 */
export function useWorkerQuestion<A extends Asked, S>(
  what: A,
  hears: {
    answer: (answer: Answer<A>, subject: S) => void
    fault: (fault: unknown, subject: S) => void
  },
) {
  const [state, setState] = useState<State>(quiet)
  const queue = useRef<Latest<Question<A, S>, Answer<A>> | null>(null)
  const current = useRef<Question<A, S> | null>(null)
  const onAnswer = useEffectEvent(hears.answer)
  const onFault = useEffectEvent(hears.fault)

  useEffect(() => {
    const made = latestWins<Question<A, S>, Answer<A>>((question) =>
      askWorker(what, question.job, (progress) => {
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
    made.onResult = (answer, { subject }) => {
      done()
      onAnswer(answer, subject)
    }
    made.onFault = (fault, { subject }) => {
      done()
      onFault(fault, subject)
    }
    queue.current = made
    return () => made.stop()
  }, [what])

  const ask = (job: Job<A>, subject: S) => {
    const question = { job, subject, asked: performance.now() }
    current.current = question
    queue.current?.ask(question)
    setState(quiet)
  }
  /** The answer is not needed any more; said by someone, that is shown. */
  const stop = ({ bySomeone = false } = {}) => {
    if (!current.current && !bySomeone) return
    current.current = null
    queue.current?.stop()
    setState({ progress: null, stopped: bySomeone })
  }
  return { ...state, ask, stop }
}

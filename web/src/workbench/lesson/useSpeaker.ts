import type { Step } from '@yperkine/core'
import { useEffect, useMemo, useRef } from 'react'
import { useStudy, useWorkbench, useWorkbenchStore } from '../store'
import { type Lesson, openChannel, type Told } from './channel'

const told = (step: Step | undefined): Told | null =>
  step ? { title: step.title, question: step.question, words: step.words } : null

/** Tells the speaker's window where the lesson is, and goes where it says. */
export function useSpeaker() {
  const store = useWorkbenchStore()
  const steps = useStudy((s) => s.steps)
  const title = useStudy((s) => s.title)
  const open = useWorkbench((s) => s.history.step)
  const since = useWorkbench((s) => s.presenting?.since ?? 0)
  const lesson = useMemo((): Lesson => {
    const at = steps.findIndex((s) => s.id === open)
    return {
      ...{ kind: 'lesson', study: title, at, count: steps.length, since },
      ...{ step: told(steps[at]), next: told(steps[at + 1]) },
    }
  }, [steps, title, open, since])
  const present = useRef(lesson)
  const channel = useRef<ReturnType<typeof openChannel>>(null)
  const { id } = store.getState()
  useEffect(() => {
    const opened = openChannel(id, (message) => {
      if (message.kind === 'hello') opened.tell(present.current)
      if (message.kind === 'go') store.getState().goOn(message.by)
    })
    channel.current = opened
    return () => {
      opened.tell({ kind: 'ended' })
      opened.close()
    }
  }, [id, store])
  useEffect(() => {
    present.current = lesson
    channel.current?.tell(lesson)
  }, [lesson])
}

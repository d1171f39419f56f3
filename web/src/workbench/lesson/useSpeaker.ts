import { useEffect, useMemo, useRef } from 'react'
import { useStudy, useWorkbench, useWorkbenchStore } from '../store'
import { type Lesson, openChannel, type Told } from './channel'
import { useStepIds, useStepWords } from './useLesson'

const told = (step: ReturnType<typeof useStepWords>): Told | null =>
  step && { title: step.title, question: step.question, words: step.words }

/** Tells the speaker's window where the lesson is, and goes where it says. */
export function useSpeaker() {
  const store = useWorkbenchStore()
  const ids = useStepIds()
  const title = useStudy((s) => s.title)
  const open = useWorkbench((s) => s.history.step)
  const since = useWorkbench((s) => s.presenting?.since ?? 0)
  const at = ids.findIndex((id) => id === open)
  const step = useStepWords(open)
  const next = useStepWords(ids[at + 1] ?? null)
  const lesson = useMemo((): Lesson => {
    return {
      ...{ kind: 'lesson', study: title, at, count: ids.length, since },
      ...{ step: told(step), next: told(next) },
    }
  }, [ids, title, at, step, next, since])
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

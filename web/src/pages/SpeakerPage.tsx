import { ChevronLeft, ChevronRight } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { useParams } from 'react-router'
import { type Lesson, openChannel } from '../workbench/lesson/channel'

const two = (n: number) => String(Math.floor(n)).padStart(2, '0')

/** The time of day, and how long the lesson has gone on. */
function Clock({ since }: { since: number | null }) {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000)
    return () => clearInterval(timer)
  }, [])
  const day = new Date(now)
  const gone = since === null ? null : Math.max(0, (now - since) / 1000)
  return (
    <p className="ml-auto flex gap-6 text-[22px] tabular-nums">
      <span role="timer" aria-label="Time">
        {two(day.getHours())}:{two(day.getMinutes())}
      </span>
      {gone !== null && (
        <span role="timer" aria-label="Since the beginning" className="font-semibold">
          {two(gone / 60)}:{two(gone % 60)}
        </span>
      )}
    </p>
  )
}

/** The speaker's own window: what to say, what comes next, and a clock. */
export function SpeakerPage() {
  const { id = '' } = useParams()
  const [lesson, setLesson] = useState<Lesson | null>(null)
  const [ended, setEnded] = useState(false)
  const channel = useRef<ReturnType<typeof openChannel>>(null)
  useEffect(() => {
    const opened = openChannel(id, (message) => {
      if (message.kind === 'lesson') {
        setLesson(message)
        setEnded(false)
      }
      if (message.kind === 'ended') setEnded(true)
    })
    channel.current = opened
    opened.tell({ kind: 'hello' })
    return () => opened.close()
  }, [id])
  const go = (by: 1 | -1) => channel.current?.tell({ kind: 'go', by })
  useEffect(() => {
    const onKey = ({ key }: KeyboardEvent) => {
      if (key === 'PageDown' || key === ']' || key === 'ArrowRight') go(1)
      if (key === 'PageUp' || key === '[' || key === 'ArrowLeft') go(-1)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  useEffect(() => {
    document.title = lesson ? `Speaker · ${lesson.study}` : 'Speaker · Yperkine'
  }, [lesson])
  return (
    <main className="flex h-full flex-col gap-5 overflow-y-auto bg-page p-6">
      <header className="flex items-baseline gap-4">
        <h1 className="font-serif text-[20px] font-semibold">{lesson?.study ?? 'Speaker'}</h1>
        {lesson && lesson.count > 0 && (
          <span className="text-quiet">
            {lesson.at + 1} of {lesson.count}
          </span>
        )}
        <Clock since={lesson && !ended ? lesson.since : null} />
      </header>
      {!lesson && (
        <p role="status" className="text-quiet">
          Nothing is presented at the moment: begin in the window of the study, with P.
        </p>
      )}
      {ended && (
        <p role="status" className="text-quiet">
          Presenting has ended.
        </p>
      )}
      {lesson && !ended && (
        <>
          <section aria-label="Now" className="grid gap-3">
            <h2 className="font-serif text-[28px] font-semibold">
              {lesson.step?.title ?? 'No step is open'}
            </h2>
            {lesson.step?.question && (
              <p className="font-serif text-[20px] text-quiet">{lesson.step.question}</p>
            )}
            <p className="text-[22px] leading-[1.5] whitespace-pre-wrap">
              {lesson.step?.words ?? ''}
            </p>
          </section>
          <section aria-label="Next" className="mt-auto border-t border-rule pt-4">
            <h2 className="text-quiet">Next</h2>
            <p className="font-serif text-[20px]">
              {lesson.next?.title ?? 'That was the last step.'}
            </p>
            {lesson.next?.question && <p className="text-quiet">{lesson.next.question}</p>}
          </section>
          <div className="flex gap-2">
            <button type="button" className="button min-h-12 flex-1" onClick={() => go(-1)}>
              <ChevronLeft aria-hidden /> Previous in lesson
            </button>
            <button
              type="button"
              className="button button-primary min-h-12 flex-1"
              onClick={() => go(1)}
            >
              Next in lesson <ChevronRight aria-hidden />
            </button>
          </div>
        </>
      )}
    </main>
  )
}

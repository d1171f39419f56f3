import {
  type Attempt,
  changeLane,
  clearAnswers,
  compareGuess,
  compareSigns,
  formatShort,
  type GuessCompared,
  type LaneScene,
  type DrawnFunction,
  setGuess,
  tryAgain,
} from '@yperkine/core'
import { type PointerEvent, useRef } from 'react'
import { useShallow } from 'zustand/react/shallow'
import { SignMarks, signsSentence, SignVerdicts } from './SignMarks'
import { useStudy, useWorkbench, useWorkbenchStore } from '../store'
import { usePainting } from '../drawing/usePainting'
import { newGesture } from '../gestures/gesture'
import { heightUnder, pixelOfHeight, pixelOfValue, valueUnder } from '../gestures/axis'

/**
 * A lane whose graph is hidden until the learner has guessed: a guess is drawn with the pointer,
 * stays in its own coordinates, and is compared when the lane is uncovered.
 */
export function Cover({ lane }: { lane: Pick<LaneScene, 'id' | 'title' | 'curve' | 'order'> }) {
  const covered = useStudy((s) => s.lanes.find((l) => l.id === lane.id)?.covered ?? false)
  const drawn = useStudy(
    ({ answers }) =>
      (answers.guesses[lane.id]?.length ?? 0) > 1 ||
      lane.id in answers.signs ||
      answers.earlier.some((one) => one.lane === lane.id),
  )
  if (!covered && !drawn) return null
  return (
    <>
      {covered && <Sheet lane={lane} />}
      <Guess id={lane.id} covered={covered} />
      {!covered && (
        <>
          <Compared lane={lane} />
          <SignVerdicts lane={lane} />
        </>
      )}
    </>
  )
}

type Named = Pick<LaneScene, 'id' | 'title' | 'curve' | 'order'>

function Sheet({ lane }: { lane: Named }) {
  const store = useWorkbenchStore()
  const drawing = useRef<{ points: [number, number][]; gesture: string } | null>(null)
  const sheet = useRef<HTMLDivElement>(null)
  const pointAt = (event: PointerEvent): [number, number] => {
    const { scene } = store.getState()
    const here = scene.lanes.find((l) => l.id === lane.id)!
    const element = sheet.current!
    return [valueUnder(scene, element, event.clientX), heightUnder(here, element, event.clientY)]
  }
  const { apply, announce } = store.getState()
  const asks = useStudy((s) => s.lanes.find((l) => l.id === lane.id)?.asks)
  const takesGraph = asks !== 'signs'
  const uncover = () => {
    apply(changeLane(lane.id, { covered: false }))
    announce(`${lane.title} uncovered`)
    requestAnimationFrame(() =>
      document.querySelector<HTMLElement>(`[aria-label="Heights of ${lane.title}"]`)?.focus(),
    )
  }
  return (
    <div
      ref={sheet}
      className={`absolute inset-0 z-10 touch-none bg-page ${takesGraph ? 'cursor-crosshair' : ''}`}
      onPointerDown={(event) => {
        if (!takesGraph || event.button !== 0) return
        if ((event.target as Element).closest('button')) return
        event.currentTarget.setPointerCapture(event.pointerId)
        drawing.current = { points: [pointAt(event)], gesture: newGesture('guess') }
        apply(setGuess(lane.id, drawing.current.points), drawing.current.gesture)
      }}
      onPointerMove={(event) => {
        const now = drawing.current
        if (!now) return
        const next = pointAt(event)
        // A graph has one height at each place: going back draws it anew there.
        now.points = [...now.points.filter(([x]) => x < next[0]), next]
        apply(setGuess(lane.id, now.points), now.gesture)
      }}
      onPointerUp={() => (drawing.current = null)}
      onPointerCancel={() => (drawing.current = null)}
    >
      <div className="pointer-events-none absolute inset-x-0 top-2 flex justify-center gap-2">
        <span className="text-quiet">
          {lane.title} is covered:{' '}
          {takesGraph
            ? 'draw what you expect, from left to right.'
            : 'mark where it is positive and where negative.'}
        </span>
        <button type="button" className="pill pointer-events-auto" onClick={uncover}>
          Uncover {lane.title}
        </button>
      </div>
      <Axis id={lane.id} />
      {asks !== 'graph' && <SignMarks lane={lane} alone={asks === 'signs'} />}
    </div>
  )
}

/** The axis alone, so that a guess has signs. */
function Axis({ id }: { id: string }) {
  const line = useRef<HTMLDivElement>(null)
  usePainting((scene) => {
    const lane = scene.lanes.find((l) => l.id === id)
    if (!lane || !line.current) return
    const at = (lane.y[1] / (lane.y[1] - lane.y[0])) * lane.height
    line.current.style.transform = `translateY(${at}px)`
    line.current.style.visibility = at >= 0 && at <= lane.height ? 'visible' : 'hidden'
  })
  return <div ref={line} className="pointer-events-none absolute inset-x-0 top-0 h-px bg-axis" />
}

type Points = readonly (readonly [number, number])[]
const noAttempts: readonly Attempt[] = []

/** The guess as it was drawn, over the cover and later over the curve, with those of earlier tries. */
function Guess({ id, covered }: { id: string; covered: boolean }) {
  const store = useWorkbenchStore()
  const group = useRef<SVGGElement>(null)
  const count = useStudy(
    (s) => s.answers.earlier.filter((one) => one.lane === id && one.guess).length,
  )
  usePainting((scene) => {
    const lane = scene.lanes.find((l) => l.id === id)
    if (!lane || !group.current) return
    const { guesses, earlier } = store.getState().evaluation.study.answers
    const before = earlier.flatMap((one) => (one.lane === id && one.guess ? [one.guess] : []))
    const at = ([x, y]: readonly [number, number]) =>
      `${pixelOfValue(scene, x)} ${pixelOfHeight(lane, y)}`
    const all: Points[] = [guesses[id] ?? [], ...before]
    Array.from(group.current.children).forEach((path, i) => {
      const points = all[i] ?? []
      path.setAttribute('d', points.length > 1 ? `M${points.map(at).join('L')}` : '')
    })
  })
  return (
    <svg aria-hidden className="pointer-events-none absolute inset-0 z-10 size-full">
      <g ref={group} className="fill-none stroke-plum" strokeLinecap="round">
        <path data-guess={id} strokeWidth="3" strokeDasharray="2 5" />
        {/* An earlier try under the cover would be copied. */}
        {!covered &&
          Array.from({ length: count }, (_, i) => (
            <path key={i} data-earlier={id} strokeWidth="1.5" opacity="0.5" strokeDasharray="1 4" />
          ))}
      </g>
    </svg>
  )
}

/** How the guess fares against the curve, beside the tries before it. */
function Compared({ lane }: { lane: Named }) {
  const store = useWorkbenchStore()
  const points = useStudy((s) => s.answers.guesses[lane.id])
  const signs = useStudy((s) => s.answers.signs[lane.id])
  const earlier = useStudy(
    useShallow((s) => {
      const mine = s.answers.earlier.filter((one) => one.lane === lane.id)
      return mine.length === 0 ? noAttempts : mine
    }),
  )
  const found = useWorkbench((s) => s.evaluation.curves.get(lane.curve))
  if (!found?.ok) return null
  const f = found.curve.drawn(lane.order)
  const drawn = points ? compareGuess(f, points) : null
  const marked = signs ? compareSigns(f, signs) : null
  if (!drawn && !marked && earlier.length === 0) return null
  const { apply, announce } = store.getState()
  const again = () => {
    apply(tryAgain(lane.id))
    announce(`${lane.title} is covered again; the try before is kept`)
  }
  return (
    <div
      role="status"
      className="absolute top-1 left-2 z-20 grid max-h-[85%] max-w-[70%] gap-1 overflow-y-auto rounded-md bg-page px-2 py-1 text-[calc(13px*var(--type))] outline outline-rule"
    >
      {(drawn || marked) && (
        <span>
          {drawn && drawnSentence(drawn)} {marked && signsSentence(marked)}
        </span>
      )}
      {earlier.length > 0 && (
        <ol aria-label="Earlier tries" className="flex flex-wrap gap-x-3 text-quiet">
          {earlier.map((one, i) => (
            <li key={i}>
              Try {i + 1}: {inShort(f, one)}
            </li>
          ))}
        </ol>
      )}
      <span className="flex gap-2">
        {(drawn ?? marked) && (
          <button type="button" className="pill" onClick={again}>
            Try again
          </button>
        )}
        <button type="button" className="pill" onClick={() => apply(clearAnswers(lane.id))}>
          Clear
        </button>
      </span>
    </div>
  )
}

const percent = (share: number) => `${Math.round(100 * share)} %`

/** What an earlier try came to, in a few words. */
function inShort(f: DrawnFunction, { guess, signs }: Attempt): string {
  const drawn = guess ? compareGuess(f, guess) : null
  const marked = signs ? compareSigns(f, signs) : null
  return [
    ...(drawn ? [`drawn, right sign over ${percent(drawn.sameSign)}`] : []),
    ...(marked ? [`signs, right over ${percent(marked.right)}`] : []),
  ].join('; ')
}

function drawnSentence({ sameSign, sameWay, wrongSign }: GuessCompared): string {
  const first = wrongSign[0]
  const wrong = first
    ? `; the first wrong sign is from ${formatShort(first[0], 2)} to ${formatShort(first[1], 2)}`
    : ''
  return `Your guess has the right sign over ${percent(sameSign)} of its way and goes the right way over ${percent(sameWay)}${wrong}.`
}

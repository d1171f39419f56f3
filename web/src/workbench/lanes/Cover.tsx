import {
  changeLane,
  compareGuess,
  compareSigns,
  formatShort,
  type GuessCompared,
  type LaneScene,
  setGuess,
  setSignGuess,
} from '@yperkine/core'
import { type PointerEvent, useRef } from 'react'
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
    ({ answers }) => (answers.guesses[lane.id]?.length ?? 0) > 1 || lane.id in answers.signs,
  )
  if (!covered && !drawn) return null
  return (
    <>
      {covered && <Sheet lane={lane} />}
      <Guess id={lane.id} />
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
      className="absolute inset-0 z-10 cursor-crosshair touch-none bg-page"
      onPointerDown={(event) => {
        if (event.button !== 0 || (event.target as Element).closest('button')) return
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
          {lane.title} is covered: draw what you expect, from left to right.
        </span>
        <button type="button" className="pill pointer-events-auto" onClick={uncover}>
          Uncover {lane.title}
        </button>
      </div>
      <Axis id={lane.id} />
      <SignMarks lane={lane} />
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

/** The guess as it was drawn, over the cover and later over the curve. */
function Guess({ id }: { id: string }) {
  const store = useWorkbenchStore()
  const path = useRef<SVGPathElement>(null)
  usePainting((scene) => {
    const lane = scene.lanes.find((l) => l.id === id)
    const points = store.getState().evaluation.study.answers.guesses[id] ?? []
    if (!lane || !path.current) return
    const at = ([x, y]: readonly [number, number]) =>
      `${pixelOfValue(scene, x)} ${pixelOfHeight(lane, y)}`
    path.current.setAttribute('d', points.length > 1 ? `M${points.map(at).join('L')}` : '')
  })
  return (
    <svg aria-hidden className="pointer-events-none absolute inset-0 z-10 size-full">
      <path
        ref={path}
        data-guess={id}
        className="fill-none stroke-plum"
        strokeWidth="3"
        strokeDasharray="2 5"
        strokeLinecap="round"
      />
    </svg>
  )
}

/** How the guess fares against the curve. */
function Compared({ lane }: { lane: Named }) {
  const store = useWorkbenchStore()
  const points = useStudy((s) => s.answers.guesses[lane.id])
  const signs = useStudy((s) => s.answers.signs[lane.id])
  const found = useWorkbench((s) => s.evaluation.curves.get(lane.curve))
  if (!found?.ok) return null
  const f = found.curve.drawn(lane.order)
  const drawn = points ? compareGuess(f, points) : null
  const marked = signs ? compareSigns(f, signs) : null
  if (!drawn && !marked) return null
  const clear = () => {
    store.getState().apply((study) => setSignGuess(lane.id, null)(setGuess(lane.id, null)(study)))
  }
  return (
    <div
      role="status"
      className="absolute top-1 left-2 z-20 flex max-w-[70%] items-center gap-2 rounded-md bg-page px-2 py-1 text-[calc(13px*var(--type))] outline outline-rule"
    >
      <span>
        {drawn && drawnSentence(drawn)} {marked && signsSentence(marked)}
      </span>
      <button type="button" className="pill" onClick={clear}>
        Clear
      </button>
    </div>
  )
}

function drawnSentence({ sameSign, sameWay, wrongSign }: GuessCompared): string {
  const percent = (share: number) => `${Math.round(100 * share)} %`
  const first = wrongSign[0]
  const wrong = first
    ? `; the first wrong sign is from ${formatShort(first[0], 2)} to ${formatShort(first[1], 2)}`
    : ''
  return `Your guess has the right sign over ${percent(sameSign)} of its way and goes the right way over ${percent(sameWay)}${wrong}.`
}

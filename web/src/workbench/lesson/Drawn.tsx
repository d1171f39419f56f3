import { changeStep } from '@yperkine/core'
import { type PointerEvent, useRef, useState } from 'react'
import { useStudy, useWorkbenchStore } from '../store'

/** A line drawn by hand, in shares of the picture's width and height. */
export type Stroke = readonly (readonly [x: number, y: number])[]

const noStrokes: readonly Stroke[] = []
/** A line of more points than this goes on as another one. */
const longest = 900
/** The whole picture in the units of its drawing. */
const across = 1000

/** What has been drawn by hand in each step since presenting began; wiped or kept with a step. */
export function useDrawn(step: string | null) {
  const store = useWorkbenchStore()
  const saved = useStudy((s) => s.steps.find((one) => one.id === step)?.drawn ?? noStrokes)
  const [fresh, setFresh] = useState<ReadonlyMap<string | null, readonly Stroke[]>>(new Map())
  const [wiped, setWiped] = useState<ReadonlySet<string | null>>(new Set())
  const mine = fresh.get(step) ?? noStrokes
  const set = (strokes: readonly Stroke[]) => setFresh((all) => new Map(all).set(step, strokes))
  return {
    strokes: wiped.has(step) ? mine : [...saved, ...mine],
    canKeep: mine.length > 0 && step !== null,
    add: (stroke: Stroke) => set([...mine, stroke]),
    extend: (point: readonly [number, number]) => {
      const last = mine.at(-1) ?? []
      set(
        last.length < longest
          ? [...mine.slice(0, -1), [...last, point]]
          : [...mine, [last.at(-1)!, point]],
      )
    },
    wipe() {
      set(noStrokes)
      setWiped((all) => new Set(all).add(step))
      store.getState().announce('Drawing wiped')
    },
    keep() {
      if (step === null) return
      const base = wiped.has(step) ? [] : saved
      const drawn = [...base, ...mine].map((s) => s.map(([x, y]): [number, number] => [x, y]))
      store.getState().apply(changeStep(step, { drawn: drawn.slice(-200) }))
      set(noStrokes)
      setWiped((all) => new Set([...all].filter((one) => one !== step)))
      store.getState().announce('Drawing kept with this step')
    },
  }
}
export type Drawn = ReturnType<typeof useDrawn>

/** What is drawn over the picture; while drawing it takes pen, finger and mouse. */
export function DrawnOver({ drawn, drawing }: { drawn: Drawn; drawing: boolean }) {
  const held = useRef(false)
  const at = (event: PointerEvent): [number, number] => {
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect()
    const share = (v: number) => Number(v.toFixed(4))
    return [share((event.clientX - left) / width), share((event.clientY - top) / height)]
  }
  return (
    <svg
      role="img"
      aria-label={drawn.strokes.length > 0 ? 'Drawn by hand' : 'Nothing drawn'}
      viewBox={`0 0 ${across} ${across}`}
      preserveAspectRatio="none"
      className={`absolute inset-0 z-30 size-full touch-none ${drawing ? 'cursor-crosshair' : 'pointer-events-none'}`}
      onPointerDown={(event) => {
        if (!drawing || event.button !== 0) return
        event.preventDefault()
        event.currentTarget.setPointerCapture(event.pointerId)
        held.current = true
        drawn.add([at(event)])
      }}
      onPointerMove={(event) => {
        if (held.current) drawn.extend(at(event))
      }}
      onPointerUp={() => (held.current = false)}
      onPointerCancel={() => (held.current = false)}
    >
      {drawn.strokes.map((stroke, i) => (
        <path
          key={i}
          data-drawn
          d={pathOf(stroke)}
          className="fill-none stroke-ochre"
          strokeWidth={6}
          strokeLinecap="round"
          strokeLinejoin="round"
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  )
}

const pathOf = (stroke: Stroke) => {
  const points = stroke.map(([x, y]) => `${x * across} ${y * across}`)
  // A dot is a line to where it is.
  return `M${points.join('L')}${points.length === 1 ? `L${points[0]!}` : ''}`
}

import {
  type Edit,
  type Evaluation,
  formatShort,
  movePlace,
  nudgePlace,
  placesOfLine,
  slidersIn,
} from '@yperkine/core'
import { type KeyboardEvent, type PointerEvent, useRef } from 'react'
import { useWorkbenchStore } from '../store'
import { newGesture } from './gesture'
import { snapped } from './snap'

interface Moving {
  /** The place as it is written now; a typed number is rewritten while it moves. */
  text: string
  gesture: string
  lastX: number
}

/** How many steps a key asks for; null for other keys. */
export function stepsOf(event: KeyboardEvent): number | 'from' | 'to' | null {
  const forward: Record<string, number> = {
    ArrowRight: 1,
    ArrowUp: 1,
    ArrowLeft: -1,
    ArrowDown: -1,
    PageUp: 10,
    PageDown: -10,
  }
  if (event.key === 'Home') return 'from'
  if (event.key === 'End') return 'to'
  const steps = forward[event.key]
  if (steps === undefined) return null
  return event.shiftKey && Math.abs(steps) === 1 ? steps / 10 : steps
}

/**
 * Pointer and key handlers for anything that moves a place: its flag, its track, its point. One
 * drag is one edit to undo; the frame stays still until it ends.
 */
export function useMover(
  place: string,
  valueAt: (clientX: number) => number,
  decimals: number,
  {
    /** A track jumps to where it is pressed; a flag waits until it is moved. */
    jumps = false,
    /** What a pixel is worth; round values near the pointer draw it, unless Alt is held. */
    perPixel = undefined as undefined | (() => number),
  } = {},
) {
  const store = useWorkbenchStore()
  const moving = useRef<Moving | null>(null)

  const spoken = (text: string) => (evaluation: Evaluation) => summaryOf(evaluation, text)
  const apply = (edit: Edit, gesture?: string) => store.getState().apply(edit, gesture)

  const onPointerDown = (event: PointerEvent<Element>) => {
    if (event.button !== 0) return
    event.preventDefault()
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    if (event.currentTarget instanceof HTMLElement) event.currentTarget.focus()
    moving.current = {
      text: place,
      gesture: newGesture('drag.place'),
      lastX: jumps ? NaN : event.clientX,
    }
    store.getState().hold()
    store.getState().selectPlace(place)
    if (jumps) onPointerMove(event)
  }
  const onPointerMove = (event: PointerEvent<Element>) => {
    const now = moving.current
    if (!now || event.clientX === now.lastX) return
    now.lastX = event.clientX
    const under = valueAt(event.clientX)
    const x = perPixel && !event.altKey ? snapped(under, perPixel()) : under
    const { move, selectPlace } = store.getState()
    now.text = move(movePlace(now.text, x, decimals), now.gesture)
    selectPlace(now.text)
  }
  const onPointerUp = () => {
    const now = moving.current
    if (!now) return
    moving.current = null
    store.getState().release(spoken(now.text))
  }
  const onKeyDown = (event: KeyboardEvent<Element>) => {
    const steps = stepsOf(event)
    if (steps === null || event.ctrlKey || event.metaKey || event.altKey) return
    event.preventDefault()
    store.getState().selectPlace(place)
    apply(nudgePlace(place, steps), `key.place.${place}`)
  }
  const onKeyUp = (event: KeyboardEvent<Element>) => {
    if (stepsOf(event) !== null) store.getState().release(spoken(place))
  }
  return {
    onPointerDown,
    onPointerMove,
    onPointerUp,
    onPointerCancel: onPointerUp,
    onLostPointerCapture: onPointerUp,
    onKeyDown,
    onKeyUp,
  }
}

/** What is said when a move ends: the place and what hangs on it. */
function summaryOf({ study, places, lines, sentences }: Evaluation, text: string): string {
  const { letter } = study.variable
  const place = places.find((p) => p.text === text)
  const slider = study.sliders.find((s) => s.name === text)
  const value = place?.value ?? slider?.value
  if (value === undefined) return ''
  const where = place ? `${letter} = ${formatShort(value, study.decimals)}` : `${text} = ${value}`
  const told = study.lines.flatMap((line) => {
    const hangs = placesOfLine(line).includes(text)
    if (!hangs && !(slider && slidersIn(line, study).has(text))) return []
    const result = lines.get(line.id)!
    // What a number that is no place changes may be much: the answer of each line is told.
    const readouts = hangs ? result.readouts : result.readouts.slice(0, 1)
    const name = sentences
      .get(line.id)!
      .map((p) => p.text)
      .join('')
    const said = [
      ...readouts.map((r) => `${r.label} ${r.text}`),
      ...result.problems.map((p) => p.message),
    ]
    return said.length > 0 ? [`${name}: ${said.join(', ')}`] : []
  })
  return [where, ...told].join('. ')
}

import { type Edit, panned, setFrame, setLaneFrame, zoomed } from '@yperkine/core'
import { type RefObject, useEffect } from 'react'
import { useWorkbenchStore, type WorkbenchStore } from '../store'
import { heightUnder, pixelWorth, valueUnder } from './axis'
import { newGesture } from './gesture'

/** What a part of the picture frames when it is dragged or wheeled. */
export interface Framed {
  /** The horizontal frame. */
  across: boolean
  /** The heights of this lane. */
  lane: string | null
  /** Heights move with any drag, not only with one that clearly goes up or down. */
  upright?: boolean
  /** A drag is for something else here: only the wheel frames. */
  wheelOnly?: boolean
}

/** A turn of the wheel by one notch (100) zooms by about a seventh. */
const zoomPerWheel = 0.0015
const wheelRest = 300
/** A drag that leaves the level by this much sets the heights too, in pixels. */
const leavesLevel = 24

/** Wheel, drag, pinch and two-finger pan over a part of the picture. */
export function useFraming(target: RefObject<Element | null>, framed: Framed) {
  const store = useWorkbenchStore()
  const { across, lane, upright = false, wheelOnly = false } = framed
  useEffect(() => {
    const element = target.current
    if (!element) return
    const part = { across, lane, upright }
    const stopWheel = listenToWheel(element, store, part)
    const stopPointers = wheelOnly ? () => undefined : listenToPointers(element, store, part)
    return () => {
      stopWheel()
      stopPointers()
    }
  }, [target, store, across, lane, upright, wheelOnly])
}

const laneOf = (store: WorkbenchStore, id: string | null) =>
  store.getState().scene.lanes.find((l) => l.id === id)

/** Where a pointer is: the value under it across, and up its lane. */
function valuesAt(
  element: Element,
  store: WorkbenchStore,
  lane: string | null,
  x: number,
  y: number,
) {
  const { scene } = store.getState()
  const here = laneOf(store, lane)
  return { x: valueUnder(scene, element, x), y: here ? heightUnder(here, element, y) : 0 }
}

/** What is dragged or pressed itself: a drag that begins there does not pan. */
const takenHold = 'button, input, [role=slider], [role=button], [data-point], [data-body]'

/** Whether the heights of a lane are someone's choice, so that zooming changes them too. */
const isSet = (store: WorkbenchStore, id: string | null) => {
  const lane = store.getState().shown.lanes.find((l) => l.id === id)
  return lane !== undefined && (lane.frame !== null || lane.equalScale)
}

const both =
  (...edits: (Edit | null)[]): Edit =>
  (study) =>
    edits.reduce((now, edit) => (edit ? edit(now) : now), study)

function listenToWheel(element: Element, store: WorkbenchStore, { across, lane, upright }: Framed) {
  let rest: ReturnType<typeof setTimeout> | undefined
  let gesture: string | null = null
  const onWheel = (event: Event) => {
    if (!(event instanceof WheelEvent)) return
    // A picture within someone's page lets that page scroll.
    if (store.getState().view === 'picture' && !event.ctrlKey) return
    event.preventDefault()
    if (!gesture) {
      gesture = newGesture('frame.wheel')
      store.getState().pause()
    }
    clearTimeout(rest)
    rest = setTimeout(() => {
      gesture = null
      store.getState().release()
    }, wheelRest)
    const lines = event.deltaMode === WheelEvent.DOM_DELTA_LINE ? 16 : 1
    const { scene } = store.getState()
    const sideways = event.shiftKey ? event.deltaY : event.deltaX
    if (across && (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY))) {
      const by = sideways * lines * pixelWorth(scene)
      store.getState().apply(setFrame(panned(scene.x, by)), gesture)
      return
    }
    // A pinch on a trackpad arrives as a wheel with Ctrl and in smaller portions.
    const strength = event.ctrlKey ? 6 : 1
    const factor = Math.exp(
      Math.max(-1, Math.min(1, event.deltaY * lines * zoomPerWheel * strength)),
    )
    const at = valuesAt(element, store, lane, event.clientX, event.clientY)
    const here = laneOf(store, lane)
    const heights = here && (upright || isSet(store, lane))
    store
      .getState()
      .apply(
        both(
          across ? setFrame(zoomed(scene.x, at.x, factor)) : null,
          heights ? setLaneFrame(here.id, zoomed(here.y, at.y, factor)) : null,
        ),
        gesture,
      )
  }
  element.addEventListener('wheel', onWheel, { passive: false })
  return () => {
    clearTimeout(rest)
    element.removeEventListener('wheel', onWheel)
  }
}

interface Finger {
  x: number
  y: number
}

function listenToPointers(
  element: Element,
  store: WorkbenchStore,
  { across, lane, upright }: Framed,
) {
  const fingers = new Map<number, Finger>()
  let start: {
    gesture: string
    middle: Finger
    spread: Finger
    x: readonly [number, number]
    y: readonly [number, number] | null
    offLevel: boolean
  } | null = null

  const middleOf = (all: Finger[]): Finger => ({
    x: all.reduce((t, f) => t + f.x, 0) / all.length,
    y: all.reduce((t, f) => t + f.y, 0) / all.length,
  })
  /** How far two fingers are apart, each way; one finger spreads nothing. */
  const spreadOf = ([a, b]: Finger[]): Finger =>
    a && b ? { x: Math.abs(a.x - b.x), y: Math.abs(a.y - b.y) } : { x: 0, y: 0 }

  const begin = () => {
    const all = [...fingers.values()]
    if (all.length === 0) {
      start = null
      store.getState().release()
      return
    }
    const { scene, hold } = store.getState()
    if (!start) hold('heights')
    start = {
      gesture: start?.gesture ?? newGesture('frame.drag'),
      middle: middleOf(all),
      spread: spreadOf(all),
      x: scene.x,
      y: laneOf(store, lane)?.y ?? null,
      offLevel: upright || isSet(store, lane),
    }
  }
  const move = () => {
    if (!start) return
    const all = [...fingers.values()]
    const middle = middleOf(all)
    const spread = spreadOf(all)
    const { scene, apply } = store.getState()
    const { left, top } = element.getBoundingClientRect()
    const height = laneOf(store, lane)?.height ?? 1
    /** The stretch for which what was under the fingers stays under them. */
    const moved = (
      [from, to]: readonly [number, number],
      length: number,
      before: number,
      now: number,
      grown: number,
    ): [number, number] => {
      const width = (to - from) / grown
      const low = from + (before / length) * (to - from) - (now / length) * width
      return [low, low + width]
    }
    // Fingers that lie almost level tell nothing of heights, and the other way round.
    const grownX = start.spread.x > 30 && spread.x > 10 ? spread.x / start.spread.x : 1
    const grownY = start.spread.y > 30 && spread.y > 10 ? spread.y / start.spread.y : 1
    if (Math.abs(middle.y - start.middle.y) > leavesLevel || grownY !== 1) start.offLevel = true
    const bottom = top + height
    apply(
      both(
        across
          ? setFrame(moved(start.x, scene.width, start.middle.x - left, middle.x - left, grownX))
          : null,
        lane && start.y && start.offLevel
          ? setLaneFrame(
              lane,
              moved(start.y, height, bottom - start.middle.y, bottom - middle.y, grownY),
            )
          : null,
      ),
      start.gesture,
    )
  }

  const onDown = (event: Event) => {
    if (!(event instanceof PointerEvent) || event.button !== 0) return
    if (event.target instanceof Element && event.target.closest(takenHold)) return
    element.setPointerCapture(event.pointerId)
    fingers.set(event.pointerId, { x: event.clientX, y: event.clientY })
    begin()
  }
  const onMove = (event: Event) => {
    if (!(event instanceof PointerEvent) || !fingers.has(event.pointerId)) return
    fingers.set(event.pointerId, { x: event.clientX, y: event.clientY })
    move()
  }
  const onUp = (event: Event) => {
    if (!(event instanceof PointerEvent) || !fingers.delete(event.pointerId)) return
    begin()
  }
  const listeners: [string, (event: Event) => void][] = [
    ['pointerdown', onDown],
    ['pointermove', onMove],
    ['pointerup', onUp],
    ['pointercancel', onUp],
  ]
  for (const [name, listener] of listeners) element.addEventListener(name, listener)
  return () => {
    for (const [name, listener] of listeners) element.removeEventListener(name, listener)
  }
}

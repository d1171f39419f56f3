import { type Item, movePoint, nudgePoint, type Scene } from '@yperkine/core'
import { type KeyboardEvent, type PointerEvent, useEffect, useRef } from 'react'
import { useHandlePainting } from '../drawing/usePainting'
import { pixelWorth } from '../gestures/axis'
import { newGesture } from '../gestures/gesture'
import { snapped } from '../gestures/snap'
import { stepsOf } from '../gestures/useMover'
import { useWorkbenchStore } from '../store'

type Body = Item & { kind: 'body' }

/** No part of a finger misses it, in pixels. */
const leastReach = 22

/** The part of a marker that can be taken hold of: along its curve, or anywhere in the plane. */
export function BodyHandle({ id, item: key }: { id: string; item: string }) {
  const store = useWorkbenchStore()
  const circle = useRef<SVGCircleElement>(null)
  const held = useRef<{ gesture: string; x: number; y: number } | null>(null)
  const line = key.slice(0, key.indexOf('.'))
  const name = () => {
    const { evaluation, scene } = store.getState()
    const words = bodyOf(scene, id, key)?.spoken
    const sentence =
      evaluation.sentences
        .get(line)
        ?.map((p) => p.text)
        .join('') ?? ''
    return words || sentence.replace(/, caption$/, '')
  }
  useHandlePainting((scene) => {
    const body = bodyOf(scene, id, key)
    if (!body || !circle.current) return
    circle.current.setAttribute('cx', String(body.cx))
    circle.current.setAttribute('cy', String(body.cy))
    circle.current.setAttribute('r', String(Math.max(leastReach, body.reach)))
    circle.current.setAttribute('aria-label', name())
  })
  // Touch scrolling would take the pointer away in the middle of a drag.
  useEffect(() => {
    const element = circle.current!
    const keep = (event: TouchEvent) => event.preventDefault()
    element.addEventListener('touchstart', keep, { passive: false })
    return () => element.removeEventListener('touchstart', keep)
  }, [])

  const onPointerDown = (event: PointerEvent<SVGCircleElement>) => {
    const body = bodyOf(store.getState().scene, id, key)
    if (event.button !== 0 || !body) return
    event.preventDefault()
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    event.currentTarget.focus()
    // Where it was taken hold of stays under the pointer.
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect()
    held.current = {
      gesture: newGesture('drag.body'),
      x: event.clientX - box.left - body.x,
      y: event.clientY - box.top - body.y,
    }
    store.getState().hold()
    store.getState().selectPlace(body.place)
  }
  const onPointerMove = (event: PointerEvent<SVGCircleElement>) => {
    const now = held.current
    if (!now) return
    const { scene, apply } = store.getState()
    const lane = scene.lanes.find((l) => l.id === id)!
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect()
    const px = event.clientX - box.left - now.x
    const py = event.clientY - box.top - now.y
    const [x0, x1] = scene.x
    const [y0, y1] = lane.y
    const at = x0 + (px / scene.width) * (x1 - x0)
    const height = y1 - (py / lane.height) * (y1 - y0)
    const round = (v: number, perPixel: number) => (event.altKey ? v : snapped(v, perPixel))
    apply(
      movePoint(line, round(at, pixelWorth(scene)), round(height, (y1 - y0) / lane.height)),
      now.gesture,
    )
  }
  const onPointerUp = () => {
    if (!held.current) return
    held.current = null
    store.getState().release(() => name())
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const steps = stepsOf(event)
    if (steps === null || event.ctrlKey || event.metaKey || event.altKey) return
    event.preventDefault()
    event.stopPropagation()
    const free = bodyOf(store.getState().scene, id, key)?.free === true
    const up = free && (event.key === 'ArrowUp' || event.key === 'ArrowDown')
    store.getState().apply(nudgePoint(line, up ? 'y' : 'x', steps), `key.body.${line}`)
  }
  return (
    <circle
      ref={circle}
      role="note"
      tabIndex={0}
      className="cursor-grab fill-transparent active:cursor-grabbing"
      data-body={line}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={onPointerUp}
      onLostPointerCapture={onPointerUp}
      onKeyDown={onKeyDown}
      onKeyUp={(event) => {
        if (stepsOf(event) !== null) store.getState().release(() => name())
      }}
    />
  )
}

function bodyOf(scene: Scene, id: string, key: string): Body | undefined {
  const item = scene.lanes.find((l) => l.id === id)?.items.find((i) => i.key === key)
  return item?.kind === 'body' ? item : undefined
}

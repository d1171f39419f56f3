import { type Item, labelBox, moveLabel, type Scene, showLabel } from '@yperkine/core'
import { type KeyboardEvent, type PointerEvent, useRef } from 'react'
import { useWorkbenchStore } from '../store'
import { useHandlePainting } from '../drawing/usePainting'
import { newGesture } from '../gestures/gesture'

type Label = Item & { kind: 'label' }

/** The element that tells what keys do with a label; one for all. */
export const labelKeys = 'label-keys'

/** How far an arrow key moves a label, in pixels. */
const keyStep = 4
const directions: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/** The part of a label that can be taken hold of: dragged aside, hidden, or put back. */
export function LabelHandle({ id, item: key }: { id: string; item: string }) {
  const store = useWorkbenchStore()
  const box = useRef<SVGRectElement>(null)
  const held = useRef<{ from: Offset; x: number; y: number; gesture: string } | null>(null)
  const { apply, announce } = store.getState()
  const present = () => labelOf(store.getState().scene, id, key)

  useHandlePainting((scene) => {
    const label = labelOf(scene, id, key)
    if (!label || !box.current) return
    const { left, right, top, bottom } = labelBox(label)
    box.current.setAttribute('aria-label', `Label ${label.text}`)
    box.current.setAttribute('x', String(left - 3))
    box.current.setAttribute('y', String(top - 3))
    box.current.setAttribute('width', String(right - left + 6))
    box.current.setAttribute('height', String(bottom - top + 6))
  })
  const put = (offset: Offset | null, gesture?: string) => {
    const owner = present()?.owner
    if (owner) apply(moveLabel(owner.line, owner.label, offset), gesture)
  }
  const onPointerDown = (event: PointerEvent<SVGRectElement>) => {
    const label = present()
    if (event.button !== 0 || !label) return
    event.preventDefault()
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    event.currentTarget.focus()
    const gesture = newGesture('drag.label')
    held.current = { from: offsetOf(label), x: event.clientX, y: event.clientY, gesture }
    store.getState().hold()
  }
  const onPointerMove = (event: PointerEvent) => {
    const now = held.current
    if (!now) return
    const [dx, dy] = [event.clientX - now.x, event.clientY - now.y]
    put([now.from[0] + dx, now.from[1] + dy], now.gesture)
  }
  const onPointerUp = () => {
    if (!held.current) return
    held.current = null
    store.getState().release()
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const label = present()
    if (!label?.owner || event.ctrlKey || event.metaKey || event.altKey) return
    const way = directions[event.key]
    if (way) {
      const step = event.shiftKey ? 1 : keyStep
      const [x, y] = offsetOf(label)
      put([x + way[0] * step, y + way[1] * step], `key.label.${key}`)
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      apply(showLabel(label.owner.line, label.owner.label, false))
      announce(`Label hidden: ${label.text}`)
    } else if (event.key === 'Escape') {
      put(null)
      announce('Label back beside its point')
    } else return
    event.preventDefault()
    event.stopPropagation()
  }
  return (
    <rect
      ref={box}
      role="button"
      tabIndex={0}
      aria-describedby={labelKeys}
      rx={4}
      className="cursor-move fill-transparent outline-offset-0"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={onPointerUp}
      onLostPointerCapture={onPointerUp}
      onDoubleClick={() => put(null)}
      onKeyDown={onKeyDown}
      onKeyUp={(event) => {
        if (event.key in directions) store.getState().release()
      }}
    >
      <title>Drag it aside; double-click puts it back, Delete hides it</title>
    </rect>
  )
}

type Offset = readonly [dx: number, dy: number]

/** Where a label stands now, from its point to the middle of its foot. */
function offsetOf(label: Label): Offset {
  const { left, right } = labelBox(label)
  return [(left + right) / 2 - label.beside!.x, label.y - label.beside!.y]
}

function labelOf(scene: Scene, id: string, key: string): Label | undefined {
  const item = scene.lanes.find((l) => l.id === id)?.items.find((i) => i.key === key)
  return item?.kind === 'label' ? item : undefined
}

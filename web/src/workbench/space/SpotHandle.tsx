import { type Camera, movePoint, seenPoint, type SpaceScene } from '@yperkine/core'
import { type PointerEvent, useRef } from 'react'
import { newGesture } from '../gestures/gesture'
import { useWorkbenchStore } from '../store'

type Spot = SpaceScene['spots'][number]

interface Props {
  spot: Spot
  scene: SpaceScene
  camera: Camera
}

/** No part of a finger misses it, in pixels. */
const reach = 22
/** A point stops at so many steps along a side of the box, so that its numbers are short. */
const stops = 200

/** A point that is dragged on its surface: it goes to what lies under the pointer. */
export function SpotHandle({ spot, scene, camera }: Props) {
  const store = useWorkbenchStore()
  const held = useRef<{ gesture: string; dx: number; dy: number } | null>(null)
  const { x, y } = camera.project(spot.at)
  const sheet = scene.sheets.find(
    ({ line, role }) =>
      role === 'surface' && surfaceNameOf(store.getState().shown, line) === spot.held,
  )
  const onPointerDown = (event: PointerEvent<SVGCircleElement>) => {
    if (event.button !== 0) return
    event.preventDefault()
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect()
    held.current = {
      gesture: newGesture('drag.spot'),
      dx: event.clientX - box.left - x,
      dy: event.clientY - box.top - y,
    }
    store.getState().hold()
  }
  const onPointerMove = (event: PointerEvent<SVGCircleElement>) => {
    const now = held.current
    if (!now || !sheet) return
    event.stopPropagation()
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect()
    const sight = camera.sight(event.clientX - box.left - now.dx, event.clientY - box.top - now.dy)
    const found = sight && seenPoint((u, v) => sheet.f.value(u, v), sight)
    if (!found) return
    const { within } = sheet
    const round = (v: number, { lo, hi }: { lo: number; hi: number }) => {
      const grid = 10 ** Math.floor(Math.log10((hi - lo) / stops))
      const near = event.altKey ? v : Math.round(v / grid) * grid
      return Math.min(hi, Math.max(lo, Number(near.toPrecision(10))))
    }
    store
      .getState()
      .apply(movePoint(spot.line, round(found.x, within.x), round(found.y, within.y)), now.gesture)
  }
  const onPointerUp = (event: PointerEvent<SVGCircleElement>) => {
    if (!held.current) return
    event.stopPropagation()
    held.current = null
    store.getState().release(({ lines }) => {
      const all = lines.get(spot.line)?.readouts ?? []
      return all
        .filter(({ id }) => id === 'height' || id.startsWith('slope'))
        .map(({ label, text }) => `${label} ${text}`)
        .join(', ')
    })
  }
  return (
    <circle
      cx={x}
      cy={y}
      r={reach}
      data-spot={spot.line}
      className="pointer-events-auto cursor-grab touch-none fill-transparent active:cursor-grabbing"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={onPointerUp}
      onLostPointerCapture={onPointerUp}
    />
  )
}

const surfaceNameOf = (
  { lines }: { lines: readonly { id: string }[] },
  id: string,
): string | undefined => {
  const line = lines.find((l) => l.id === id)
  return line && 'surface' in line ? String(line.surface) : undefined
}

import { changeSpace, usualSpace } from '@yperkine/core'
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react'
import { useStudy, useWorkbenchStore } from '../store'

interface Turn {
  azimuth: number
  elevation: number
}

/** Degrees to a pixel of a drag, and to a press of an arrow key. */
const perPixel = 0.4
const perKey = 5
const perLargeKey = 15

const between = (v: number) => Math.min(90, Math.max(-90, v))

/**
 * Turns the view by dragging and by arrow keys. While it is dragged the turn is the page's alone; where
 * it ends it is the study's, as one edit.
 */
export function useTurning() {
  const store = useWorkbenchStore()
  const kept = useStudy((s) => s.space)
  const [turn, setTurn] = useState<Turn | null>(null)
  const held = useRef<{ x: number; y: number; from: Turn; pointer: number } | null>(null)
  const isTurning = turn !== null
  const view = turn ? { ...kept, ...turn } : kept

  const said = ({ azimuth, elevation }: Turn) =>
    `Azimuth ${Math.round(azimuth)}°, elevation ${Math.round(elevation)}°`

  const onPointerDown = (event: PointerEvent<Element>) => {
    if (event.button !== 0 || held.current) return
    event.currentTarget.setPointerCapture(event.pointerId)
    const { azimuth, elevation } = kept
    held.current = {
      ...{ x: event.clientX, y: event.clientY, pointer: event.pointerId },
      from: { azimuth, elevation },
    }
  }
  const onPointerMove = (event: PointerEvent<Element>) => {
    const now = held.current
    if (now?.pointer !== event.pointerId) return
    const [dx, dy] = [event.clientX - now.x, event.clientY - now.y]
    if (turn === null && Math.hypot(dx, dy) < 3) return
    setTurn({
      azimuth: now.from.azimuth - dx * perPixel,
      elevation: between(now.from.elevation + dy * perPixel),
    })
  }
  const onPointerUp = () => {
    held.current = null
    if (!turn) return
    const { apply, announce, shown } = store.getState()
    apply(changeSpace(turn))
    setTurn(null)
    announce(said({ ...shown.space, ...turn }))
  }
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    const by = event.shiftKey ? perLargeKey : perKey
    const { shown, apply, announce } = store.getState()
    const { azimuth, elevation } = shown.space
    const next: Record<string, Turn> = {
      ArrowLeft: { azimuth: azimuth + by, elevation },
      ArrowRight: { azimuth: azimuth - by, elevation },
      ArrowUp: { azimuth, elevation: between(elevation + by) },
      ArrowDown: { azimuth, elevation: between(elevation - by) },
      Home: { azimuth: usualSpace.azimuth, elevation: usualSpace.elevation },
    }
    const to = next[event.key]
    if (!to) return
    event.preventDefault()
    event.stopPropagation()
    apply(changeSpace(to), 'key.turn')
    announce(said(to))
  }
  return {
    view,
    isTurning,
    handlers: {
      onPointerDown,
      onPointerMove,
      onPointerUp,
      onPointerCancel: onPointerUp,
      onKeyDown,
    },
  }
}

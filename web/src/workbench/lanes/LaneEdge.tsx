import { changeLane, type Edit } from '@yperkine/core'
import { type KeyboardEvent, type PointerEvent, useRef } from 'react'
import { shareOf } from '../drawing/layout'
import { useWorkbench, useWorkbenchStore } from '../store'
import { newGesture } from '../gestures/gesture'

const leastHeight = 60

/** The edge between two lanes: dragging it, or its arrow keys, gives one the other's room. */
export function LaneEdge({ id, title, next }: { id: string; title: string; next: string }) {
  const store = useWorkbenchStore()
  const drag = useRef<{ y: number; height: number; gesture: string } | null>(null)
  const height = useWorkbench((s) => s.size.heights[id] ?? 0)
  const both = useWorkbench((s) => height + (s.size.heights[next] ?? 0))

  const reach = (wanted: number, gesture: string) => {
    const { size, apply } = store.getState()
    const together = size.heights[id]! + size.heights[next]!
    if (together < 2 * leastHeight) return
    const grown = Math.max(leastHeight, Math.min(together - leastHeight, Math.round(wanted)))
    const edit: Edit = (study) => {
      const at = study.lanes.findIndex((l) => l.id === id)
      const shares = [at, at + 1].map((i) => shareOf(study.lanes[i]!, i, study.lanes.length))
      const all = shares[0]! + shares[1]!
      const share = (all * grown) / together
      return changeLane(next, { share: all - share })(changeLane(id, { share })(study))
    }
    apply(edit, gesture)
  }
  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return
    event.currentTarget.setPointerCapture(event.pointerId)
    drag.current = { y: event.clientY, height, gesture: newGesture('lane.height') }
  }
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const start = drag.current
    if (start) reach(start.height + event.clientY - start.y, start.gesture)
  }
  const end = () => {
    if (!drag.current) return
    drag.current = null
    store.getState().release()
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const pixels = { ArrowUp: -10, ArrowDown: 10, PageUp: -50, PageDown: 50 }[event.key]
    if (pixels === undefined) return
    event.preventDefault()
    reach(height + pixels, `lane.height.keys.${id}`)
  }
  return (
    <div
      role="separator"
      aria-orientation="horizontal"
      aria-label={`Height of lane ${title}`}
      aria-valuenow={height}
      aria-valuemin={leastHeight}
      aria-valuemax={Math.max(leastHeight, both - leastHeight)}
      tabIndex={0}
      className="absolute inset-x-0 bottom-0 z-10 h-2 cursor-row-resize touch-none hover:bg-rule focus-visible:bg-kelp pointer-coarse:h-4"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={end}
      onPointerCancel={end}
      onKeyDown={onKeyDown}
    />
  )
}

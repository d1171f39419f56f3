import { useRef } from 'react'
import { useWorkbenchStore } from '../store'
import { usePainting } from '../drawing/usePainting'
import { pixelOfValue } from '../gestures/axis'

/** A hairline where the row that is pointed at belongs, on every lane. */
export function Highlight({ id, height }: { id: string; height: number }) {
  const line = useRef<HTMLDivElement>(null)
  const store = useWorkbenchStore()
  usePainting((scene) => {
    const { highlight } = store.getState()
    const box = line.current!
    const at = highlight === null ? null : pixelOfValue(scene, highlight)
    const seen = at !== null && at >= 0 && at <= scene.width
    box.style.visibility = seen ? 'visible' : 'hidden'
    if (seen) box.style.transform = `translateX(${at}px)`
  })
  return (
    <div
      ref={line}
      aria-hidden
      data-highlight={id}
      className="pointer-events-none absolute top-0 left-0 z-10 w-0.5 bg-ochre"
      style={{ height }}
    />
  )
}

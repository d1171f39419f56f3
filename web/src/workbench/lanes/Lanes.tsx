import { drawnIn } from '@yperkine/core'
import { useLayoutEffect, useRef } from 'react'
import { Hatches } from './Hatches'
import { labelKeys } from './LabelHandle'
import { Lane } from './Lane'
import { headWidth, rulerHeight, shareHeight, wallType } from '../drawing/layout'
import { useBarRows } from '../ruler/useBarRows'
import { Ruler } from '../ruler/Ruler'
import { useHeadless, useReading, useStudy, useWorkbench, useWorkbenchStore } from '../store'
import { useFindings } from './useFindings'

/** The stack of lanes over their common ruler. */
export function Lanes() {
  const store = useWorkbenchStore()
  const box = useRef<HTMLDivElement>(null)
  const lanes = useStudy((s) => s.lanes)
  // Before the first measurement there is nothing to draw on.
  const measured = useWorkbench((s) => s.size.width > 0)
  const barRows = useBarRows()
  const presenting = useWorkbench((s) => s.presenting !== null)
  const headless = useHeadless()
  // The picture alone takes what room there is; elsewhere a small page scrolls.
  const scrolls = useWorkbench((s) => s.view !== 'picture')

  useLayoutEffect(() => {
    const element = box.current!
    const measure = () => {
      const width = Math.max(0, element.clientWidth - (headless ? 0 : headWidth))
      const type = presenting ? wallType() : undefined
      const room = Math.max(
        0,
        element.clientHeight - rulerHeight(barRows, headless ? (type ?? 1) : undefined),
      )
      const size = { width, heights: shareHeight(lanes, room) }
      store.getState().resize(type === undefined ? size : { ...size, type })
    }
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(element)
    return () => observer.disconnect()
  }, [store, lanes, barRows, presenting, headless])

  return (
    <div
      ref={box}
      className={`flex min-h-0 min-w-0 flex-1 flex-col overflow-hidden ${scrolls ? 'max-sm:min-h-[300px]' : ''}`}
    >
      <p id={labelKeys} hidden>
        Arrow keys move it, Delete hides it, Escape puts it back
      </p>
      {measured &&
        lanes.map((lane, i) => (
          <Lane key={lane.id} id={lane.id} next={lanes[i + 1]?.id ?? null} first={i === 0} />
        ))}
      {measured && lanes.length === 0 && <NoLane />}
      <Hatches />
      <Ruler />
      {[...new Set(lanes.flatMap((l) => drawnIn(l).map((d) => d.curve)))].map((curve) => (
        <Findings key={curve} curve={curve} />
      ))}
    </div>
  )
}

/** With no lane there is no curve: how to begin with one. */
const NoLane = () => (
  <p className="grid min-h-0 flex-1 place-content-center bg-page p-6 text-center text-quiet">
    There is no curve to draw.
    {!useReading() && ' Say “let f(x) = x^2 - 3”, and its graph stands here.'}
  </p>
)

/** Draws nothing: it has a curve examined while a lane shows it. */
function Findings({ curve }: { curve: string }) {
  useFindings(curve)
  return null
}

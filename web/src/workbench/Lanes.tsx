import { type Item, type LaneScene, nameToLatex, toggleLane } from '@yperkine/core'
import { useEffect, useLayoutEffect, useRef } from 'react'
import { Maths } from '../parts/Maths'
import { LaneItem } from './LaneItem'
import { Ruler, rulerHeight } from './Ruler'
import { useStudy, useWorkbench, useWorkbenchStore } from './store'
import { useMover } from './useMover'

export const headWidth = 84
const highestOrder = 3

/** The stack of lanes over their common ruler. */
export function Lanes() {
  const store = useWorkbenchStore()
  const box = useRef<HTMLDivElement>(null)
  const lanes = useWorkbench((s) => s.scene.lanes)
  const ids = useStudy((s) => s.lanes.map((l) => l.id).join())

  useLayoutEffect(() => {
    const element = box.current!
    const measure = () => {
      const width = Math.max(0, element.clientWidth - headWidth)
      const room = Math.max(0, element.clientHeight - rulerHeight)
      store.getState().resize({ width, heights: shareHeight(ids.split(','), room) })
    }
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(element)
    return () => observer.disconnect()
  }, [store, ids])

  return (
    <div ref={box} className="flex min-h-0 min-w-0 flex-1 flex-col overflow-hidden">
      {lanes.map((lane, i) => (
        <Lane
          key={lane.id}
          lane={lane}
          first={lanes.findIndex((l) => l.curve === lane.curve) === i}
        />
      ))}
      <Ruler />
    </div>
  )
}

/** The first lane gets half as much again as the others; whole pixels keep hairlines sharp. */
function shareHeight(ids: readonly string[], room: number): Record<string, number> {
  const weights = ids.map((_, i) => (i === 0 && ids.length > 1 ? 1.5 : 1))
  const all = weights.reduce((a, b) => a + b, 0)
  let used = 0
  return Object.fromEntries(
    ids.map((id, i) => {
      const height = i === ids.length - 1 ? room - used : Math.floor((room * weights[i]!) / all)
      used += height
      return [id, height]
    }),
  )
}

function Lane({ lane, first }: { lane: LaneScene; first: boolean }) {
  const width = useWorkbench((s) => s.size.width)
  const summaryId = `summary-${lane.id}`
  const dots = lane.items.filter((i) => i.kind === 'dot')
  return (
    <figure
      aria-label={`Lane ${lane.title}`}
      aria-describedby={summaryId}
      className="flex shrink-0 border-b border-rule"
      style={{ height: lane.height }}
    >
      <figcaption id={summaryId} className="sr-only">
        {lane.summary}
      </figcaption>
      <div
        className="flex shrink-0 flex-col items-center gap-2 overflow-hidden border-r border-rule bg-paper pt-3"
        style={{ width: headWidth }}
      >
        <span className="text-[19px]">
          <Maths latex={`${nameToLatex(lane.curve)}${"'".repeat(lane.order)}`} />
        </span>
        {first && <Ladder curve={lane.curve} />}
      </div>
      <svg
        width={width}
        height={lane.height}
        className="block touch-none bg-page"
        role="presentation"
      >
        {lane.items.map((item) => (
          <LaneItem key={item.key} item={item} />
        ))}
        <g className="fill-quiet text-[13px] select-none" aria-hidden>
          {lane.ticks
            .filter(({ at }) => at > 12 && at < lane.height - 4)
            .map(({ at, text }) => (
              <text
                key={text}
                x={6}
                y={at - 4}
                className="stroke-page"
                strokeWidth="3"
                paintOrder="stroke"
              >
                {text}
              </text>
            ))}
        </g>
        {dots.map((item) => (
          <DotHandle key={item.key} item={item} />
        ))}
      </svg>
    </figure>
  )
}

/** The part of a point that can be taken hold of, wider than the point is drawn. */
function DotHandle({ item }: { item: Item & { kind: 'dot' } }) {
  const store = useWorkbenchStore()
  const circle = useRef<SVGCircleElement>(null)
  const valueAt = (clientX: number) => {
    const { scene } = store.getState()
    const { left } = circle.current!.ownerSVGElement!.getBoundingClientRect()
    return scene.x[0] + ((clientX - left) / scene.width) * (scene.x[1] - scene.x[0])
  }
  const decimals = useWorkbench((s) => pixelDecimals(s.scene.x, s.scene.width))
  const mover = useMover(item.place, valueAt, decimals)
  // Touch scrolling would take the pointer away in the middle of a drag.
  useEffect(() => {
    const element = circle.current!
    const keep = (event: TouchEvent) => event.preventDefault()
    element.addEventListener('touchstart', keep, { passive: false })
    return () => element.removeEventListener('touchstart', keep)
  }, [])
  return (
    <circle
      ref={circle}
      cx={item.x}
      cy={item.y}
      r={20}
      className="cursor-grab fill-transparent active:cursor-grabbing"
      data-point={item.place}
      {...mover}
    />
  )
}

/** As many decimals as a pixel of the axis is worth. */
export const pixelDecimals = (x: readonly [number, number], width: number) =>
  Math.max(0, Math.min(12, Math.ceil(-Math.log10((x[1] - x[0]) / Math.max(1, width)))))

function Ladder({ curve }: { curve: string }) {
  const { apply } = useWorkbenchStore().getState()
  const open = useStudy((s) =>
    s.lanes.flatMap((l) => (l.curve === curve ? [l.order] : [])).join(),
  ).split(',')
  const orders = Array.from({ length: highestOrder + 1 }, (_, i) => i)
  return (
    <div
      role="group"
      aria-label={`Lanes of ${curve}`}
      className="flex w-[46px] flex-col overflow-hidden rounded-md border border-rule"
    >
      {orders.map((order) => {
        const shown = open.includes(String(order))
        return (
          <button
            key={order}
            type="button"
            aria-pressed={shown}
            aria-label={`Show ${curve}${'′'.repeat(order)}`}
            className={`h-[26px] border-b border-rule text-[15px] last:border-b-0 focus-visible:-outline-offset-2 ${
              shown
                ? 'bg-kelp text-page focus-visible:outline-page'
                : 'bg-page text-quiet hover:text-ink'
            }`}
            onClick={() => apply(toggleLane(curve, order))}
          >
            <Maths latex={`${nameToLatex(curve)}${"'".repeat(order)}`} />
          </button>
        )
      })}
    </div>
  )
}

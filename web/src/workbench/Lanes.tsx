import {
  bringIntoFrame,
  derivativeToLatex,
  type Item,
  type LaneScene,
  toggleLane,
} from '@yperkine/core'
import { memo, useEffect, useLayoutEffect, useMemo, useRef } from 'react'
import { Maths } from '../parts/Maths'
import { LaneItem } from './LaneItem'
import { LaneRange } from './LaneRange'
import { LaneSettings } from './LaneSettings'
import { Ruler, rulerHeight } from './Ruler'
import { useStudy, useWorkbench, useWorkbenchStore } from './store'
import { useFraming } from './useFraming'
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
  const letter = useStudy((s) => s.variable.letter)
  const notation = useStudy((s) => s.display.notation)
  const { id, title, y, curve, order } = lane
  const named = useMemo(() => ({ id, title, y, curve, order }), [id, title, y, curve, order])
  const summaryId = `summary-${lane.id}`
  const head = useRef<HTMLDivElement>(null)
  const plot = useRef<SVGSVGElement>(null)
  useFraming(head, { across: false, lane: lane.id, upright: true })
  useFraming(plot, { across: true, lane: lane.id })
  const dots = lane.items.filter((i) => i.kind === 'dot')
  return (
    <figure
      aria-label={`Lane ${lane.title}`}
      aria-describedby={summaryId}
      className="flex shrink-0 border-b border-rule [contain:layout_paint]"
      style={{ height: lane.height }}
    >
      <figcaption id={summaryId} className="sr-only">
        {lane.summary}
      </figcaption>
      <div
        ref={head}
        className="flex shrink-0 touch-none flex-col items-center gap-1.5 overflow-hidden border-r border-rule bg-paper pt-3"
        style={{ width: headWidth }}
      >
        <span className="text-[calc(19px*var(--type))]">
          <Maths latex={derivativeToLatex(lane.curve, lane.order, letter, notation)} />
        </span>
        {first && <Ladder curve={lane.curve} />}
        <LaneSettings lane={named} />
      </div>
      <div className="relative">
        <Ground items={lane.items} ticks={lane.ticks} width={width} height={lane.height} />
        <svg
          ref={plot}
          width={width}
          height={lane.height}
          className="relative block touch-none will-change-transform"
          role="presentation"
        >
          {lane.items.filter(hangsOnPlace).map((item) => (
            <LaneItem key={item.key} item={item} />
          ))}
          {dots.map((item) => (
            <DotHandle key={item.key} item={item} />
          ))}
        </svg>
        <LaneRange lane={named} />
        {lane.outside && <BringBack lane={lane} />}
      </div>
    </figure>
  )
}

/** What moves with a place; the rest stands still while a place moves. */
const hangsOnPlace = (item: Item) => item.ink === 'place'

interface GroundProps {
  items: LaneScene['items']
  ticks: LaneScene['ticks']
  width: number
  height: number
}

/** Grid, axis, curve and tick labels, on a layer of their own: moving a place paints none of it. */
const Ground = memo(
  function Ground({ items, ticks, width, height }: GroundProps) {
    return (
      <svg
        width={width}
        height={height}
        className="absolute inset-0 bg-page will-change-transform"
        aria-hidden
      >
        {items
          .filter((item) => !hangsOnPlace(item))
          .map((item) => (
            <LaneItem key={item.key} item={item} />
          ))}
        <g className="fill-quiet text-[calc(13px*var(--type))] select-none">
          {ticks
            .filter(({ at }) => at > 12 && at < height - 4)
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
      </svg>
    )
  },
  (before, after) =>
    before.width === after.width &&
    before.height === after.height &&
    before.ticks === after.ticks &&
    sameStill(before.items, after.items),
)

function sameStill(a: readonly Item[], b: readonly Item[]): boolean {
  const [p, q] = [a, b].map((all) => all.filter((item) => !hangsOnPlace(item))) as [Item[], Item[]]
  return p.length === q.length && p.every((item, i) => item === q[i])
}

/** Says that the curve is out of sight, and brings it back. */
function BringBack({ lane }: { lane: LaneScene }) {
  const store = useWorkbenchStore()
  const bring = () => {
    const found = store.getState().evaluation.curves.get(lane.curve)
    if (found?.ok) {
      const { from, to } = found.curve
      store.getState().apply(bringIntoFrame(lane.id, [from, to]))
    }
  }
  return (
    <div className="pointer-events-none absolute inset-0 grid place-items-center">
      <div className="popover pointer-events-auto flex items-center gap-3 px-4 py-2">
        <span>{lane.title} lies outside this frame.</span>
        <button type="button" className="button" onClick={bring}>
          Bring curve into frame
        </button>
      </div>
    </div>
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

const Ladder = memo(function Ladder({ curve }: { curve: string }) {
  const { apply } = useWorkbenchStore().getState()
  const open = useStudy((s) =>
    s.lanes.flatMap((l) => (l.curve === curve ? [l.order] : [])).join(),
  ).split(',')
  const letter = useStudy((s) => s.variable.letter)
  const notation = useStudy((s) => s.display.notation)
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
            className={`h-[26px] border-b border-rule text-[calc(15px*var(--type))] last:border-b-0 focus-visible:-outline-offset-2 ${
              shown
                ? 'bg-kelp text-page focus-visible:outline-page'
                : 'bg-page text-quiet hover:text-ink'
            }`}
            onClick={() => apply(toggleLane(curve, order))}
          >
            <Maths latex={derivativeToLatex(curve, order, letter, notation)} />
          </button>
        )
      })}
    </div>
  )
})

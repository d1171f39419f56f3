import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import {
  bringIntoFrame,
  changeLane,
  drawHere,
  fitFrame,
  goTo,
  type Item,
  laddersOf,
  type LaneScene,
  letterAlong,
  nameToLatex,
} from '@yperkine/core'
import { memo, useEffect, useMemo, useRef } from 'react'
import { Maths } from '../../parts/Maths'
import { Cover } from './Cover'
import { Expanse } from './Expanse'
import { Highlight } from './Highlight'
import { BodyHandle } from './BodyHandle'
import { cornerPlace } from './cornerPlace'
import { Notes, NotesInHead } from './Notes'
import { Ladder, ladderShape, rungLatex } from './Ladder'
import { takesRung } from './rung'
import { LabelHandle } from './LabelHandle'
import { LaneEdge } from './LaneEdge'
import { LaneInset } from './LaneInset'
import { LaneRange } from './LaneRange'
import { LaneSettings } from '../settings/LaneSettings'
import { headWidth, pixelDecimals } from '../drawing/layout'
import { OnCurve } from './OnCurve'
import { createPainter } from './paint'
import { useHeadless, useReading, useStudy, useWorkbench, useWorkbenchStore } from '../store'
import { useCoarsePointer } from '../gestures/useCoarsePointer'
import { useFraming } from '../gestures/useFraming'
import { useMover } from '../gestures/useMover'
import { useHandlePainting, useLanePainting } from '../drawing/usePainting'
import { pixelWorth, valueUnder } from '../gestures/axis'

interface Props {
  id: string
  /** The lane below it, or null. */
  next: string | null
  /** It stands at the top. */
  first: boolean
}

/** Room for the name of a lane and the button beside it, in pixels. */
const titleHeight = 40

/** One plot strip: its head and its picture. */
export const Lane = memo(function Lane({ id, next, first }: Props) {
  const title = useLane(id, (l) => l.title)
  const curve = useLane(id, (l) => l.curve)
  const order = useLane(id, (l) => l.order)
  const height = useLane(id, (l) => l.height)
  const summary = useLane(id, (l) => l.summary)
  const outside = useLane(id, (l) => l.outside)
  const undrawn = useLane(id, (l) => l.undrawn)
  const hidden = useLane(id, (l) => l.hidden)
  // A covered lane is a question; what it hides is part of the answer.
  const covered = useStudy((s) => s.lanes.find((l) => l.id === id)?.covered ?? false)
  const dots = useLane(id, (l) =>
    l.items.flatMap((i) => (i.kind === 'dot' ? [i.key] : [])).join('\n'),
  )
  const bodies = useLane(id, (l) =>
    l.items.flatMap((i) => (i.kind === 'body' ? [i.key] : [])).join('\n'),
  )
  const labels = useLane(id, (l) =>
    l.items.flatMap((i) => (i.kind === 'label' && i.owner ? [i.key] : [])).join('\n'),
  )
  const ladders = useStudy((s) => (laddersOf(s).get(id) ?? []).join('\n'))
  const rangeCorner = useLane(id, (l) => l.rangeCorner)
  const hiddenCorner = useLane(id, (l) => l.hiddenCorner)
  const unseen = useLane(id, (l) => l.unseen)
  const coarse = useCoarsePointer()
  const letter = useStudy((s) => s.variable.letter)
  const along = useWorkbench((s) => letterAlong(s.evaluation, curve))
  const notation = useStudy((s) => s.display.notation)
  const names = keysOf(ladders)
  const shape = ladderShape(names.length, height - titleHeight, coarse)
  const named = useMemo(() => ({ id, title, curve, order }), [id, title, curve, order])
  const headless = useHeadless()
  const reading = useReading()
  const summaryId = `summary-${id}`
  const head = useRef<HTMLDivElement>(null)
  useFraming(head, { across: false, lane: id, upright: true })
  const { apply } = useWorkbenchStore().getState()
  return (
    <figure
      aria-label={`Lane ${title}`}
      aria-describedby={summaryId}
      className="relative flex shrink-0 border-b border-rule [contain:layout_paint]"
      style={{ height }}
      {...takesRung((rung) => apply(drawHere(id, rung.curve, rung.order)))}
    >
      <figcaption id={summaryId} className="sr-only">
        {covered ? `${title} is covered: guess first, then uncover it.` : summary}
      </figcaption>
      <div
        ref={head}
        className="shrink-0 touch-none flex-col items-center not-[[hidden]]:flex gap-1.5 overflow-x-hidden overflow-y-auto border-r border-rule bg-paper pt-1"
        style={{ width: headWidth }}
        hidden={headless}
      >
        <span className="flex h-8 shrink-0 items-center text-[calc(19px*var(--type))] pointer-coarse:h-11">
          <Maths
            latex={`${rungLatex(curve, order, along, notation)}${along === letter ? '' : `(${nameToLatex(along)})`}`}
          />
          {!reading && <LaneSettings lane={named} />}
        </span>
        {!covered && <NotesInHead id={id} />}
        {!reading && names.map((name) => <Ladder key={name} curve={name} shape={shape} />)}
        {hidden && !hiddenCorner && !outside && !covered && (
          <HiddenInHead id={id} hidden={hidden} />
        )}
      </div>
      <div className="relative">
        <Ground id={id} height={height} order={order} />
        <Overlay
          id={id}
          height={height}
          dots={dots}
          labels={labels}
          bodies={covered ? '' : bodies}
        />
        <Notes id={id} covered={covered} />
        <LaneInset id={id} title={title} />
        <Cover lane={named} />
        <Highlight id={id} height={height} />
        {order >= 0 && !covered && !unseen && !headless && (
          <LaneRange lane={named} corner={rangeCorner} />
        )}
        {hidden && hiddenCorner && !outside && !covered && (
          <div
            className={`pointer-events-none absolute flex items-center gap-x-2 ${cornerPlace(hiddenCorner, order, rangeCorner === hiddenCorner)}`}
          >
            <DoesNotShow id={id} hidden={hidden} />
          </div>
        )}
        {first && <ComeBack />}
        {outside && <BringBack lane={named} />}
        {undrawn !== null && <Undrawn words={undrawn} />}
      </div>
      {next && !reading && <LaneEdge id={id} title={title} next={next} />}
    </figure>
  )
})

/** What a lane's scene says; lanes of a scene and of its study are the same ones. */
const useLane = <T,>(id: string, select: (lane: LaneScene) => T): T =>
  useWorkbench((s) => select(s.scene.lanes.find((l) => l.id === id)!))

/** What may move with a place; the rest stands still while a place moves. */
const hangsOnPlace = ({ layer }: Item) => layer === 'marks' || layer === 'points'

/** No number stands on the band at the foot of a derivative's lane, in pixels. */
const bandRoom = 22

/** Grid, axis, curve and tick labels, on a layer apart from what moves: a moving place draws none of it anew. */
function Ground({ id, height, order }: { id: string; height: number; order: number }) {
  const width = useWorkbench((s) => s.scene.width)
  const ticks = useLane(id, (l) => l.ticks)
  const group = useRef<SVGGElement>(null)
  const painter = useRef<ReturnType<typeof createPainter>>(null)
  useLanePainting(id, (lane) => {
    painter.current ??= createPainter(group.current!)
    painter.current(lane.items.filter((item) => !hangsOnPlace(item)))
  })
  return (
    <svg
      width={width}
      height={height}
      className="absolute inset-0 bg-page will-change-transform"
      aria-hidden
    >
      <g ref={group} />
      <g className="fill-quiet text-[calc(13px*var(--type))] select-none">
        {ticks
          .filter(
            ({ at, silent }) =>
              !silent && at > 12 && at < height - (order === 1 || order === 2 ? bandRoom : 4),
          )
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
}

interface OverlayProps {
  id: string
  height: number
  /** The keys of what can be taken hold of, a line each. */
  dots: string
  labels: string
  bodies: string
}

const keysOf = (lines: string) => (lines === '' ? [] : lines.split('\n'))

/** What hangs on places, and what of it can be taken hold of. */
function Overlay({ id, height, dots, labels, bodies }: OverlayProps) {
  const width = useWorkbench((s) => s.scene.width)
  const plot = useRef<SVGSVGElement>(null)
  const group = useRef<SVGGElement>(null)
  const painter = useRef<ReturnType<typeof createPainter>>(null)
  useFraming(plot, { across: true, lane: id })
  useLanePainting(id, (lane) => {
    painter.current ??= createPainter(group.current!)
    painter.current(lane.items.filter(hangsOnPlace))
  })
  return (
    <>
      <svg
        ref={plot}
        width={width}
        height={height}
        className="relative block touch-none"
        role="presentation"
      >
        <Expanse />
        <g ref={group} />
        {keysOf(labels).map((key) => (
          <LabelHandle key={key} id={id} item={key} />
        ))}
        {keysOf(dots).map((key) => (
          <DotHandle key={key} id={id} item={key} />
        ))}
        {keysOf(bodies).map((key) => (
          <BodyHandle key={key} id={id} item={key} />
        ))}
      </svg>
      <OnCurve id={id} plot={plot} />
    </>
  )
}

/** Says what lies on the span and cannot be seen in this frame, and goes there. */
function DoesNotShow({ id, hidden }: { id: string; hidden: NonNullable<LaneScene['hidden']> }) {
  const { apply } = useWorkbenchStore().getState()
  const both = useWorkbench((s) => s.scene.lanes.find((l) => l.id === id)?.inset != null)
  const { sentence, from, to } = hidden
  const room = Math.max((to - from) * 0.3, 1e-9 * Math.max(1, Math.abs(from)))
  const around: [number, number] = to > from ? [from - room, to + room] : [from - 0.5, from + 0.5]
  const store = useWorkbenchStore()
  return (
    <>
      <span className="text-[calc(13px*var(--type))] text-ochre">{sentence}</span>
      <button
        type="button"
        className="pill pointer-events-auto whitespace-nowrap"
        onClick={() => {
          store.getState().leave()
          apply(goTo(around))
        }}
      >
        Go there
      </button>
      {!both && (
        <button
          type="button"
          className="pill pointer-events-auto whitespace-nowrap"
          onClick={() => apply(changeLane(id, { inset: around }))}
        >
          Show both scales
        </button>
      )}
    </>
  )
}

/** The same behind a button, where no corner of the picture is free. */
const HiddenInHead = ({ id, hidden }: { id: string; hidden: NonNullable<LaneScene['hidden']> }) => (
  <Popover>
    <PopoverButton
      title={hidden.sentence}
      className="button min-h-7 px-2 py-0 text-[calc(12px*var(--type))] text-ochre"
    >
      hidden
    </PopoverButton>
    <PopoverPanel anchor="right start" className="popover z-30 grid max-w-80 gap-2 p-4">
      <DoesNotShow id={id} hidden={hidden} />
    </PopoverPanel>
  </Popover>
)

/** After going to what did not show: back to the frame before. */
function ComeBack() {
  const store = useWorkbenchStore()
  const left = useWorkbench((s) => s.left)
  if (!left) return null
  return (
    <button
      type="button"
      className="pill absolute top-2 left-12 z-10"
      onClick={() => store.getState().comeBack()}
    >
      Come back
    </button>
  )
}

/** Says why nothing is drawn, and goes back to the frame that follows the curves. */
function Undrawn({ words }: { words: string }) {
  const { apply } = useWorkbenchStore().getState()
  const isSet = useStudy((s) => s.frame !== null || s.lanes.some((l) => l.frame !== null))
  return (
    <div className="pointer-events-none absolute inset-0 grid place-items-center">
      <div role="note" className="popover pointer-events-auto flex items-center gap-3 px-4 py-2">
        <span>{words}</span>
        {isSet ? (
          <button type="button" className="button" onClick={() => apply(fitFrame)}>
            Fit
          </button>
        ) : (
          <span className="text-quiet">Let the curve have another span.</span>
        )}
      </div>
    </div>
  )
}

/** Says that the curve is out of sight, and brings it back. */
function BringBack({ lane }: { lane: Pick<LaneScene, 'id' | 'curve' | 'title'> }) {
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
function DotHandle({ id, item: key }: { id: string; item: string }) {
  const store = useWorkbenchStore()
  const circle = useRef<SVGCircleElement>(null)
  const place = useWorkbench((s) => dotOf(s.scene.lanes, id, key)?.place ?? '')
  const valueAt = (clientX: number) =>
    valueUnder(store.getState().scene, circle.current!.ownerSVGElement!, clientX)
  const decimals = useWorkbench((s) => pixelDecimals(s.scene.x, s.scene.width))
  const mover = useMover(place, valueAt, decimals, {
    perPixel: () => pixelWorth(store.getState().scene),
  })
  useHandlePainting(({ lanes }) => {
    const dot = dotOf(lanes, id, key)
    if (!dot) return
    circle.current!.setAttribute('cx', String(dot.x))
    circle.current!.setAttribute('cy', String(dot.y))
  })
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
      r={22}
      className="cursor-grab fill-transparent active:cursor-grabbing"
      data-point={place}
      {...mover}
    />
  )
}

function dotOf(lanes: readonly LaneScene[], id: string, key: string) {
  const item = lanes.find((l) => l.id === id)?.items.find((i) => i.key === key)
  return item?.kind === 'dot' ? item : undefined
}

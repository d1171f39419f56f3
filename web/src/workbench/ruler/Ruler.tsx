import {
  addSlider,
  enterSlider,
  fitOrWhole,
  flagWidth,
  formatShort,
  freshName,
  nameToLatex,
  numberToFormula,
  ownLane,
  placeSlider,
  readNumber,
  renamePlace,
  type Scene,
  setFrame,
  sliderOfPlace,
} from '@yperkine/core'
import { type PointerEvent, type RefObject, useRef, useState } from 'react'
import { useShallow } from 'zustand/react/shallow'
import { EditableText } from '../../parts/EditableText'
import { Maths } from '../../parts/Maths'
import { BoundField } from '../../parts/BoundField'
import { Expanse } from '../lanes/Expanse'
import { createPainter } from '../lanes/paint'
import { takesRung } from '../lanes/rung'
import { headWidth, pixelDecimals, rulerHeight } from '../drawing/layout'
import { setText } from '../../parts/setText'
import { type DrawnSpan, SpanOffers } from './SpanOffers'
import { SpanBar } from './SpanBar'
import { useHeadless, useReading, useStudy, useWorkbench, useWorkbenchStore } from '../store'
import { useBarRows } from './useBarRows'
import { useFraming } from '../gestures/useFraming'
import { useMover } from '../gestures/useMover'
import { useHandlePainting, usePainting } from '../drawing/usePainting'
import { pixelWorth, valueUnder } from '../gestures/axis'

/** The axis under the lanes, with a flag for each place. */
export function Ruler() {
  const store = useWorkbenchStore()
  const width = useWorkbench((s) => s.scene.width)
  const variable = useStudy((s) => s.variable)
  const [x0, x1] = useWorkbench((s) => s.scene.x)
  const names = useWorkbench((s) => s.scene.flags.map((f) => f.text).join('\n'))
  const strip = useRef<HTMLDivElement>(null)
  useFraming(strip, { across: true, lane: null, wheelOnly: true })
  const [drawn, setDrawn] = useState<DrawnSpan | null>(null)
  const plant = usePlanting(strip, setDrawn)
  const barRows = useBarRows()
  const headless = useHeadless()
  const reading = useReading()
  const type = useWorkbench((s) => s.size.type)
  const height = rulerHeight(barRows, headless ? (type ?? 1) : undefined)
  const bars = useWorkbench((s) => s.scene.bars.length)
  const bound = {
    step: 10 ** Math.floor(Math.log10((x1 - x0) / 10)),
    decimals: Math.max(0, Math.min(12, 2 - Math.floor(Math.log10(x1 - x0)))),
    className:
      'field-sizing-content min-w-16 max-w-32 min-h-6 px-1.5 py-0 text-[calc(13px*var(--type))] pointer-coarse:min-h-11 pointer-coarse:min-w-20',
  }
  const { apply } = store.getState()
  const title = [variable.name, variable.unit && `(${variable.unit})`].filter(Boolean).join(' ')
  return (
    <div
      className="flex shrink-0 bg-paper"
      style={{ height }}
      {...takesRung(({ curve, order }) => store.getState().apply(ownLane(curve, order)))}
    >
      <div
        className="shrink-0 items-center justify-center gap-2 border-r border-rule not-[[hidden]]:flex"
        style={{ width: headWidth }}
        hidden={headless}
      >
        <Maths latex={nameToLatex(variable.letter)} />
        <button
          type="button"
          className="button min-h-7 px-2 text-[calc(13px*var(--type))] pointer-coarse:min-h-11"
          title="Shows what there is to see; pressed again, all of it"
          onClick={() => {
            const { apply, evaluation } = store.getState()
            apply(fitOrWhole(evaluation))
          }}
        >
          Fit
        </button>
      </div>
      <div
        ref={strip}
        className="relative isolate touch-none overflow-hidden select-none"
        style={{ width }}
        title={reading ? undefined : 'Click to put a place here, drag to mark a span'}
        {...(reading ? {} : plant)}
      >
        <RulerScale title={title} height={height} />
        <div
          data-draft
          aria-hidden
          className="pointer-events-none invisible absolute top-0 h-7 border-x-2 border-ochre bg-ochre/20"
        />
        {Array.from({ length: bars }, (_, i) => (
          <SpanBar key={i} index={i} onOffer={setDrawn} />
        ))}
        {drawn && !reading && <SpanOffers drawn={drawn} onClose={() => setDrawn(null)} />}
        <div className="absolute bottom-1 left-1.5" hidden={headless}>
          <BoundField
            {...bound}
            label={`${variable.letter} from`}
            value={x0}
            onEnter={(v) => apply(setFrame([v, x1]))}
          />
        </div>
        <div className="absolute right-1.5 bottom-1" hidden={headless}>
          <BoundField
            {...bound}
            label={`${variable.letter} to`}
            value={x1}
            onEnter={(v) => apply(setFrame([x0, v]))}
          />
        </div>
        <FlagShapes height={height} />
        {names !== '' &&
          names.split('\n').map((text, index) => (
            // A typed place keeps its element while dragging rewrites its text.
            <PlaceFlag key={/^[\d.\-−]/.test(text) ? `fixed${index}` : text} text={text} />
          ))}
      </div>
    </div>
  )
}

/** A press that moves further than this is a drag, in pixels. */
const still = 4

/** A click on the empty ruler puts a new place there; a drag marks a span. */
function usePlanting(
  strip: RefObject<HTMLDivElement | null>,
  onSpan: (drawn: DrawnSpan | null) => void,
) {
  const store = useWorkbenchStore()
  const pressed = useRef<{ x: number; y: number } | null>(null)
  const valueAt = (clientX: number) => {
    const { scene } = store.getState()
    const x = valueUnder(scene, strip.current!, clientX)
    return Number(x.toFixed(pixelDecimals(scene.x, scene.width)))
  }
  const draft = () => strip.current!.querySelector<HTMLElement>('[data-draft]')!
  const onPointerDown = (event: PointerEvent) => {
    const taken = (event.target as Element).closest('button, [role=slider], input, [data-bar]')
    if (event.button !== 0 || taken) return
    pressed.current = { x: event.clientX, y: event.clientY }
    event.currentTarget.setPointerCapture(event.pointerId)
  }
  const onPointerMove = (event: PointerEvent) => {
    const from = pressed.current
    if (!from || Math.abs(event.clientX - from.x) <= still) return
    const { left } = strip.current!.getBoundingClientRect()
    const [a, b] = [from.x - left, event.clientX - left].sort((p, q) => p - q) as [number, number]
    draft().style.left = `${a}px`
    draft().style.width = `${b - a}px`
    draft().style.visibility = 'visible'
  }
  const onPointerUp = (event: PointerEvent) => {
    const from = pressed.current
    pressed.current = null
    if (!from) return
    draft().style.visibility = ''
    if (Math.abs(event.clientX - from.x) <= still) {
      if (Math.abs(event.clientY - from.y) <= still) plant(event.clientX)
      return
    }
    const ends = [valueAt(from.x), valueAt(event.clientX)].sort((p, q) => p - q)
    const [a, b] = ends.map(numberToFormula) as [string, string]
    store.getState().selectSpan({ from: a, to: b })
    onSpan({ span: { from: a, to: b }, x: event.clientX, y: event.clientY })
  }
  const plant = (clientX: number) => {
    const { shown, apply, selectPlace, announce } = store.getState()
    const name = freshName(shown, 'a')
    const slider = placeSlider(shown, name, valueAt(clientX))
    apply(addSlider(slider))
    selectPlace(name)
    announce(`Place ${name} at ${shown.variable.letter} = ${formatShort(slider.value, 6)}`)
  }
  const onPointerCancel = () => {
    pressed.current = null
    draft().style.visibility = ''
  }
  return { onPointerDown, onPointerMove, onPointerUp, onPointerCancel }
}

/** Ticks, their numbers and what runs along the axis. */
function RulerScale({ title, height }: { title: string; height: number }) {
  const { ticks, width } = useWorkbench(
    useShallow((s) => ({ ticks: s.scene.ticks, width: s.scene.width })),
  )
  const svg = useRef<SVGSVGElement>(null)
  const type = useWorkbench((s) => s.size.type ?? 1)
  // A number gives way to a flag that stands on it, and where the edge would cut its sign off.
  usePainting(({ flags }) => {
    svg.current!.querySelectorAll<SVGTextElement>('text[data-at]').forEach((label) => {
      const half = label.textContent.length * 3.6 * type + 2
      const at = Number(label.dataset.at)
      const covered = flags.some(
        (f) => Math.abs(f.at + f.shift - at) < half + (flagWidth(f.text) / 2) * type,
      )
      const cut = at < half - 2 || at > width - half + 2
      label.style.visibility = covered || cut ? 'hidden' : ''
    })
  })
  const starts = useRef<SVGGElement>(null)
  const painter = useRef<ReturnType<typeof createPainter>>(null)
  usePainting((scene) => {
    painter.current ??= createPainter(starts.current!)
    painter.current(scene.starts)
  })
  const text = 'fill-quiet text-[calc(13px*var(--type))]'
  return (
    <svg ref={svg} width={width} height={height} aria-hidden className="absolute inset-0">
      {ticks.map(({ at, text: number, silent }) => (
        <g key={number}>
          <path d={`M${at} 0v6`} className="stroke-axis" />
          <text x={at} y={6 + 13 * type} data-at={at} textAnchor="middle" className={text}>
            {silent ? '' : number}
          </text>
        </g>
      ))}
      <g ref={starts} />
      <text x={width / 2} y={height - 9} textAnchor="middle" className={text}>
        {title}
      </text>
    </svg>
  )
}

const plain = (text: string) => text.replaceAll('-', '−')

function PlaceFlag({ text }: { text: string }) {
  const store = useWorkbenchStore()
  const button = useRef<HTMLDivElement>(null)
  const [entering, setEntering] = useState(false)
  const letter = useStudy((s) => s.variable.letter)
  const { from, to, step } = useStudy(
    useShallow((s) => {
      const slider = sliderOfPlace(text, s)
      return { from: slider?.from, to: slider?.to, step: slider?.step ?? 0.1 }
    }),
  )
  const [x0, x1] = useWorkbench((s) => s.scene.x)
  const decimals = useWorkbench((s) => pixelDecimals(s.scene.x, s.scene.width))
  const fixed = useWorkbench((s) => flagOf(s.scene, text)?.fixed ?? false)
  const valueAt = (clientX: number) =>
    valueUnder(store.getState().scene, button.current!.parentElement!, clientX)
  const mover = useMover(text, valueAt, decimals, {
    perPixel: () => pixelWorth(store.getState().scene),
  })
  const name = fixed ? `Place ${letter} = ${plain(text)}` : `Place ${text}`
  usePainting((scene) => {
    const flag = flagOf(scene, text)
    if (!flag) return
    button.current!.setAttribute('aria-valuenow', String(flag.value))
    button.current!.setAttribute('aria-valuetext', `${letter} = ${formatShort(flag.value, 6)}`)
  })
  const place = (scene: Scene) => {
    const flag = flagOf(scene, text)
    if (!flag) return
    const { style } = button.current!
    const hidden = flag.at < -2 || flag.at > scene.width + 2
    style.left = `${flag.at + flag.shift - handleWidth(text) / 2}px`
    style.visibility = hidden ? 'hidden' : 'visible'
  }
  useHandlePainting(place)
  // Where the focus shows it goes along at once.
  usePainting((scene) => {
    if (button.current!.matches(':focus-visible:not(:active)')) place(scene)
  })
  const close = () => {
    setEntering(false)
    requestAnimationFrame(() => button.current?.focus())
  }

  return (
    <>
      {/* The value is written by the painting, at every frame. */}
      <div
        ref={button}
        role="slider"
        tabIndex={0}
        aria-label={name}
        aria-valuemin={from ?? x0}
        aria-valuemax={to ?? x1}
        aria-valuenow={flagOf(store.getState().scene, text)?.value ?? x0}
        data-step={step}
        className="absolute top-0 h-8 cursor-grab touch-none rounded-md active:cursor-grabbing active:outline-none pointer-coarse:h-11"
        style={{ width: handleWidth(text) }}
        {...mover}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.preventDefault()
            setEntering(true)
          } else mover.onKeyDown(event)
        }}
        onDoubleClick={() => setEntering(true)}
      />
      {entering && <ExactEntry text={text} onClose={close} />}
    </>
  )
}

const flagOf = (scene: Scene, text: string) => scene.flags.find((f) => f.text === text)

/** A finger needs more than a flag is wide. */
const handleWidth = (text: string) => Math.max(44, flagWidth(text))

const flagTop = 2

/**
 * The flags as they are seen, in one picture: there they move without a property of a layer changing,
 * which would have all layers of the page gathered anew.
 */
function FlagShapes({ height }: { height: number }) {
  const width = useWorkbench((s) => s.scene.width)
  const texts = useWorkbench(useShallow((s) => s.scene.flags.map((f) => f.text)))
  const group = useRef<SVGGElement>(null)
  const type = useWorkbench((s) => s.size.type ?? 1)
  usePainting(({ flags }) => {
    const shapes = group.current!.children
    flags.forEach(({ at, shift, text }, i) => {
      const shape = shapes[i]
      if (!shape) return
      const [outline, label] = shape.children
      const half = (flagWidth(text) / 2) * type
      // Its tip stands on the place, also where its body gives way to another flag.
      const middle = at + shift
      outline!.setAttribute(
        'd',
        `M${at} ${flagTop}L${middle + half} ${flagTop + 9}V${flagTop + 25 * type}H${middle - half}V${flagTop + 9}Z`,
      )
      label!.setAttribute('x', String(middle))
      setText(label!, plain(text))
    })
  })
  return (
    <svg
      width={width}
      height={height}
      aria-hidden
      className="pointer-events-none absolute inset-0 isolate"
    >
      <Expanse />
      <g ref={group}>
        {texts.map((_, i) => (
          <g key={i}>
            <path className="fill-rust" />
            <text
              y={flagTop + 20 * type}
              textAnchor="middle"
              className="fill-page font-serif text-[calc(14px*var(--type))] font-semibold italic select-none"
            />
          </g>
        ))}
      </g>
    </svg>
  )
}

/** A small field that takes any expression for a place. */
function ExactEntry({ text: place, onClose }: { text: string; onClose: () => void }) {
  const store = useWorkbenchStore()
  const { scene } = store.getState()
  const { sliders } = store.getState().shown
  const own = sliders.find((s) => s.name === place)
  const at = flagOf(scene, place)?.at ?? 0
  return (
    <div className="absolute top-1 z-30" style={{ left: Math.min(at + 14, scene.width - 130) }}>
      <EditableText
        label={`${place} exactly`}
        className="w-32"
        value={own ? formatShort(own.value, 12).replace('−', '-') : place}
        check={(text) => {
          const read = readNumber(text, sliders)
          return read.ok ? null : read.message
        }}
        onCommit={(text) => {
          const read = readNumber(text, sliders)
          if (!read.ok) return
          const { apply, announce } = store.getState()
          apply(own ? enterSlider(own.name, read.value) : renamePlace(place, text.trim()))
          announce(`${place} = ${formatShort(read.value, 6)}`)
        }}
        onClose={onClose}
      />
    </div>
  )
}

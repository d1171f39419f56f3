import {
  formatShort,
  moveSpanEnd,
  numberToFormula,
  offersOverSpan,
  readNumber,
  setSpan,
  spanBounds,
  type SpanText,
} from '@yperkine/core'
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react'
import { EditableText } from '../../parts/EditableText'
import { barHeight, barsTop, pixelDecimals } from '../drawing/layout'
import { OfferMenu } from '../working/OfferMenu'
import { useStudy, useWorkbench, useWorkbenchStore } from '../store'
import { stepsOf } from '../gestures/useMover'
import { usePainting } from '../drawing/usePainting'
import { newGesture } from '../gestures/gesture'
import { pixelWorth, valueUnder } from '../gestures/axis'

/** A span that was drawn or pressed, and where in the window. */
export interface DrawnSpan {
  span: SpanText
  x: number
  y: number
}

/** A span that lines hang on: a bar with two handles, which moves as a whole as well. */
export function SpanBar({
  index,
  onOffer,
}: {
  index: number
  onOffer: (drawn: DrawnSpan) => void
}) {
  const store = useWorkbenchStore()
  const bar = useRef<HTMLDivElement>(null)
  const moving = useRef<{ x: number; span: SpanText; gesture: string; moved: boolean } | null>(null)
  const barNow = () => store.getState().scene.bars[index]
  usePainting((scene) => {
    const found = scene.bars[index]
    if (!found || !bar.current) return
    bar.current.style.left = `${found.from.at}px`
    bar.current.style.width = `${Math.max(0, found.to.at - found.from.at)}px`
    bar.current.style.top = `${barsTop + found.row * (barHeight + 2)}px`
  })
  const onPointerDown = (event: PointerEvent<Element>) => {
    const found = barNow()
    if (event.button !== 0 || !found) return
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    moving.current = {
      x: event.clientX,
      span: found.span,
      gesture: newGesture('drag.span'),
      moved: false,
    }
    store.getState().hold()
    store.getState().selectSpan(found.span)
  }
  const onPointerMove = (event: PointerEvent<Element>) => {
    const now = moving.current
    if (!now || (!now.moved && Math.abs(event.clientX - now.x) <= 4)) return
    const { scene, history, apply } = store.getState()
    const { sliders } = history.present
    const [from, to] = [readNumber(now.span.from, sliders), readNumber(now.span.to, sliders)]
    if (!from.ok || !to.ok || !isTyped(now.span.from) || !isTyped(now.span.to)) return
    const decimals = pixelDecimals(scene.x, scene.width)
    const by = (event.clientX - now.x) * pixelWorth(scene)
    const shifted = (v: number) => numberToFormula(Number((v + by).toFixed(decimals)))
    const next = { from: shifted(from.value), to: shifted(to.value) }
    apply(setSpan(now.span, next), now.gesture)
    moving.current = { ...now, x: event.clientX, span: next, moved: true }
    store.getState().selectSpan(next)
  }
  const onPointerUp = (event: PointerEvent<Element>) => {
    const now = moving.current
    moving.current = null
    if (!now) return
    store.getState().release(now.moved ? () => spanWords(now.span) : undefined)
    if (!now.moved) onOffer({ span: now.span, x: event.clientX, y: event.clientY })
  }
  return (
    <>
      <div
        ref={bar}
        data-bar={index}
        aria-hidden
        className="absolute grid cursor-grab items-center active:cursor-grabbing"
        style={{ height: barHeight }}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={onPointerUp}
        onPointerCancel={onPointerUp}
      >
        <div className="h-1.5 bg-bar" />
      </div>
      <SpanHandle index={index} end="from" />
      <SpanHandle index={index} end="to" />
    </>
  )
}

const isTyped = (text: string) => /^[\s\d.+\-−E]+$/.test(text)
const spanWords = ({ from, to }: SpanText) => `Span from ${from} to ${to}`

function SpanHandle({ index, end }: { index: number; end: 'from' | 'to' }) {
  const store = useWorkbenchStore()
  const handle = useRef<HTMLDivElement>(null)
  const dragging = useRef<{ span: SpanText; gesture: string } | null>(null)
  const [entering, setEntering] = useState(false)
  const [x0, x1] = useWorkbench((s) => s.scene.x)
  const name = `Span ${index + 1} ${end}`
  const letter = useStudy((s) => s.variable.letter)
  const spanNow = () => store.getState().scene.bars[index]?.span
  usePainting((scene) => {
    const found = scene.bars[index]
    const element = handle.current
    if (!found || !element) return
    const { at, value } = found[end]
    const hidden = at < -8 || at > scene.width + 8
    element.style.left = `${at}px`
    element.style.top = `${barsTop + found.row * (barHeight + 2)}px`
    element.style.visibility = hidden ? 'hidden' : 'visible'
    element.setAttribute('aria-valuenow', String(value))
    element.setAttribute('aria-valuetext', `${letter} = ${formatShort(value, 6)}`)
  })
  const move = (span: SpanText, x: number, decimals: number, gesture: string): SpanText => {
    const next = store.getState().move(moveSpanEnd(span, end, x, decimals), gesture)
    store.getState().selectSpan(next)
    return next
  }
  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    const span = spanNow()
    if (event.button !== 0 || !span) return
    event.preventDefault()
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    event.currentTarget.focus()
    dragging.current = { span, gesture: newGesture('drag.span') }
    store.getState().hold()
    store.getState().selectSpan(span)
  }
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const now = dragging.current
    if (!now) return
    const { scene } = store.getState()
    const x = valueUnder(scene, handle.current!.parentElement!, event.clientX)
    const span = move(now.span, x, pixelDecimals(scene.x, scene.width), now.gesture)
    dragging.current = { ...now, span }
  }
  const onPointerUp = () => {
    const now = dragging.current
    dragging.current = null
    if (now) store.getState().release(() => spanWords(now.span))
  }
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.key === 'Enter') {
      event.preventDefault()
      setEntering(true)
      return
    }
    const steps = stepsOf(event)
    const bar = store.getState().scene.bars[index]
    if (steps === null || !bar || event.ctrlKey || event.metaKey || event.altKey) return
    event.preventDefault()
    const { study } = store.getState().evaluation
    const bounds = spanBounds(store.getState().evaluation, bar.span)
    const { value } = bar[end]
    const x = typeof steps === 'string' ? (bounds?.[steps] ?? value) : value + steps * 0.1
    move(bar.span, x, Math.max(3, study.decimals), `key.span.${index}.${end}`)
  }
  const onKeyUp = (event: KeyboardEvent) => {
    const span = spanNow()
    if (stepsOf(event) !== null && span) store.getState().release(() => spanWords(span))
  }
  const close = () => {
    setEntering(false)
    requestAnimationFrame(() => handle.current?.focus())
  }
  const bar = store.getState().scene.bars[index]
  return (
    <>
      <div
        ref={handle}
        role="slider"
        tabIndex={0}
        aria-label={name}
        aria-valuemin={x0}
        aria-valuemax={x1}
        aria-valuenow={bar?.[end].value ?? 0}
        className="absolute -ml-3 grid w-6 cursor-ew-resize touch-none place-items-center rounded-sm pointer-coarse:-ml-[22px] pointer-coarse:w-11"
        style={{ height: barHeight }}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={onPointerUp}
        onPointerCancel={onPointerUp}
        onKeyDown={onKeyDown}
        onKeyUp={onKeyUp}
        onDoubleClick={() => setEntering(true)}
      >
        <span className="h-3 w-2 rounded-[2px] bg-ochre" />
      </div>
      {entering && bar && (
        <div
          className="absolute top-1 z-30"
          style={{ left: Math.min(bar[end].at + 10, store.getState().scene.width - 130) }}
        >
          <EditableText
            label={`${name} exactly`}
            className="w-32"
            value={bar.span[end]}
            check={(text) => {
              const read = readNumber(text, store.getState().history.present.sliders)
              return read.ok ? null : read.message
            }}
            onCommit={(text) => {
              const { apply, announce } = store.getState()
              apply(setSpan(bar.span, { ...bar.span, [end]: text.trim() }))
              announce(`${name} = ${text.trim()}`)
            }}
            onClose={close}
          />
        </div>
      )}
    </>
  )
}

/** What can hang on a span that was drawn. */
export function SpanOffers({ drawn, onClose }: { drawn: DrawnSpan; onClose: () => void }) {
  const store = useWorkbenchStore()
  const [offers] = useState(() => offersOverSpan(drawn.span, store.getState().history.present))
  const { span, x, y } = drawn
  const close = () => {
    store.getState().selectSpan(null)
    onClose()
  }
  return (
    <OfferMenu
      heading={`[${span.from}, ${span.to}]`.replaceAll('-', '−')}
      offers={offers}
      x={x}
      y={y}
      onClose={close}
    />
  )
}

import { numberToFormula, readNumber, setSpan, type SpanText } from '@yperkine/core'
import { type PointerEvent, useRef } from 'react'
import { barHeight, barsTop, pixelDecimals } from '../drawing/layout'
import { useWorkbenchStore } from '../store'
import { usePainting } from '../drawing/usePainting'
import { newGesture } from '../gestures/gesture'
import { pixelWorth } from '../gestures/axis'
import type { DrawnSpan } from './SpanOffers'
import { spanWords } from './spanWords'
import { SpanHandle } from './SpanHandle'

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
    const { scene, shown, apply } = store.getState()
    const { sliders } = shown
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

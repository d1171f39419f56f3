import {
  formatShort,
  moveSpanEnd,
  readNumber,
  setSpan,
  spanBounds,
  type SpanText,
} from '@yperkine/core'
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react'
import { EditableText } from '../../parts/EditableText'
import { barHeight, barsTop, pixelDecimals } from '../drawing/layout'
import { useStudy, useWorkbench, useWorkbenchStore } from '../store'
import { stepsOf } from '../gestures/useMover'
import { usePainting } from '../drawing/usePainting'
import { newGesture } from '../gestures/gesture'
import { valueUnder } from '../gestures/axis'
import { spanWords } from './spanWords'

export function SpanHandle({ index, end }: { index: number; end: 'from' | 'to' }) {
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
          <ExactEnd name={name} span={bar.span} end={end} onClose={close} />
        </div>
      )}
    </>
  )
}

/** A small field that takes any expression for an end of a span. */
function ExactEnd({
  name,
  span,
  end,
  onClose,
}: {
  name: string
  span: SpanText
  end: 'from' | 'to'
  onClose: () => void
}) {
  const { getState } = useWorkbenchStore()
  return (
    <EditableText
      label={`${name} exactly`}
      className="w-32"
      value={span[end]}
      check={(text) => {
        const read = readNumber(text, getState().shown.sliders)
        return read.ok ? null : read.message
      }}
      onCommit={(text) => {
        const { apply, announce } = getState()
        apply(setSpan(span, { ...span, [end]: text.trim() }))
        announce(`${name} = ${text.trim()}`)
      }}
      onClose={onClose}
    />
  )
}

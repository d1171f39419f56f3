import {
  addSlider,
  type CurveReading,
  type Evaluation,
  freshName,
  type Offer,
  offersAtPoint,
  placeSlider,
  readCurveAt,
} from '@yperkine/core'
import { type RefObject, useEffect, useRef, useState } from 'react'
import { OfferMenu, offerItem } from '../working/OfferMenu'
import { setText } from '../../parts/setText'
import { useReading, useWorkbenchStore } from '../store'
import { pixelWorth, valueUnder } from '../gestures/axis'

interface Props {
  id: string
  plot: RefObject<SVGSVGElement | null>
}

/** A pointer this near to the place of a row lights it, in pixels. */
const rowReach = 5

const mostLit = 2000

/** The place of the row nearest to x, if it lies within reach. */
function nearestRow(evaluation: Evaluation, x: number, reach: number): number | null {
  let best: number | null = null
  for (const { tables = [] } of evaluation.lines.values()) {
    for (const table of tables) {
      // Thousands of points lie closer than a pointer can tell.
      if (table.count > mostLit) continue
      for (const row of table.rows) {
        if (row.x === undefined || Math.abs(row.x - x) > reach) continue
        if (best === null || Math.abs(row.x - x) < Math.abs(best - x)) best = row.x
      }
    }
  }
  return best
}

/** A press that moves further than this is a drag, in pixels. */
const still = 4

interface Menu {
  reading: CurveReading
  offers: Offer[]
  /** The point in the window. */
  x: number
  y: number
}

/** Resting on a curve shows its value there; a click offers what can hang on that place. */
export function OnCurve({ id, plot }: Props) {
  const store = useWorkbenchStore()
  const isRead = useReading()
  const point = useRef<HTMLDivElement>(null)
  const label = useRef<HTMLSpanElement>(null)
  const [menu, setMenu] = useState<Menu | null>(null)

  useEffect(() => {
    const element = plot.current!
    let pressed: { x: number; y: number } | null = null
    const readingAt = (event: MouseEvent) => {
      const { evaluation, scene } = store.getState()
      const { left, top } = element.getBoundingClientRect()
      const pointer = { x: event.clientX - left, y: event.clientY - top }
      return readCurveAt(evaluation, scene, id, pointer)
    }
    const show = (reading: CurveReading | null) => {
      const box = point.current!
      box.style.visibility = reading ? 'visible' : 'hidden'
      if (!reading) return
      box.style.transform = `translate(${reading.at.x}px, ${reading.at.y}px)`
      // The value stands on the side that has room for it.
      const { width } = store.getState().scene
      label.current!.style.right = reading.at.x > width - 150 ? '10px' : ''
      label.current!.style.left = reading.at.x > width - 150 ? '' : '10px'
      label.current!.style.top = reading.at.y < 36 ? '8px' : '-30px'
      setText(label.current!, reading.text)
    }
    const onMove = (event: PointerEvent) => {
      const busy = event.buttons !== 0 || event.pointerType === 'touch'
      const onDot = event.target !== element && (event.target as Element).tagName === 'circle'
      const reading = busy || onDot ? null : readingAt(event)
      show(reading)
      if (!busy) light(event)
    }
    /** A row of an open table lights when its point is near the pointer. */
    const light = (event: MouseEvent) => {
      const { evaluation, scene, setHighlight } = store.getState()
      const x = valueUnder(scene, element, event.clientX)
      setHighlight(nearestRow(evaluation, x, rowReach * pixelWorth(scene)))
    }
    const onLeave = () => {
      show(null)
      store.getState().setHighlight(null)
    }
    const onDown = (event: PointerEvent) => {
      pressed = { x: event.clientX, y: event.clientY }
    }
    const onClick = (event: MouseEvent) => {
      const moved = pressed && Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y)
      if (moved === null || moved > still || isRead) return
      if ((event.target as Element).tagName === 'circle') return
      const reading = readingAt(event)
      if (!reading) return setMenu(null)
      show(null)
      const { curve, order, place } = reading
      const { left, top } = element.getBoundingClientRect()
      setMenu({
        reading,
        x: left + reading.at.x,
        y: top + reading.at.y,
        offers: offersAtPoint({ curve, order }, place, store.getState().shown),
      })
    }
    element.addEventListener('pointermove', onMove)
    element.addEventListener('pointerleave', onLeave)
    element.addEventListener('pointerdown', onDown)
    element.addEventListener('click', onClick)
    return () => {
      element.removeEventListener('pointermove', onMove)
      element.removeEventListener('pointerleave', onLeave)
      element.removeEventListener('pointerdown', onDown)
      element.removeEventListener('click', onClick)
    }
  }, [id, plot, store, isRead])

  return (
    <>
      <div
        ref={point}
        aria-hidden
        className="pointer-events-none invisible absolute top-0 left-0 z-10"
      >
        <span className="absolute -top-[5px] -left-[5px] size-2.5 rounded-full border-2 border-page bg-ink" />
        <span
          ref={label}
          className="absolute rounded-md bg-page px-1.5 py-0.5 text-[calc(13px*var(--type))] whitespace-nowrap outline outline-rule"
        />
      </div>
      {menu && (
        <OfferMenu {...menu} heading={menu.reading.text} onClose={() => setMenu(null)}>
          <NewPlace reading={menu.reading} onDone={() => setMenu(null)} />
        </OfferMenu>
      )}
    </>
  )
}

function NewPlace({ reading, onDone }: { reading: CurveReading; onDone: () => void }) {
  const store = useWorkbenchStore()
  const newPlace = () => {
    const { apply, shown, selectPlace, announce } = store.getState()
    const name = freshName(shown, 'a')
    apply(addSlider(placeSlider(shown, name, Number(reading.place))))
    selectPlace(name)
    announce(`Place ${name} added`)
    onDone()
  }
  return (
    <button type="button" className={offerItem} onClick={newPlace}>
      A new place here
    </button>
  )
}

import {
  addSlider,
  type CurveReading,
  freshName,
  type Offer,
  offersAtPoint,
  placeSlider,
  readCurveAt,
} from '@yperkine/core'
import { type RefObject, useEffect, useRef, useState } from 'react'
import { createPortal } from 'react-dom'
import { useWorkbenchStore } from './store'

interface Props {
  id: string
  plot: RefObject<SVGSVGElement | null>
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
      label.current!.textContent = reading.text
    }
    const onMove = (event: PointerEvent) => {
      const busy = event.buttons !== 0 || event.pointerType === 'touch'
      const onDot = event.target !== element && (event.target as Element).tagName === 'circle'
      show(busy || onDot ? null : readingAt(event))
    }
    const onLeave = () => show(null)
    const onDown = (event: PointerEvent) => {
      pressed = { x: event.clientX, y: event.clientY }
    }
    const onClick = (event: MouseEvent) => {
      const moved = pressed && Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y)
      if (moved === null || moved > still) return
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
        offers: offersAtPoint({ curve, order }, place, store.getState().history.present),
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
  }, [id, plot, store])

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
      {menu && <OfferMenu menu={menu} onClose={() => setMenu(null)} />}
    </>
  )
}

/** The sentences that can hang on a point of a curve. */
function OfferMenu({ menu, onClose }: { menu: Menu; onClose: () => void }) {
  const store = useWorkbenchStore()
  const box = useRef<HTMLDivElement>(null)
  const { reading, offers } = menu
  useEffect(() => {
    box.current?.querySelector('button')?.focus()
    const onDown = (event: Event) => {
      if (!box.current?.contains(event.target as Node)) onClose()
    }
    document.addEventListener('pointerdown', onDown)
    return () => document.removeEventListener('pointerdown', onDown)
  }, [onClose])
  const newPlace = () => {
    const { apply, history, selectPlace, announce } = store.getState()
    const name = freshName(history.present, 'a')
    apply(addSlider(placeSlider(history.present, name, Number(reading.place))))
    selectPlace(name)
    announce(`Place ${name} added`)
    onClose()
  }
  const item =
    'block w-full rounded-md px-3 py-1.5 text-left font-serif text-[calc(16px*var(--type))] hover:bg-paper focus-visible:bg-paper'
  const { innerWidth, innerHeight } = window
  // The lane clips what stands over its edges, so the list stands on the page.
  return createPortal(
    <div
      ref={box}
      role="dialog"
      aria-label={`What to add at ${reading.text}`}
      className="popover fixed z-30 w-72 p-1"
      style={{
        left: Math.max(4, Math.min(menu.x + 12, innerWidth - 296)),
        ...(menu.y > innerHeight / 2
          ? { bottom: innerHeight - menu.y + 12 }
          : { top: menu.y + 12 }),
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onClose()
      }}
    >
      <p className="px-3 py-1 text-[calc(13px*var(--type))] text-quiet">{reading.text}</p>
      {offers.map(({ sentence, edit }) => (
        <button
          key={sentence}
          type="button"
          className={item}
          onClick={() => {
            store.getState().apply(edit)
            store.getState().announce(`Added: ${sentence}`)
            onClose()
          }}
        >
          {sentence}
        </button>
      ))}
      <button type="button" className={item} onClick={newPlace}>
        A new place here
      </button>
    </div>,
    document.body,
  )
}

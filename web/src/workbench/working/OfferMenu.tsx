import type { Offer } from '@yperkine/core'
import { type ReactNode, useEffect, useRef } from 'react'
import { createPortal } from 'react-dom'
import { useWorkbenchStore } from '../store'

export const offerItem =
  'block w-full rounded-md px-3 py-1.5 text-left font-serif text-[calc(16px*var(--type))] hover:bg-paper focus-visible:bg-paper'

interface Props {
  heading: string
  offers: readonly Offer[]
  /** The point in the window beside which it opens. */
  x: number
  y: number
  onClose: () => void
  children?: ReactNode
}

/** The sentences that can hang on a place or a span that has been pointed at. */
export function OfferMenu({ heading, offers, x, y, onClose, children }: Props) {
  const store = useWorkbenchStore()
  const box = useRef<HTMLDivElement>(null)
  useEffect(() => {
    box.current?.querySelector('button')?.focus()
    const onDown = (event: Event) => {
      if (!box.current?.contains(event.target as Node)) onClose()
    }
    document.addEventListener('pointerdown', onDown)
    return () => document.removeEventListener('pointerdown', onDown)
  }, [onClose])
  const { innerWidth, innerHeight } = window
  // What is pointed at may clip what stands over its edges, so the list stands on the page.
  return createPortal(
    <div
      ref={box}
      role="dialog"
      aria-label={`What to add at ${heading}`}
      className="popover fixed z-30 max-h-[60vh] w-72 overflow-y-auto p-1"
      style={{
        left: Math.max(4, Math.min(x + 12, innerWidth - 296)),
        ...(y > innerHeight / 2 ? { bottom: innerHeight - y + 12 } : { top: y + 12 }),
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onClose()
      }}
    >
      <p className="px-3 py-1 text-[calc(13px*var(--type))] text-quiet">{heading}</p>
      {offers.map(({ sentence, edit }) => (
        <button
          key={sentence}
          type="button"
          className={offerItem}
          onClick={() => {
            store.getState().apply(edit)
            store.getState().announce(`Added: ${sentence}`)
            onClose()
          }}
        >
          {sentence}
        </button>
      ))}
      {children}
    </div>,
    document.body,
  )
}

import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react'
import { type Offer, offersFor, whyNothing } from '@yperkine/core'
import { useMemo, useState } from 'react'
import { ReadingsButton } from './ReadingsDialog'
import { useWorkbench, useWorkbenchStore } from '../store'

/** Plain words in, a line of working out: sentences are offered while one types. */
export function SayWhatToAdd() {
  const store = useWorkbenchStore()
  const [text, setText] = useState('')
  const [looking, setLooking] = useState(false)
  // Offers follow the study only while the field is in use: a drag must not pay for them.
  const study = useWorkbench((s) => (looking ? s.history.present : null))
  const place = useWorkbench((s) => (looking ? s.selectedPlace : null))
  const span = useWorkbench((s) => (looking ? s.selectedSpan : null))
  const offers = useMemo(
    () => (study ? offersFor(text, study, place, span) : []),
    [text, study, place, span],
  )
  const add = (offer: Offer | null) => {
    if (!offer) return
    const { apply, announce } = store.getState()
    apply(offer.edit)
    announce(offer.sets ? offer.sentence : `Added: ${offer.sentence}`)
    setText('')
  }
  const lost = study && text.trim() !== '' && offers.length === 0 ? whyNothing(text, study) : null

  return (
    <div className="relative shrink-0 border-t border-rule bg-paper px-[18px] py-2">
      <Combobox<Offer | null> value={null} onChange={add} immediate>
        <div className="flex items-center gap-2">
          <span aria-hidden className="text-[calc(18px*var(--type))] font-semibold text-rust">
            +
          </span>
          <ComboboxInput
            aria-label="Say what to add"
            id="say-what-to-add"
            autoComplete="off"
            spellCheck={false}
            className="h-10 min-w-0 flex-1 rounded-md bg-transparent px-1 font-serif text-[calc(17px*var(--type))] placeholder:text-quiet placeholder:italic"
            placeholder="Say what to add…"
            displayValue={() => text}
            onChange={(event) => setText(event.target.value)}
            onFocus={() => setLooking(true)}
            onBlur={() => setLooking(false)}
          />
          <ReadingsButton />
          <kbd aria-hidden className="pill h-6 rounded-md px-2 font-sans text-quiet">
            /
          </kbd>
        </div>
        <ComboboxOptions
          modal={false}
          className="popover absolute inset-x-3 bottom-full z-20 mb-1 max-h-80 overflow-y-auto p-1 focus:outline-none empty:invisible"
        >
          {offers.map((offer) => (
            <ComboboxOption
              key={offer.sentence}
              value={offer}
              className="cursor-pointer rounded-md px-3 py-2 font-serif text-[calc(16px*var(--type))] data-focus:bg-paper"
            >
              {offer.sentence}
            </ComboboxOption>
          ))}
        </ComboboxOptions>
      </Combobox>
      {lost && (
        <p
          role="status"
          className="popover absolute inset-x-3 bottom-full mb-1 px-3 py-2 text-quiet"
        >
          {lost}
        </p>
      )}
    </div>
  )
}

import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react'
import { useRef } from 'react'
import { ReadingsButton } from './ReadingsDialog'
import { RequestNotes } from './RequestNotes'
import { type Choice, SuggestedList } from './SuggestedList'
import { UnderlinedText } from './UnderlinedText'
import { useRequest } from './useRequest'

/** Plain words in, a line of working out: sentences are offered while one types. */
export function SayWhatToAdd() {
  const input = useRef<HTMLInputElement>(null)
  const request = useRequest(input)
  const { text, type, empty, groups, found, offers, strange, rest, tried, lost, looking } = request

  return (
    <div className="relative shrink-0 border-t border-rule bg-paper px-[18px] py-2">
      <Combobox<Choice | null> value={null} onChange={request.choose} immediate>
        <div className="flex items-center gap-2">
          <span aria-hidden className="text-[calc(18px*var(--type))] font-semibold text-rust">
            +
          </span>
          <div className="relative min-w-0 flex-1 font-serif text-[calc(17px*var(--type))]">
            <UnderlinedText
              text={text}
              words={strange}
              withLast={tried || rest !== ''}
              field={input}
            />
            <ComboboxInput
              ref={input}
              aria-label="Say what to add"
              aria-describedby="request-notes"
              aria-invalid={strange.length > 0 && tried ? true : undefined}
              id="say-what-to-add"
              autoComplete="off"
              spellCheck={false}
              className="relative h-10 w-full rounded-md bg-transparent px-1 placeholder:text-quiet placeholder:italic"
              placeholder="Say what to add…"
              displayValue={() => text}
              onChange={(event) => type(event.target.value)}
              onKeyDown={request.onKeyDown}
              onFocus={request.onFocus}
              onBlur={request.onBlur}
            />
          </div>
          <ReadingsButton />
          <kbd aria-hidden className="pill h-6 rounded-md px-2 font-sans text-quiet">
            /
          </kbd>
        </div>
        <ComboboxOptions
          modal={false}
          className="popover absolute inset-x-3 bottom-full z-20 mb-1 max-h-[min(60vh,30rem)] overflow-y-auto p-1 focus:outline-none empty:invisible"
        >
          {looking && !empty && offers.length > 0 && (
            <RequestNotes
              text={text}
              understood={found!.understood}
              rest={rest}
              onMend={(next) => {
                type(next)
                input.current?.focus()
              }}
            />
          )}
          {empty ? (
            <SuggestedList groups={groups} />
          ) : (
            offers.map((offer) => (
              <ComboboxOption
                key={offer.sentence}
                value={{ offer }}
                disabled={strange.length > 0}
                className="cursor-pointer rounded-md px-3 py-2 font-serif text-[calc(16px*var(--type))] data-disabled:cursor-default data-disabled:text-quiet data-focus:bg-paper"
              >
                {offer.sentence}
              </ComboboxOption>
            ))
          )}
        </ComboboxOptions>
      </Combobox>
      {lost && (
        <p
          id="request-notes"
          role="status"
          className="popover absolute inset-x-3 bottom-full mb-1 px-3 py-2 text-quiet"
        >
          {lost}
        </p>
      )}
    </div>
  )
}

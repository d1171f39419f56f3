import { ComboboxOption } from '@headlessui/react'
import type { Group, Offer, suggestions } from '@yperkine/core'

/** A line to add, or words to go on with. */
export type Choice = { offer: Offer } | { fill: string }

export const headings: Readonly<Record<Group, string>> = {
  surface: 'On a surface',
  place: 'At a place',
  span: 'Over a span',
  whole: 'About the whole',
  beside: 'Beside the graph',
}

const row =
  'grid cursor-pointer grid-cols-[7.5rem_1fr] items-baseline gap-2 rounded-md px-3 py-1.5 data-focus:bg-paper'

/** What can be said here, in groups: the words for it, and the line they come to. */
export function SuggestedList({ groups }: { groups: ReturnType<typeof suggestions> }) {
  return groups.map(({ group, list }) => (
    <div key={group} role="group" aria-label={headings[group]} className="pb-1">
      <p aria-hidden className="px-3 pt-2 pb-0.5 text-[calc(13px*var(--type))] text-quiet">
        {headings[group]}
      </p>
      {list.map(({ words, offer }) => (
        <ComboboxOption key={words} value={{ offer }} className={row}>
          <span className="font-semibold">{words}</span>
          <span className="font-serif text-[calc(15px*var(--type))] text-quiet">
            {offer.sentence}
          </span>
        </ComboboxOption>
      ))}
      {group === 'beside' && (
        <ComboboxOption value={{ fill: 'let ' }} className={row}>
          <span className="font-semibold">let g(x) = …</span>
          <span className="font-serif text-[calc(15px*var(--type))] text-quiet">another curve</span>
        </ComboboxOption>
      )}
    </div>
  ))
}

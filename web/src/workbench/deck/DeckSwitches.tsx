import { useMemo } from 'react'
import { PartSwitch } from '../working/PartHeading'
import { useStudy, useWorkbench, useWorkbenchStore } from '../store'

/** Whether a place has left something behind. */
export const useHasTrails = () =>
  useWorkbench((s) => [...s.trails.values()].some(({ runs }) => runs.some((run) => run.length > 1)))

/** Wipes what places have left behind. */
export function ClearTrails() {
  const some = useHasTrails()
  const { clearTrails } = useWorkbenchStore().getState()
  if (!some) return null
  return (
    <button type="button" className="button" title="Clear trails (C)" onClick={clearTrails}>
      Clear trails
    </button>
  )
}

/** The switches of the parts that someone has put on the deck, by their titles. */
export function DeckSwitches() {
  const all = useStudy((s) => s.parts)
  const parts = useMemo(() => all.filter((part) => part.onDeck), [all])
  if (parts.length === 0) return null
  return (
    <div
      role="group"
      aria-label="Deck switches"
      className="flex max-w-full flex-wrap items-center gap-x-5 gap-y-1 max-sm:w-full"
    >
      {parts.map(({ id, letter, title, on }) => (
        <span key={id} className="flex items-center gap-1.5">
          <PartSwitch id={id} label={title || `Part ${letter}`} on={on} />
          <span aria-hidden>{title || `Part ${letter}`}</span>
        </span>
      ))}
    </div>
  )
}

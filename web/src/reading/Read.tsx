import { type ReactNode, useEffect } from 'react'
import { Mark } from '../parts/Mark'
import { Deck } from '../workbench/deck/Deck'
import { usePlayer } from '../workbench/deck/usePlayer'
import { useShortcuts } from '../workbench/gestures/useShortcuts'
import { Views } from '../workbench/space/Views'
import { useStudy, useWorkbench, useWorkbenchStore } from '../workbench/store'
import { useLook } from '../workbench/useLook'
import { ReadSteps } from './ReadSteps'
import { ReadWorking } from './ReadWorking'

export const noHelp = () => undefined

interface Props {
  onAgain: () => void
  /** What can be taken from it. */
  children: ReactNode
}

/** The picture with its deck, the lesson and the working, without anything that writes. */
export function Read({ onAgain, children }: Props) {
  const store = useWorkbenchStore()
  const title = useStudy((s) => s.title)
  usePlayer(store)
  useShortcuts(store, noHelp)
  useLook()
  useTitle(title)
  return (
    <div className="flex h-full flex-col overflow-hidden">
      <header className="flex h-[46px] shrink-0 items-center gap-3 border-b border-rule px-4 max-sm:px-2">
        <Mark />
        <h1 className="min-w-0 truncate font-serif text-[calc(17px*var(--type))] font-semibold">
          {title}
        </h1>
        <Moved onAgain={onAgain} />
        <div className="ml-auto flex gap-2">{children}</div>
      </header>
      <main className="flex min-h-0 flex-1 max-lg:flex-col max-lg:overflow-y-auto">
        <div className="flex min-w-0 flex-1 flex-col max-lg:min-h-[max(520px,62vh)] max-lg:flex-none max-sm:min-h-[max(640px,80vh)]">
          <Views />
          <ReadSteps />
          <Deck />
        </div>
        <ReadWorking />
      </main>
    </div>
  )
}

/** After something has been moved: the way back to how the study was handed on. */
function Moved({ onAgain }: { onAgain: () => void }) {
  const moved = useWorkbench((s) => s.history.past.length > 0)
  if (!moved) return <span className="whitespace-nowrap text-quiet max-sm:hidden">to read</span>
  return (
    <button
      type="button"
      className="pill whitespace-nowrap"
      title="Everything as it was when it was opened"
      onClick={onAgain}
    >
      As it was
    </button>
  )
}

export function useTitle(title: string) {
  useEffect(() => {
    document.title = `${title} · Yperkine`
  }, [title])
}

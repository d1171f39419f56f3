import type { StoredStudy } from '@yperkine/core'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useParams } from 'react-router'
import { api, Refused } from '../api'
import { HandOn } from '../handOn/HandOn'
import { CannotBeRead } from '../pages/CannotBeRead'
import { MissingPage } from '../pages/MissingPage'
import { Mark } from '../parts/Mark'
import { Deck } from '../workbench/deck/Deck'
import { usePlayer } from '../workbench/deck/usePlayer'
import { useShortcuts } from '../workbench/gestures/useShortcuts'
import { Lanes } from '../workbench/lanes/Lanes'
import {
  createWorkbench,
  useStudy,
  useWorkbench,
  useWorkbenchStore,
  type View,
  WorkbenchContext,
} from '../workbench/store'
import { useLook } from '../workbench/useLook'
import { ReadSteps } from './ReadSteps'
import { ReadWorking } from './ReadWorking'

type ReadView = Exclude<View, 'bench'>

/** A study as the server has it, to be read: everything in it moves, and nothing of that is kept. */
export function ReadingPage({ view }: { view: ReadView }) {
  const { id = '' } = useParams()
  const opening = useQuery({
    queryKey: ['read', id],
    queryFn: () => api.get(id),
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  })
  if (opening.error instanceof Refused) return <MissingPage message={opening.error.message} alone />
  if (opening.isError) {
    return <CannotBeRead error={opening.error} onAgain={() => void opening.refetch()} />
  }
  if (!opening.data) {
    return (
      <p role="status" className="p-8 text-quiet">
        Opening the study …
      </p>
    )
  }
  return <OpenStudy stored={opening.data} view={view} />
}

function OpenStudy({ stored, view }: { stored: StoredStudy; view: ReadView }) {
  const open = () => createWorkbench(stored.id, stored.study, '', view)
  const [store, setStore] = useState(open)
  return (
    <WorkbenchContext value={store}>
      {view === 'read' ? <Read onAgain={() => setStore(open)} /> : <Picture />}
    </WorkbenchContext>
  )
}

const noHelp = () => undefined

/** The picture with its deck, the lesson and the working, without anything that writes. */
function Read({ onAgain }: { onAgain: () => void }) {
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
        <div className="ml-auto flex gap-2">
          <HandOn />
        </div>
      </header>
      <main className="flex min-h-0 flex-1 max-lg:flex-col max-lg:overflow-y-auto">
        <div className="flex min-w-0 flex-1 flex-col max-lg:min-h-[max(520px,62vh)] max-lg:flex-none max-sm:min-h-[max(640px,80vh)]">
          <Lanes />
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

/** Picture and deck alone, as large as what they stand in. */
function Picture() {
  const store = useWorkbenchStore()
  const title = useStudy((s) => s.title)
  const announcement = useWorkbench((s) => s.announcement)
  usePlayer(store)
  useShortcuts(store, noHelp)
  useLook()
  useTitle(title)
  return (
    <main aria-label={title} className="flex h-full flex-col overflow-hidden bg-page">
      <Lanes />
      <Deck />
      <div aria-live="polite" className="sr-only">
        {announcement}
      </div>
    </main>
  )
}

function useTitle(title: string) {
  useEffect(() => {
    document.title = `${title} · Yperkine`
  }, [title])
}

import type { StoredStudy } from '@yperkine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useParams } from 'react-router'
import { api, Refused } from '../api'
import { HandOn } from '../handOn/HandOn'
import { CannotBeRead } from '../pages/CannotBeRead'
import { MissingPage } from '../pages/MissingPage'
import { Deck } from '../workbench/deck/Deck'
import { usePlayer } from '../workbench/deck/usePlayer'
import { useShortcuts } from '../workbench/gestures/useShortcuts'
import { Views } from '../workbench/space/Views'
import {
  createWorkbench,
  useStudy,
  useWorkbench,
  useWorkbenchStore,
  type View,
  WorkbenchContext,
} from '../workbench/store'
import { useLook } from '../workbench/useLook'
import { noHelp, Read, useTitle } from './Read'

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
      {view === 'read' ? (
        <Read onAgain={() => setStore(open)}>
          <HandOn />
        </Read>
      ) : (
        <Picture />
      )}
    </WorkbenchContext>
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
      <Views />
      <Deck />
      <div aria-live="polite" className="sr-only">
        {announcement}
      </div>
    </main>
  )
}

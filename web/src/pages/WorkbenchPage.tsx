import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useState } from 'react'
import { useParams } from 'react-router'
import { api, Refused } from '../api'
import { preloadFormulaField } from '../parts/FormulaField'
import { createAutosave } from '../workbench/autosave'
import { Conflict } from '../workbench/Conflict'
import { Deck } from '../workbench/Deck'
import { drafts, type Opening, openStudy } from '../workbench/drafts'
import { Lanes } from '../workbench/Lanes'
import { Shortcuts } from '../workbench/Shortcuts'
import {
  createWorkbench,
  useStudy,
  useWorkbenchStore,
  WorkbenchContext,
  type WorkbenchStore,
} from '../workbench/store'
import { TopBar } from '../workbench/TopBar'
import { usePlayer } from '../workbench/usePlayer'
import { useShortcuts } from '../workbench/useShortcuts'
import { Working } from '../workbench/Working'
import { MissingPage } from './MissingPage'

export function WorkbenchPage() {
  const { id = '' } = useParams()
  const queries = useQueryClient()
  // What a study is while it is open is the workbench's business: it is read once.
  const opening = useQuery({
    queryKey: ['study', id],
    queryFn: () => openStudy(id),
    gcTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  })
  if (opening.error instanceof Refused) return <MissingPage message={opening.error.message} />
  if (opening.isError) {
    return (
      <main className="mx-auto max-w-xl px-6 py-24">
        <p role="alert">The study cannot be read at the moment: {opening.error.message}.</p>
        <button type="button" className="button mt-4" onClick={() => void opening.refetch()}>
          Try again
        </button>
      </main>
    )
  }
  if (!opening.data || opening.isFetching) {
    return <p className="p-8 text-quiet">Opening the study …</p>
  }
  const takeTheirs = async () => {
    await drafts.drop(id)
    await queries.resetQueries({ queryKey: ['study', id] })
  }
  return (
    <OpenStudy
      key={`${id} ${opening.dataUpdatedAt}`}
      opening={opening.data}
      onTakeTheirs={() => void takeTheirs()}
    />
  )
}

interface OpenProps {
  opening: Opening
  onTakeTheirs: () => void
}

function OpenStudy({ opening, onTakeTheirs }: OpenProps) {
  const [store] = useState(() => createWorkbench(opening.stored.id, opening.study))
  useAutosave(store, opening)
  return (
    <WorkbenchContext value={store}>
      <Bench onTakeTheirs={onTakeTheirs} />
    </WorkbenchContext>
  )
}

function Bench({ onTakeTheirs }: { onTakeTheirs: () => void }) {
  const store = useWorkbenchStore()
  const look = useStudy((s) => s.display.look)
  const title = useStudy((s) => s.title)
  const [help, setHelp] = useState(false)
  const showHelp = useCallback(() => setHelp(true), [])
  usePlayer(store)
  useShortcuts(store, showHelp)
  useEffect(preloadFormulaField, [])
  useEffect(() => {
    document.title = `${title} · Yperkine`
  }, [title])
  useEffect(() => {
    const { dataset } = document.documentElement
    dataset.look = look
    return () => {
      delete dataset.look
    }
  }, [look])
  return (
    <div className="flex h-full flex-col overflow-hidden">
      <TopBar />
      <Conflict onTakeTheirs={onTakeTheirs} />
      <main className="flex min-h-0 flex-1 max-lg:flex-col max-lg:overflow-y-auto">
        <div className="flex min-w-0 flex-1 flex-col max-lg:min-h-[max(520px,62vh)] max-lg:flex-none">
          <Lanes />
          <Deck />
        </div>
        <Working />
      </main>
      <Shortcuts open={help} onClose={() => setHelp(false)} />
    </div>
  )
}

/**
 * Sends every settled state of the study to the server, and the last one when the page is left.
 * What the server does not have yet is kept in the browser as well.
 */
function useAutosave(store: WorkbenchStore, opening: Opening) {
  const queries = useQueryClient()
  const [first] = useState(opening)
  useEffect(() => {
    const { id, version, study } = first.stored
    let from = version
    let sent: typeof study | null = null
    const autosave = createAutosave({
      version,
      saved: study,
      send: async (base, next, saveId, last) => {
        sent = next
        const stored = await api.save(id, base, next, saveId, last)
        from = stored.version
        sent = null
        return stored
      },
      onStatus(status, fault) {
        store.getState().setStatus(status, fault)
        if (status === 'Saved') void drafts.drop(id)
      },
      onConflict: (theirs) => store.getState().setTheirs(theirs),
      newSaveId: () => crypto.randomUUID(),
    })
    let last = study
    const take = (next: typeof study) => {
      if (next === last) return
      last = next
      void drafts.keep(id, { version: from, study: next, sent })
      autosave.change(next)
    }
    take(first.study)
    if (first.theirs) {
      store.getState().setTheirs(first.theirs)
      store.getState().setStatus('Not saved', 'it was changed elsewhere in the meantime')
      autosave.stop()
    }
    const stop = store.subscribe(({ history, held, courses }) => {
      // While a drag runs there is nothing settled to keep; edits made while it plays are.
      if (!held || courses) take(history.present)
    })
    const flush = () => void autosave.flush()
    const onHide = () => document.visibilityState === 'hidden' && flush()
    window.addEventListener('pagehide', flush)
    window.addEventListener('online', flush)
    document.addEventListener('visibilitychange', onHide)
    return () => {
      stop()
      window.removeEventListener('pagehide', flush)
      window.removeEventListener('online', flush)
      document.removeEventListener('visibilitychange', onHide)
      void autosave.flush().finally(() => {
        autosave.stop()
        void queries.invalidateQueries({ queryKey: ['studies'] })
      })
    }
  }, [store, first, queries])
}

import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useParams } from 'react-router'
import { api, Refused, type StoredStudy } from '../api'
import { createAutosave } from '../workbench/autosave'
import { Deck } from '../workbench/Deck'
import { Lanes } from '../workbench/Lanes'
import { createWorkbench, WorkbenchContext, type WorkbenchStore } from '../workbench/store'
import { TopBar } from '../workbench/TopBar'
import { useShortcuts } from '../workbench/useShortcuts'
import { Working } from '../workbench/Working'
import { MissingPage } from './MissingPage'

export function WorkbenchPage() {
  const { id = '' } = useParams()
  // What a study is while it is open is the workbench's business: it is read once.
  const stored = useQuery({
    queryKey: ['study', id],
    queryFn: () => api.get(id),
    staleTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  })
  if (stored.error instanceof Refused) return <MissingPage message={stored.error.message} />
  if (stored.isError) {
    return (
      <main className="mx-auto max-w-xl px-6 py-24">
        <p role="alert">The study cannot be read at the moment: {stored.error.message}.</p>
        <button type="button" className="button mt-4" onClick={() => void stored.refetch()}>
          Try again
        </button>
      </main>
    )
  }
  if (!stored.data || stored.isFetching) {
    return <p className="p-8 text-quiet">Opening the study …</p>
  }
  return <OpenStudy key={id} stored={stored.data} />
}

function OpenStudy({ stored }: { stored: StoredStudy }) {
  const queries = useQueryClient()
  const [store] = useState(() => createWorkbench(stored.id, stored.study))
  useAutosave(store, stored, () => {
    queries.removeQueries({ queryKey: ['study', stored.id] })
    void queries.invalidateQueries({ queryKey: ['studies'] })
  })
  useShortcuts(store)
  return (
    <WorkbenchContext value={store}>
      <div className="flex h-full flex-col overflow-hidden">
        <TopBar />
        <main className="flex min-h-0 flex-1">
          <div className="flex min-w-0 flex-1 flex-col">
            <Lanes />
            <Deck />
          </div>
          <Working />
        </main>
      </div>
    </WorkbenchContext>
  )
}

/** Sends every settled state of the study to the server, and the last one when the page is left. */
function useAutosave(store: WorkbenchStore, stored: StoredStudy, onLeave: () => void) {
  const [first] = useState(stored)
  const [leave] = useState(() => onLeave)
  useEffect(() => {
    const { id, version, study } = first
    const autosave = createAutosave({
      version,
      saved: study,
      send: (from, next, saveId, last) => api.save(id, from, next, saveId, last),
      onStatus: store.getState().setStatus,
      onConflict: () => undefined,
      newSaveId: () => crypto.randomUUID(),
    })
    const stop = store.subscribe(({ history, held }) => {
      document.title = `${history.present.title} · Yperkine`
      // While a drag runs there is nothing settled to keep.
      if (!held) autosave.change(history.present)
    })
    document.title = `${study.title} · Yperkine`
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
        leave()
      })
    }
  }, [store, first, leave])
}
